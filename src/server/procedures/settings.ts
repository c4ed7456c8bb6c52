/** The settings of a kind of machine, as its procedures know them. */

import type { MachineKind } from "../../core/machine/machine-kind";
import type { MachineSpec } from "../../core/machine/machine-spec";
import type { UnitId } from "../../core/metrology/units";
import type { SettingSpec } from "../../core/settings/setting";
import { offeredProcedures } from "./procedures";

/** In practice order, each once. */
export function settingsOf(kind: MachineKind): SettingSpec[] {
  const all = offeredProcedures(kind).flatMap((p) => p.settings);
  return all.filter((s, i) => all.findIndex((other) => other.key === s.key) === i);
}

/** Its name for a person; the key where no procedure here knows it. */
export function settingLabel(kind: MachineKind, key: string): string {
  return settingsOf(kind).find((s) => s.key === key)?.label ?? key;
}

/** The unit in which the machine's controller takes a setting. */
export function settingUnit(machine: MachineSpec, key: string): UnitId {
  return machine.held[key]?.unit ?? settingsOf(machine.kind).find((s) => s.key === key)?.unit ?? "one";
}
