/** The field as it is, what to enter so that it is right, and what no setting of this controller can make right. */
import { beyondMachines, type MachineLimit } from "../../measuring/beyond-machines";
import { newestRead } from "../../measuring/examined";
import { fixed } from "../../metrology/quantity-text";
import { learnedEffectKey } from "../../settings/learned-of-machine";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import { correctionsOf, tunedIn } from "./correction";
import { fieldFigures, remains } from "./figures";
import { belongsTo, rangeMissing, tuningFindings } from "./findings";
import { type FieldFound, worstOf } from "./found";
import { worstPoint } from "./map";
import { mapSolved, type Solved } from "./map-correction";
import { needsOf } from "./needs";
import { type FieldPlan, takenAs } from "./plan";
import { atWholeField } from "./present";
import { fieldKey } from "./setting";
import { fieldWayOf } from "./ways";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

const CHECK = "Check the readings and their unit, and which two crossings were measured.";
const LIMITS: readonly MachineLimit[] = [
  { estimate: "scale", low: -6, high: 6, check: CHECK },
  { estimate: "bow", low: -6, high: 6, check: CHECK },
  { estimate: "keystone", low: -3, high: 3, check: CHECK },
  { estimate: "shear", low: -3, high: 3, check: CHECK },
  { estimate: "own cubic", low: -2, high: 2, check: CHECK },
];

const NO_FIELD = "No field fits these readings. Read all points again.";

export function solveField(history: H): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const way = fieldWayOf(round.plan);
  const table = way.table(history, round);
  const missing = way.missing(history, round);
  if (missing) return { ...missing, table };
  const found = way.found(history, round);
  if (!found) return { status: "unsolvable", reason: NO_FIELD, table };
  const estimates = way.estimates(history, round);
  const solved =
    takenAs(round.plan) === "coefficients" ? byCoefficients(history, round, found) : mapSolved(history, round, found);
  if (!solved) return { status: "unsolvable", reason: NO_FIELD, table };
  return {
    status: "solved",
    estimates,
    ...solved,
    findings: [
      ...beyondMachines(estimates, LIMITS),
      ...solved.findings,
      ...way.findings(history, round),
      belongsTo(round),
    ],
    table,
    figures: [...solved.figures, ...way.figures(history, round)],
    wishes: [...(solved.wishes ?? []), ...way.wishes(history, round)],
  };
}

function byCoefficients(history: H, round: Round, found: FieldFound): Solved | null {
  const needs = needsOf(history, round);
  if (!needs) return null;
  const tuned = tunedIn(history, round);
  const after = worstPoint(needs.composed.after, found.reachMm);
  return {
    corrections: correctionsOf(history, round, needs.needs, tuned),
    findings: [...tuned.flatMap((t) => tuningFindings(t)), ...rangeMissing(history, round, tuned)],
    figures: [
      ...fieldFigures(found, needs.composed.after),
      ...(round.plan.how === "grid" ? [remains(found, needs.composed.after)] : []),
    ],
    learned: Object.fromEntries(
      tuned.flatMap(({ term, slope }) =>
        slope === null ? [] : [[learnedEffectKey(fieldKey(term)), atWholeField(slope, history, round, term)]],
      ),
    ),
    predicted: `Enter the new values and burn again. The farthest point will then be ${fixed(after.mm, 2)} mm off, instead of ${fixed(worstOf(found).quantity.value, 2)} mm.`,
  };
}
