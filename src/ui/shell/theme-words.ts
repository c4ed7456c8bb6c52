import type { Preferences } from "../../server/screens/preferences-view";

export const THEME_WORDS: Record<Preferences["theme"], string> = {
  system: "Light or dark as the system has it",
  light: "Light",
  dark: "Dark, for dim rooms",
};
