/**
 * How far Y leans toward X, by what was measured between the corners of a rectangle.
 *
 *   w, h: sides,  s = sin g:  diagonal 1 = sqrt(w^2 + h^2 - 2 w h s),  diagonal 2 = sqrt(w^2 + h^2 + 2 w h s)
 *
 * Exact for any parallelogram. g > 0: +Y leans toward +X, and diagonal 2 runs from front left to back right. Solved by Gauss-Newton
 * steps on w, h and s. A side that is not measured is as drawn, within what a scale may be off. [law of cosines]
 */

import { adjust, combine } from "../../estimate/adjustment";
import { departure, known, type Model, ofReadings, type Row, usual } from "../../estimate/model";
import { mean } from "../../fitting/repeats";
import { gaugeTerms, type LengthReading, lengthReadings, modelOf } from "../../measuring/length-readings";
import { readLengths, type SiteRead } from "../../measuring/read-lengths";
import type { Budgeted } from "../../metrology/budget";
import type { Gauge } from "../../metrology/gauge";
import { withinSentence } from "../../metrology/sentence-case";
import type { History, RoundRecord } from "../../trial/history";
import { lengthsOf } from "./coupon";
import { LENGTHS, type LengthId, nominalMm } from "./layout";
import type { SquarenessPlan } from "./plan";

export const LEAN = "lean";
/** Error of a side that is not measured, sd, as a share: the scale of its axis. (common practice, no source) */
const USUAL_SCALE = 0.005;
/** Lean of a gantry, before it is seen, sd. (common practice, no source) */
const USUAL_LEAN = 0.01;
/** How far a corner of a sound drive lies off its place along a length, both ends together, sd, mm. (common practice, no source) */
const STRAY_MM = 0.005;
const STEPS = 6;
const SETTLED = 1e-12;

type At = { w: number; h: number; s: number };

export type Lean = {
  /** sin g. */
  lean: Budgeted;
  read: Partial<Record<LengthId, SiteRead>>;
};

/** @returns `null` until both diagonals, or two sides and a diagonal, are read, or if no parallelogram has these lengths */
export function leanOf(history: History<SquarenessPlan>, round: RoundRecord<SquarenessPlan>): Lean | null {
  const solved = solvedAt(history, round);
  if (!solved) return null;
  const fit = adjust(ofReadings(solved.model));
  if (!fit) return null;
  const change = combine(fit, { [LEAN]: 1 });
  const lean = { ...change, quantity: { ...change.quantity, value: solved.at.s + change.quantity.value } };
  return { lean, read: readIn(round, history.gauges) };
}

/** The readings as a model of small changes about the lengths that fit them. */
export function observeLean(history: History<SquarenessPlan>, round: RoundRecord<SquarenessPlan>): Model | null {
  return solvedAt(history, round)?.model ?? null;
}

function solvedAt(
  history: History<SquarenessPlan>,
  round: RoundRecord<SquarenessPlan>,
): { model: Model; at: At } | null {
  const { plan } = round;
  const sites = lengthsOf(plan);
  const readings = lengthReadings(round.answers, sites, history.gauges, history.decisions);
  // A reading that is only imagined does not move the point about which the model is linear.
  const isForecast = readings.every((r) => r.imagined);
  const taken = readings.filter((r) => isForecast || !r.imagined);
  const at = (id: LengthId) => {
    const own = taken.filter((r) => r.site === id);
    return own.length > 0 ? mean(own.map((r) => r.value)) : null;
  };
  if (neededFor(plan).some((id) => at(id) === null)) return null;
  let here: At = { w: at("width") ?? plan.widthMm, h: at("height") ?? plan.heightMm, s: 0 };
  for (let step = 0; step < STEPS; step++) {
    const model = modelAt(plan, taken, here);
    const fit = model && adjust(ofReadings(model));
    if (!model || !fit) return null;
    const change = (id: string) => combine(fit, { [id]: 1 }).quantity.value;
    const [w, h, s] = [change("width"), change("height"), change(LEAN)];
    if (Math.abs(s) + Math.abs(w / here.w) + Math.abs(h / here.h) < SETTLED) break;
    here = { w: here.w + w, h: here.h + h, s: here.s + s };
    if (!(here.w > 0 && here.h > 0 && Math.abs(here.s) < 1)) return null;
  }
  const model = modelAt(plan, readings, here);
  return model && { model, at: here };
}

/** Each length and how it changes with the sides and the lean. */
function lengthAt(id: LengthId, { w, h, s }: At): { mm: number; row: Row } {
  if (id === "width") return { mm: w, row: { width: 1 } };
  if (id === "height") return { mm: h, row: { height: 1 } };
  const sign = id === "second" ? 1 : -1;
  const mm = Math.sqrt(w * w + h * h + 2 * sign * w * h * s);
  return {
    mm,
    row: { width: (w + sign * h * s) / mm, height: (h + sign * w * s) / mm, [LEAN]: (sign * w * h) / mm },
  };
}

function modelAt(plan: SquarenessPlan, readings: readonly LengthReading[], at: At): Model | null {
  const ids = [...new Set(readings.map((r) => r.site as LengthId))];
  if (ids.some((id) => !(lengthAt(id, at).mm > 0))) return null;
  const side = (id: "width" | "height", here: number) => {
    const nominal = nominalMm(id, plan);
    const label = id === "width" ? "drawn side along X" : "drawn side along Y";
    const value = nominal - here;
    return ids.includes(id)
      ? usual(id, label, USUAL_SCALE * nominal, value)
      : known(id, label, { value, u: USUAL_SCALE * nominal, canBeWrong: false });
  };
  return modelOf(readings, {
    row: (r) => ({ ...lengthAt(r.site as LengthId, at).row, [`stray ${r.site}`]: 1 }),
    y: (r) => r.value - lengthAt(r.site as LengthId, at).mm,
    terms: gaugeTerms(readings, { jawsOf: () => "outside", lengthOf: (r) => nominalMm(r.site as LengthId, plan) }),
    facts: ({ site }) => ({
      pointLabel: withinSentence(LENGTHS[site as LengthId].label),
      signedByWords: false,
    }),
    known: [
      side("width", at.w),
      side("height", at.h),
      usual(LEAN, "usual lean", USUAL_LEAN, -at.s),
      ...ids.map((id) => ({
        ...departure(`stray ${id}`, "straightness of the axes", STRAY_MM),
        source: { id: "stray", label: "Straightness of the axes", kind: "B" as const },
      })),
    ],
    wanted: [
      { id: LEAN, label: "the lean of Y", row: { [LEAN]: 1 }, proves: 1 },
      { id: "angle", label: "the angle off square", row: { [LEAN]: 1 } },
    ],
  });
}

/** Lengths that the calculation needs. */
export function neededFor({ way }: Pick<SquarenessPlan, "way">): LengthId[] {
  return way === "diagonals" ? ["first", "second"] : ["width", "height", "first"];
}

/** Means of what was read, of two gauges by the one that scatters less. */
export function readIn(round: RoundRecord<SquarenessPlan>, gauges: readonly Gauge[]): Lean["read"] {
  const read: Lean["read"] = {};
  for (const r of readLengths(round.answers, lengthsOf(round.plan), gauges)) {
    const id = r.site as LengthId;
    const before = read[id];
    read[id] = before && before.u <= r.u ? before : r;
  }
  return read;
}
