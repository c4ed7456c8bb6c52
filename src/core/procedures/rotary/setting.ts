/** What a controller holds of a rotary: how many steps turn it once, and how thick the roller is that the part lies on. */
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const ROTARY_STEPS = "rotary steps";
export const ROLLER_DIAMETER = "rotary roller diameter";

/** Steps are whole; a hundredth of a mm is usual. (common practice, no source) */
export const ROTARY_SETTINGS: readonly SettingSpec[] = [
  scalarSetting({
    key: ROTARY_STEPS,
    label: "Steps per revolution",
    acts: { on: "rotary steps" },
    owner: "rotary",
    unit: "steps",
    usualStep: { count: 1 },
    dimensions: ["count"],
    about: "For one turn of the roller or the chuck.",
    onlyWhere: "Its controller holds the steps per revolution of a rotary",
  }),
  scalarSetting({
    key: ROLLER_DIAMETER,
    label: "Roller diameter",
    acts: { on: "roller" },
    owner: "rotary",
    usualStep: { length: 0.01 },
    dimensions: ["length"],
    about: "Of the roller that turns the part.",
    onlyWhere: "Its controller holds the diameter of a rotary's roller",
  }),
];
