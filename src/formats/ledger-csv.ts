/** The ledger as a table for a spreadsheet: one line a number, so a table of eight rows is eight lines. */

import { fromInternal, UNITS } from "../core/metrology/units";
import { fieldTableText } from "../core/settings/field-table";
import { type Cell, csvOf } from "./csv";
import type { LedgerDocument } from "./ledger-document";

const DIGITS = 10;

export function ledgerCsv({ machine, entries }: LedgerDocument): string {
  return csvOf(
    [
      "machine",
      "entered",
      "setting",
      "at",
      "value",
      "unit",
      "held by",
      "origin",
      "trial",
      "read back",
      "taken back",
      "note",
    ],
    entries.flatMap((e) =>
      numbersOf(e).map(([at, value]): Cell[] => [
        ...[machine, e.at, e.setting, at, value, UNITS[e.unit].symbol],
        ...[e.holder, e.origin, e.trial ?? "", e.readBack ? "yes" : "no", e.takenBack ?? "", e.note],
      ]),
    ),
  );
}

function numbersOf({ value, unit }: LedgerDocument["entries"][number]): [Cell, Cell][] {
  const shown = (internal: number) => Number(fromInternal(internal, unit).toPrecision(DIGITS));
  if (value === null) return [["", "not known"]];
  if (value.shape === "scalar") return [["", shown(value.value)]];
  if (value.shape === "map") return [["", fieldTableText(value)]];
  return value.rows.length === 0 ? [["", "no entries"]] : value.rows.map((r) => [r.at, shown(r.value)]);
}
