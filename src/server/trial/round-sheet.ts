/** The run sheet of a round, for paper and for the print view. */
import { lengthUnitOf } from "../../core/trial/decisions";
import type { Db } from "../../data/database";
import { PAPERS, type Paper, type SheetPage } from "../../formats/paper/sheet-page";
import { type RunSheet, runSheet } from "../../formats/run-sheet/sheet-content";
import { sheetPages } from "../../formats/run-sheet/sheet-pages";
import { Refusal } from "../refusal";
import { couponCode, type FullTrial, laidOut, roundOf } from "./trial-record";

/** @throws Refusal when there is no such round, or its layout is not complete */
function roundSheet(db: Db, full: FullTrial, n: number): RunSheet {
  const round = roundOf(full, n);
  const { spec, inForce } = laidOut(db, full, round);
  return runSheet({
    procedure: full.procedure,
    machine: full.machine,
    couponCode: couponCode(full, n),
    purpose: round.purpose,
    spec,
    inForce,
    unit: lengthUnitOf(full.trial),
  });
}

/** The sheet laid out on paper. @throws Refusal as `roundSheet` */
export function roundSheetPages(
  db: Db,
  full: FullTrial,
  n: number,
  paper: Paper,
): { title: string; pages: SheetPage[] } {
  const sheet = roundSheet(db, full, n);
  return { title: sheet.title, pages: sheetPages(sheet, paper) };
}

/** A paper by its name in an address; A4 where none is named. @throws Refusal */
export function paperOf(name: string | null | undefined): Paper {
  if (!name) return "a4";
  if (Object.hasOwn(PAPERS, name)) return name as Paper;
  throw new Refusal("paper", `There is no paper “${name}” here: choose ${Object.keys(PAPERS).join(" or ")}.`);
}
