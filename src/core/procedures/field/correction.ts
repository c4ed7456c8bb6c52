/** The new value of each setting: by its effect where that is known, else the next value to try. */

import type { FieldTerm } from "../../geometry/field-term";
import { holdOf, numberCorrection, numberIn } from "../../measuring/number-correction";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty, measured } from "../../metrology/measured";
import { fixed, plain, signed } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import { fromInternal, UNITS } from "../../metrology/units";
import { slopeFound, type Try, type TuningStep, tuningStep } from "../../settings/tuning";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction } from "../../trial/outcome";
import { termName } from "./map";
import { type Need, needsOf } from "./needs";
import { type FieldPlan, formTermsOf, keyOf } from "./plan";
import { effectMm } from "./present";
import { fieldKey, fieldSetting } from "./setting";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

/** Limits of a range that is not known, about the value in force: only where the effect is known. */
const ANYWHERE = 1e6;

export type Tuned = {
  term: FieldTerm;
  tries: Try[];
  step: TuningStep;
  /** Change of the error at the corner by one more of the coefficient, mm, as the burns show it; `null` before two of them do. */
  slope: number | null;
};

/** The coefficients of the newest burn, each with the values that were tried. */
export function tunedIn(history: H, round: Round): Tuned[] {
  const rounds = history.rounds.filter((r) => r.n <= round.n);
  const found = rounds.map((r) => ({ round: r, needs: needsOf(history, r)?.needs ?? [] }));
  return formTermsOf(round.plan).flatMap((term): Tuned[] => {
    const key = fieldKey(term);
    const tries = found.flatMap(({ round: burned, needs }): Try[] => {
      const value = numberIn(burned, key);
      const need = needs.find((n) => n.term === term)?.need.quantity;
      return value === null || !need ? [] : [{ value, error: -need.value, u: need.standardUncertainty }];
    });
    if (tries.length === 0 || tries.at(-1)?.value !== numberIn(round, key)) return [];
    const held = holdOf(history.machine, fieldSetting(key));
    const effect = effectMm(history, round, term);
    const range = held.range ?? (effect === null ? null : { low: -ANYWHERE, high: ANYWHERE });
    if (!range) return [];
    // With its uncertainty it is then within the tolerance: a proof would prove it.
    const newest = found.at(-1)?.needs.find((n) => n.term === term)?.need.quantity;
    const tolerance = Math.max(0, history.tolerance - (newest ? expandedUncertainty(newest) : 0));
    const step = tuningStep(tries, { step: held.step, range, tolerance, slope: effect });
    return [{ term, tries, step, slope: slopeFound(tries) }];
  });
}

/** What every setting should become; settings whose value in force is not known are left out. */
export function correctionsOf(history: H, round: Round, needs: readonly Need[], tuned: readonly Tuned[]): Correction[] {
  return needs.flatMap((n): Correction[] => {
    const old = numberIn(round, keyOf(n.term));
    if (old === null) return [];
    if (n.term === "scale x" || n.term === "scale y") return scaleCorrection(history, round, n, old);
    const own = tuned.find((t) => t.term === n.term);
    return own ? [coefficientCorrection(history, n, own, old)] : [];
  });
}

/** new = old (1 + need / H) where a larger value makes marks larger; old / (1 + need / H) where it makes them smaller. */
function scaleCorrection({ machine }: H, { plan }: Round, { term, need }: Need, old: number): Correction[] {
  const spec = fieldSetting(keyOf(term));
  const held = holdOf(machine, spec);
  const half = plan.fieldMm / 2;
  const { value, standardUncertainty: u, degreesOfFreedom } = need.quantity;
  const ratio = 1 + value / half;
  if (!(ratio > 0) || old === 0) return [];
  const grows = UNITS[held.unit].dimension === "ratio" || held.sense === 1;
  const exact = grows ? old * ratio : old / ratio;
  const change: Measured = { value: exact - old, standardUncertainty: (Math.abs(old) * u) / half, degreesOfFreedom };
  const shown = (v: number) => plain(fromInternal(v, held.unit), 4);
  return [
    numberCorrection(machine, {
      spec,
      estimate: term,
      old,
      change,
      heldBack: null,
      arithmetic: [
        `the corner of the field has to move by ${signed(value, 3)} mm, with the form as it will be`,
        `1 ${value < 0 ? "−" : "+"} ${fixed(Math.abs(value), 3)} ÷ ${plain(half, 2)} mm = ${fixed(ratio, 5)}`,
        `${shown(old)} ${grows ? "×" : "÷"} ${fixed(ratio, 5)} = ${shown(exact)} ${UNITS[held.unit].symbol}`.trim(),
      ],
      leaves: (rounding) => `rounding leaves ${signed((rounding / old) * half * (grows ? 1 : -1), 3)} mm at the corner`,
    }),
  ];
}

function coefficientCorrection({ machine }: H, { term, need }: Need, own: Tuned, old: number): Correction {
  const spec = fieldSetting(keyOf(term));
  const held = holdOf(machine, spec);
  const effect = held.effectMm === undefined ? own.slope : (own.slope ?? held.effectMm);
  const { value: wanted, why } = own.step;
  const { value, standardUncertainty, degreesOfFreedom } = need.quantity;
  // A first step has no uncertainty of its own: how well it is entered.
  const u = effect ? standardUncertainty / Math.abs(effect) : held.step / Math.sqrt(12);
  const freedom = effect && degreesOfFreedom !== "infinite" ? degreesOfFreedom : Infinity;
  return numberCorrection(machine, {
    spec,
    estimate: term,
    old,
    change: measured(wanted - old, u, freedom),
    heldBack: null,
    arithmetic: [
      `the corner of the field has to move by ${signed(value, 3)} mm`,
      ...triesLines(own),
      `${WHY[why]}: ${plain(wanted, 4)}`,
    ],
    leaves: (rounding) =>
      effect
        ? `rounding leaves ${signed(rounding * effect, 3)} mm at the corner`
        : "what rounding leaves is not known yet",
  });
}

const WHY: Readonly<Record<TuningStep["why"], string>> = {
  "first step": "the effect is not known, so the first step is an eighth of the range",
  "known slope": "by the effect that is known",
  "larger step": "the error hardly moved, so the step is 4 times larger",
  slope: "by the slope between the last two burns",
  secant: "between the two burns with errors of opposite sign",
  middle: "halfway between the two burns with errors of opposite sign",
  good: "the error is within its uncertainty, so the value stays",
  "one step": "the nearest value that the controller takes",
  "end of range": "the range of this setting ends here",
  nearest: "no value gives zero, and this one is nearest",
  "too many": "the best value after ten burns",
};

function triesLines({ term, tries, slope }: Tuned): string[] {
  if (tries.length < 2) return [];
  return [
    `${withinSentence(termName(term))}: ${tries.map((t) => `${signed(t.error, 3)} mm with ${plain(t.value, 3)}`).join("; ")}`,
    ...(slope === null ? [] : [`an increase of 1 moves the corner by ${signed(slope, 4)} mm`]),
  ];
}

/** Whether a coefficient has to be changed and nothing tells yet by how much. */
export function isOpen(history: H, { term, step, slope }: Tuned, round: Round): boolean {
  return step.do === "try" && slope === null && effectMm(history, round, term) === null;
}
