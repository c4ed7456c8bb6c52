/** Which settings act on what, among those of all procedures: by them a practice machine finds the values that were entered. */
import type { Acts, SettingSpec } from "../settings/setting";
import { allProcedures } from "./registry";

export function actingSettings(acts: Acts, shape: SettingSpec["shape"] = "scalar"): SettingSpec[] {
  return settingsOfAll().filter((s) => s.shape === shape && isSame(s.acts, acts));
}

/** @param key of a setting of any procedure */
export function settingByKey(key: string): SettingSpec | undefined {
  return settingsOfAll().find((s) => s.key === key);
}

function settingsOfAll(): SettingSpec[] {
  return allProcedures().flatMap((p) => p.settings);
}

function isSame(a: Acts, b: Acts): boolean {
  const which = (acts: Acts) =>
    "axis" in acts ? acts.axis : "part" in acts ? acts.part : "term" in acts ? acts.term : "";
  return a.on === b.on && which(a) === which(b);
}
