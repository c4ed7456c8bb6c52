/** The correction table that a trial makes, as its controller takes it. */
import { tableNodes } from "../../core/procedures/field/table";
import { tableFormOf, tableSideMm } from "../../core/procedures/field/table-form";
import { fieldTableCsv, fieldTableJson } from "../../formats/field-table";
import { Refusal } from "../refusal";
import { type FullTrial, historyOf } from "./trial-record";

/** @throws Refusal while no table is worked out, or its form is not said */
export function fieldTableFile(full: FullTrial, n: number, as: "csv" | "json"): string {
  const history = historyOf(full, n);
  const outcome = full.procedure.solve(history);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  const value = corrections.map((c) => c.newValue).find((v) => v.shape === "map");
  const read = tableFormOf(history.decisions);
  if (!read.ok) throw new Refusal("file", read.message);
  const side = tableSideMm(full.machine);
  if (value?.shape !== "map")
    throw new Refusal("file", "There is no table yet. Read the grid and confirm the table in the controller first.");
  const nodes = tableNodes(value, read.form.across, side);
  return as === "csv" ? fieldTableCsv(nodes, read.form) : fieldTableJson(nodes, read.form, side);
}
