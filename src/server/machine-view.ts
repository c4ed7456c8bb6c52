/** A machine as its page receives it. */
import { type MachineKind, machineKindSchema } from "../core/procedures/machine-spec";
import type { SettingSpec } from "../core/procedures/setting";
import type { Db } from "../data/database";
import { type BenchMachine, benchView } from "./bench-view";
import { hasPracticeKind } from "./machine-steps";
import { offeredProcedures } from "./procedures";

/** A setting of a machine that a procedure corrects. */
export type KeptSetting = Pick<SettingSpec, "key" | "label" | "unit" | "larger">;

export type MachineFormView = { settings: Record<MachineKind, KeptSetting[]>; practiceKinds: MachineKind[] };

/** What the form asks for, by kind of machine. */
export function machineFormView(): MachineFormView {
  const kinds = machineKindSchema.options;
  return {
    settings: Object.fromEntries(kinds.map((kind) => [kind, settingsOf(kind)])) as Record<MachineKind, KeptSetting[]>,
    practiceKinds: kinds.filter(hasPracticeKind),
  };
}

function settingsOf(kind: MachineKind): KeptSetting[] {
  return offeredProcedures(kind).flatMap((p) =>
    p.settings
      .filter((s) => s.owner === "machine" && s.shape === "table")
      .map(({ key, label, unit, larger }) => ({ key, label, unit, larger })),
  );
}

/** As it stands on the bench; `undefined` where there is none of this name. */
export function machineView(db: Db, slug: string, now: number): BenchMachine | undefined {
  return benchView(db, now).machines.find((m) => m.slug === slug);
}
