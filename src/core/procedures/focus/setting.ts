/** What a focus is set by: the height itself, or a number by which a sensor or table finds it. */
import type { SettingSpec } from "../../settings/setting";
import { FOCUS_HEIGHT, STORED_HEIGHT } from "./plan";

/** Heights are set as finely as this as a rule, mm. (common practice, no source) */
const USUAL_STEP_MM = 0.1;

const COMMON: Omit<SettingSpec, "key" | "label"> = {
  owner: "optic" as const,
  shape: "scalar" as const,
  unit: "mm" as const,
  atUnit: null,
  larger: null,
  copied: false,
  usualStep: { length: USUAL_STEP_MM },
};

export const FOCUS_SETTING: SettingSpec = { ...COMMON, key: FOCUS_HEIGHT, label: "Focus height" };
export const STORED_SETTING: SettingSpec = {
  ...COMMON,
  key: STORED_HEIGHT,
  label: "Stored height",
  onlyWhere: "A sensor or table finds its height by a stored number",
};
