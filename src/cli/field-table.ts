/** `table TRIAL` and `bend DRAWING --table TRIAL`: what a trial of a field makes, as files. */
import { bend } from "../artwork/bend";
import { parseSignedReading } from "../core/metrology/reading-text";
import { tableNodes } from "../core/procedures/field/table";
import {
  COUNTS,
  ORDER,
  SIZE,
  TABLE_ORDERS,
  TABLE_SIZES,
  tableFormOf,
  tableSideMm,
  VALUES,
} from "../core/procedures/field/table-form";
import type { FieldTable } from "../core/settings/field-table";
import { fieldTableCsv, fieldTableJson } from "../formats/field-table";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { fileText, trialIn } from "./document-file";

export type TableWords = {
  nodes: string | undefined;
  values: string | undefined;
  order: string | undefined;
  counts: string | undefined;
  format: string | undefined;
};

/** @throws CliFault where the trial makes no table, or its form is not one of those there are */
export function tableFile(file: string, document: TrialDocument, words: TableWords): string {
  const { table, history } = madeBy(file, document);
  const chosen: [string, string | undefined, string, readonly string[]][] = [
    ["--nodes", words.nodes, SIZE.key, TABLE_SIZES],
    ["--values", words.values?.replace("-", " "), VALUES.key, ["add", "command", "take off"]],
    ["--order", words.order?.replace("-", ", "), ORDER.key, Object.keys(TABLE_ORDERS)],
  ];
  const decisions: Record<string, string> = { ...history.decisions };
  for (const [name, word, key, options] of chosen) {
    if (word === undefined) continue;
    if (!options.includes(word))
      throw new CliFault("", name, `Choose one of ${options.map((o) => o.replaceAll(/,? /g, "-")).join(", ")}.`);
    decisions[key] = word;
  }
  if (words.counts !== undefined) decisions[COUNTS.key] = words.counts;
  const read = tableFormOf(decisions);
  if (!read.ok) throw new CliFault("", "--counts", read.message);
  const side = tableSideMm(history.machine);
  const nodes = tableNodes(table, read.form.across, side);
  if (words.format === "json") return fieldTableJson(nodes, read.form, side);
  if (words.format === undefined || words.format === "csv") return fieldTableCsv(nodes, read.form);
  throw new CliFault("", "--format", "Choose csv or json.");
}

/** @param at where the middle of the sheet, or the zero of a DXF, lies from the middle of the field: `X:Y` */
export function bentFile(drawing: string, file: string, document: TrialDocument, at: string): string {
  const { table } = madeBy(file, document);
  const [x, y, more] = at.split(":").map((t) => parseSignedReading(t, "length", "mm"));
  if (!x?.ok || !y?.ok || more) throw new CliFault("", "--at", "Enter two lengths, for example 10:-5.");
  const made = bend({ text: fileText(drawing), table, place: { x: x.value, y: y.value } });
  if (!made.ok) throw new CliFault(drawing, "", made.message);
  return made.file;
}

/** The newest correction of the whole field that the trial makes. */
function madeBy(file: string, document: TrialDocument) {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  const value = corrections.map((c) => c.newValue).find((v): v is FieldTable => v.shape === "map");
  if (!value)
    throw new CliFault(
      file,
      "rounds",
      "This trial makes no table. Read a grid of a field that is corrected by a table or by bent artwork.",
    );
  return { table: value, history };
}
