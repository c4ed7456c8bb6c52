/** What the page of round parts receives of a machine: its rotary, and the numbers that its controller holds of it now. */

import type { State } from "../../core/course/state";
import type { RotarySpec } from "../../core/machine/part-spec";
import type { LengthUnit } from "../../core/metrology/units";
import { ROLLER_DIAMETER, ROTARY_SETTINGS, ROTARY_STEPS } from "../../core/procedures/rotary/setting";
import type { Db } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import { fittedNow } from "../../data/parts";
import { machineRecord } from "../procedures/machine-record";
import { procedureState } from "../procedures/procedure-state";
import { knownProcedure } from "../procedures/procedures";
import { progressOf } from "../trial/trial-progress";
import { holdsNow } from "../trial/trial-record";

export type RoundPartsView = {
  slug: string;
  name: string;
  /** `null` where none is written down as fitted. */
  rotary: RotarySpec | null;
  /** In force at its controller; `null` = not known. */
  stepsPerRevolution: number | null;
  rollerDiameterMm: number | null;
  standing: { state: State; detail: string };
};

/** `undefined` where there is no machine of this address. */
export function roundPartsView(db: Db, slug: string, now: number, length: LengthUnit): RoundPartsView | undefined {
  const machine = machineBySlug(db, slug);
  if (!machine) return undefined;
  const record = machineRecord(db, machine);
  const controllers = record.holders.filter((h) => h.role === "controller").map((h) => h.id);
  const held = (key: string) => {
    const spec = ROTARY_SETTINGS.find((s) => s.key === key);
    const entry = record.entries.find(
      (e) => e.setting === key && controllers.includes(e.holderId ?? 0) && spec && holdsNow(e, spec, record.fittings),
    );
    return entry?.value?.shape === "scalar" ? entry.value.value : null;
  };
  const { state, detail } = procedureState(record, knownProcedure("rotary"), (id) => progressOf(db, id), {
    now,
    length,
  });
  return {
    slug,
    name: machine.spec.name,
    rotary: fittedNow(db, machine.id).rotary ?? null,
    standing: { state, detail },
    stepsPerRevolution: held(ROTARY_STEPS),
    rollerDiameterMm: held(ROLLER_DIAMETER),
  };
}
