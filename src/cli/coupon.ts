/** `coupon TRIAL --format F`: the piece of a round in a file format; `sites TRIAL`: where it is measured. */

import { lengthUnitOf } from "../core/procedures/shown-unit";
import { couponCodeOf } from "../formats/document-history";
import { dxfOf } from "../formats/dxf-writer";
import { gcodeOf } from "../formats/gcode-writer";
import { sheetToFill } from "../formats/readings-csv";
import { sitesCsv } from "../formats/results-csv";
import { svgOf } from "../formats/svg-writer";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

export const COUPON_FORMATS = ["svg", "dxf", "gcode", "csv"] as const;
export type CouponFormat = (typeof COUPON_FORMATS)[number];

/** @param n round from 1; 0 = the last */
export function coupon(file: string, document: TrialDocument, format: CouponFormat, n: number): string {
  const { procedure, history } = trialIn(file, document);
  const round = n === 0 ? history.rounds.at(-1) : history.rounds.find((r) => r.n === n);
  if (!round)
    throw new CliFault(file, "rounds", n === 0 ? "The trial has no round yet." : `The trial has no round ${n}.`);
  const sent = procedure.asSent(round.spec, round.plan, round.inForce, history.machine);
  if (format === "csv") return sheetToFill(round.spec.sites, round.answers, lengthUnitOf(history));
  if (format === "gcode")
    return gcodeOf(sent, {
      couponCode: couponCodeOf(document, round.n),
      machineName: history.machine.name,
      dialect: history.machine.gcode,
    });
  const piece = sent.pieces[0];
  if (!piece) throw new CliFault(file, "rounds", "This round has no piece to draw.");
  return format === "svg" ? svgOf(piece) : dxfOf(piece);
}

export function sites(file: string, document: TrialDocument): string {
  const { history } = trialIn(file, document);
  return sitesCsv(history.rounds.at(-1)?.spec.sites ?? []);
}
