/** What the controller made of the field during a burn, by the coefficients whose effect is known. */

import { FIELD_TERMS, type FieldTerm } from "../../geometry/field-term";
import { holdOf, numberIn } from "../../measuring/number-correction";
import type { History, RoundRecord } from "../../trial/history";
import type { FieldMap } from "./map";
import type { FieldPlan } from "./plan";
import { fieldKey, fieldSetting } from "./setting";

type Round = Pick<RoundRecord<FieldPlan>, "plan" | "inForce">;

/** By which power of the size of a field the effect of a term at its corner grows. */
const GROWS: Readonly<Record<FieldTerm, number>> = {
  "bow x": 3,
  "bow y": 3,
  "keystone x": 2,
  "keystone y": 2,
  shear: 1,
  "own cubic x": 3,
  "own cubic y": 3,
};

/**
 * What one more of a coefficient moves the corner of the working field, mm; `null` = not known.
 *
 * The machine page says it of the corner of its whole field.
 */
export function effectMm(
  { machine }: Pick<History, "machine">,
  { plan }: Pick<Round, "plan">,
  term: FieldTerm,
): number | null {
  const said = holdOf(machine, fieldSetting(fieldKey(term))).effectMm;
  return said === undefined ? null : said * (plan.fieldMm / machine.widthMm) ** GROWS[term];
}

/** The same the other way: of the corner of the whole field, as the machine page says it. */
export function atWholeField(
  mm: number,
  { machine }: Pick<History, "machine">,
  { plan }: Pick<Round, "plan">,
  term: FieldTerm,
): number {
  return mm / (plan.fieldMm / machine.widthMm) ** GROWS[term];
}

/** mm at the corner by term, in terms whose value and effect are both known; a value of 0, or no such coefficient, does nothing. */
export function presentMap(history: Pick<History, "machine">, round: Round): FieldMap {
  const present: Partial<Record<FieldTerm, number>> = {};
  for (const term of FIELD_TERMS) {
    const value = numberIn(round, fieldKey(term));
    const effect = effectMm(history, round, term);
    const isHeld = value !== null || history.machine.held[fieldKey(term)] !== undefined;
    if (!isHeld || value === 0) present[term] = 0;
    else if (value !== null && effect !== null) present[term] = value * effect;
  }
  return present;
}
