/** Data of the page for bent drawings: the present correction of the lens. */
import type { State } from "../../core/course/state";
import type { LengthUnit } from "../../core/metrology/units";
import { FIELD_SETTINGS, MAP_KEYS } from "../../core/procedures/field/setting";
import { tableSideMm } from "../../core/procedures/field/table-form";
import type { FieldTable } from "../../core/settings/field-table";
import type { Db } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import { fittedNow } from "../../data/parts";
import { machineRecord } from "../procedures/machine-record";
import { procedureState } from "../procedures/procedure-state";
import { knownProcedure } from "../procedures/procedures";
import { progressOf } from "../trial/trial-progress";
import { holdsNow } from "../trial/trial-record";

export type BentDrawingsView = {
  slug: string;
  name: string;
  /** Name of the fitted lens; `null` where none is written down. */
  lens: string | null;
  /** By which drawings are bent; `null` where no trial made it. */
  artwork: FieldTable | null;
  /** A correction table is loaded in the controller. */
  hasTable: boolean;
  fieldMm: number;
  standing: { state: State; detail: string };
};

/** `undefined` where there is no galvo of this address. */
export function bentDrawingsView(db: Db, slug: string, now: number, length: LengthUnit): BentDrawingsView | undefined {
  const machine = machineBySlug(db, slug);
  if (machine?.spec.kind !== "galvo") return undefined;
  const record = machineRecord(db, machine);
  const controllers = record.holders.filter((h) => h.role === "controller").map((h) => h.id);
  const held = (key: string): FieldTable | null => {
    const spec = FIELD_SETTINGS.find((s) => s.key === key);
    const entry = record.entries.find(
      (e) => e.setting === key && controllers.includes(e.holderId ?? 0) && spec && holdsNow(e, spec, record.fittings),
    );
    return entry?.value?.shape === "map" && entry.value.undone.length > 0 ? entry.value : null;
  };
  const { state, detail } = procedureState(record, knownProcedure("field"), (id) => progressOf(db, id), {
    now,
    length,
  });
  return {
    slug,
    name: machine.spec.name,
    lens: fittedNow(db, machine.id).optic?.label ?? null,
    artwork: held(MAP_KEYS.artwork),
    hasTable: held(MAP_KEYS.table) !== null,
    fieldMm: tableSideMm(machine.spec),
    standing: { state, detail },
  };
}
