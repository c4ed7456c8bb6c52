/** The three switches by which the controller of a galvo says which way X and Y run. */
import type { Need } from "../../machine/need";
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const SWAP = "swap x and y";
export const INVERT_X = "invert x";
export const INVERT_Y = "invert y";

type Part = { key: string; label: string; part: "swap" | "invert x" | "invert y" };

const PARTS: readonly Part[] = [
  { key: SWAP, label: "Swap X and Y", part: "swap" },
  { key: INVERT_X, label: "Invert X", part: "invert x" },
  { key: INVERT_Y, label: "Invert Y", part: "invert y" },
];

export const ORIENTATION_SETTINGS: readonly SettingSpec[] = PARTS.map(({ key, label, part }) =>
  scalarSetting({
    key,
    label,
    acts: { on: "orientation", part },
    unit: "onOff",
    usualStep: { switch: 1 },
    ...(part === "swap"
      ? {
          larger: { positive: "swaps first, then inverts", negative: "inverts first, then swaps" },
          senseLabel: "The controller",
        }
      : {}),
  }),
);

/** For results that belong to the way in which X and Y run. */
export const NEEDS_ORIENTATION: readonly Need[] = ORIENTATION_SETTINGS.map(({ key }) => ({
  on: "setting",
  what: key,
  effect: "stale",
  why: "the orientation was changed",
}));
