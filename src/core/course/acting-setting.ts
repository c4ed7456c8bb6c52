/** Which setting acts on what, among those of all procedures: by it a practice machine finds the value that was entered. */
import type { Acts, SettingSpec } from "../settings/setting";
import { PROCEDURES } from "./registry";

/** Left out for what no setting of this shape acts on. */
export function actingSetting(acts: Acts, shape: SettingSpec["shape"] = "scalar"): SettingSpec | undefined {
  return settingsOfAll().find((s) => s.shape === shape && isSame(s.acts, acts));
}

/** @param key of a setting of any procedure */
export function settingByKey(key: string): SettingSpec | undefined {
  return settingsOfAll().find((s) => s.key === key);
}

function settingsOfAll(): SettingSpec[] {
  return PROCEDURES.flatMap((p) => p.settings);
}

function isSame(a: Acts, b: Acts): boolean {
  return a.on === b.on && ("axis" in a ? a.axis : null) === ("axis" in b ? b.axis : null);
}
