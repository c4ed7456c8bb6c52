/** `coupon TRIAL --format F`: the piece of a round in a file format; `sites TRIAL`: where it is measured. */

import { lengthUnitOf } from "../core/trial/decisions";
import { couponCodeOf } from "../formats/document-history";
import { dxfOf } from "../formats/dxf-writer";
import { gcodeOf } from "../formats/gcode-writer";
import type { Paper } from "../formats/paper/sheet-page";
import { sheetPdf } from "../formats/paper/sheet-pdf";
import { sheetToFill } from "../formats/readings-csv";
import { sitesCsv } from "../formats/results-csv";
import { runSheet } from "../formats/run-sheet/sheet-content";
import { sheetPages } from "../formats/run-sheet/sheet-pages";
import { svgOf } from "../formats/svg-writer";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

const TEXT_FORMATS = ["svg", "dxf", "gcode", "csv"] as const;
export const COUPON_FORMATS = [...TEXT_FORMATS, "pdf"] as const;
export type CouponFormat = (typeof COUPON_FORMATS)[number];

/** @param n round from 1; 0 = the last. A drawing holds one piece, from 1. */
export async function coupon(
  file: string,
  document: TrialDocument,
  format: CouponFormat,
  n: number,
  { paper, piece }: { paper: Paper; piece: number },
): Promise<string | Buffer> {
  if (format !== "pdf") return couponText(file, document, format, n, piece);
  const { procedure, history, round } = roundIn(file, document, n);
  const sheet = runSheet({
    procedure,
    machine: history.machine,
    couponCode: couponCodeOf(document, round.n),
    purpose: round.purpose,
    spec: round.spec,
    inForce: round.inForce,
    unit: lengthUnitOf(history),
  });
  return sheetPdf(sheetPages(sheet, paper), sheet.title, new Date());
}

/** @param n round from 1; 0 = the last */
export function couponText(
  file: string,
  document: TrialDocument,
  format: (typeof TEXT_FORMATS)[number],
  n: number,
  pieceN = 1,
): string {
  const { procedure, history, round } = roundIn(file, document, n);
  const sent = procedure.asSent(round.spec, round.plan, round.inForce, history.machine);
  if (format === "csv") return sheetToFill(round.spec.sites, round.answers, lengthUnitOf(history));
  if (format === "gcode")
    return gcodeOf(sent, {
      couponCode: couponCodeOf(document, round.n),
      machineName: history.machine.name,
      dialect: history.machine.gcode,
      bed: history.machine,
    });
  const piece = sent.pieces[pieceN - 1];
  if (!piece) throw new CliFault(file, "--piece", `This round has no piece ${pieceN} to draw.`);
  return format === "svg" ? svgOf(piece) : dxfOf(piece);
}

function roundIn(file: string, document: TrialDocument, n: number) {
  const { procedure, history } = trialIn(file, document);
  const round = n === 0 ? history.rounds.at(-1) : history.rounds.find((r) => r.n === n);
  if (!round)
    throw new CliFault(file, "rounds", n === 0 ? "The trial has no round yet." : `The trial has no round ${n}.`);
  return { procedure, history, round };
}

export function sites(file: string, document: TrialDocument): string {
  const { history } = trialIn(file, document);
  return sitesCsv(history.rounds.at(-1)?.spec.sites ?? []);
}
