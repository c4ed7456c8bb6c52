/** What one browser prefers, kept in its cookies: theme and unit of lengths. */
import { z } from "zod";
import { LENGTH_UNITS } from "../../core/metrology/units";

export const THEMES = ["system", "light", "dark"] as const;

const preferencesSchema = z.object({
  theme: z.enum(THEMES).catch("system"),
  unit: z.enum(LENGTH_UNITS).catch("mm"),
});
export type Preferences = z.infer<typeof preferencesSchema>;

/** @param cookie text of a cookie by its name; anything else than what is known counts as nothing */
export function preferencesFrom(cookie: (name: string) => string | undefined): Preferences {
  return preferencesSchema.parse({ theme: cookie("theme"), unit: cookie("unit") });
}
