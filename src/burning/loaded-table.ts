/** A correction table loaded into a practice controller: the file is all that it is given, as a real one is. */
import type { MachineSpec } from "../core/machine/machine-spec";
import { tableNodes } from "../core/procedures/field/table";
import { type TableForm, tableSideMm } from "../core/procedures/field/table-form";
import type { FieldTable } from "../core/settings/field-table";
import { fieldTableCsv } from "../formats/field-table";
import type { PracticeController } from "../practice/gantry-truth";

/** How practice controllers take a table. */
const FORM: TableForm = { across: 65, values: "add", order: "front, x", countsPerMm: null };

export function withTable(
  controller: PracticeController,
  table: FieldTable,
  machine: Pick<MachineSpec, "widthMm" | "depthMm">,
): PracticeController {
  const { fieldTable: _, ...without } = controller;
  const isNone = table.undone.length === 0 && table.form === null;
  return isNone
    ? without
    : { ...without, fieldTable: fieldTableCsv(tableNodes(table, FORM.across, tableSideMm(machine)), FORM) };
}
