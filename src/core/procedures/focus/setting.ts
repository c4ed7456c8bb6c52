/** What a focus is set by: the height itself, or a number by which a sensor or table finds it. */
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";
import { FOCUS_HEIGHT, STORED_HEIGHT } from "./plan";

/** Heights are set as finely as this as a rule, mm. (common practice, no source) */
const USUAL_STEP_MM = 0.1;

export const FOCUS_SETTING: SettingSpec = scalarSetting({
  key: FOCUS_HEIGHT,
  label: "Focus height",
  acts: { on: "next burn" },
  owner: "optic",
  usualStep: { length: USUAL_STEP_MM },
});
export const STORED_SETTING: SettingSpec = scalarSetting({
  key: STORED_HEIGHT,
  label: "Stored height",
  acts: { on: "next burn" },
  owner: "optic",
  usualStep: { length: USUAL_STEP_MM },
  onlyWhere: "A sensor or table finds its height by a stored number",
});
