/**
 * How far the head is turned against a straight edge, and the turn that its controller has to hold.
 *
 *   t = atan((d_right - d_left) / b)      edge in front, counter-clockwise > 0
 *   t = -atan((d_back - d_front) / b)     edge to the left
 *   new = old - sense t                   sense +1 where a larger turn turns marks counter-clockwise
 *
 * What the gauge always reads wrong is in both distances and cancels. [trigonometry]
 */
import { adjust, combine } from "../../estimate/adjustment";
import { type Model, ofReadings, usual } from "../../estimate/model";
import { beyondMachines } from "../../measuring/beyond-machines";
import { newestRead } from "../../measuring/examined";
import {
  gaugeTerms,
  type LengthReading,
  lengthReadings,
  modelOf,
  withoutLeftOut,
} from "../../measuring/length-readings";
import { lengthRow } from "../../measuring/length-row";
import { holdOf, numberCorrection, numberIn } from "../../measuring/number-correction";
import { type Budgeted, times } from "../../metrology/budget";
import { fixed, plain, signed } from "../../metrology/quantity-text";
import { fromInternal } from "../../metrology/units";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, Finding, ResultTable } from "../../trial/outcome";
import { ENDS, endName } from "./coupon";
import type { TurnPlan } from "./plan";
import { FIELD_TURN_SETTING } from "./setting";

type H = History<TurnPlan>;
type Round = RoundRecord<TurnPlan>;

export const TURN = "turn";
/** Usual turn of a head, sd, rad; how far a line lies from where it is drawn, sd, mm. (common practice, no source) */
const [USUAL_RAD, USUAL_MM] = [0.015, 1];
const DEGREE = Math.PI / 180;

export function observeTurn(
  history: Pick<H, "gauges" | "decisions">,
  round: Pick<Round, "plan" | "answers">,
): Model | null {
  const { plan } = round;
  const readings = lengthReadings(round.answers, ENDS, history.gauges, history.decisions);
  if (ENDS.some((end) => !readings.some((r) => r.site === end))) return null;
  const side = (r: LengthReading) => (r.site === "second" ? 1 : -1) * (plan.fence === "front" ? 1 : -1);
  return modelOf(readings, {
    row: (r) => ({ away: 1, [TURN]: (side(r) * plan.baseMm) / 2 }),
    y: (r) => r.value - plan.awayMm,
    terms: gaugeTerms(readings, { jawsOf: () => "outside", lengthOf: () => plan.awayMm }),
    facts: (r) => ({
      pointLabel: `the distance at the ${endName(plan, r.site === "second" ? "second" : "first")}`,
      signedByWords: false,
    }),
    known: [usual("away", "usual place of the line", USUAL_MM), usual(TURN, "usual turn", USUAL_RAD)],
    wanted: [{ id: TURN, label: "the turn", row: { [TURN]: 1 }, proves: 1 }],
  });
}

/** Counter-clockwise, rad; `null` before both distances are read. */
export function turnIn(
  history: Pick<H, "gauges" | "decisions">,
  round: Pick<Round, "plan" | "answers">,
): Budgeted | null {
  const model = observeTurn(history, round);
  // The zero of the jaws and the place of the line cannot be told apart, and need not: both cancel.
  const fit = model && adjust(ofReadings(model));
  if (!fit) return null;
  const slope = combine(fit, { [TURN]: 1 });
  return { ...slope, quantity: { ...slope.quantity, value: Math.atan(slope.quantity.value) } };
}

export function solveTurn(history: H): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const table = tableOf(history, round);
  const turn = turnIn(history, round);
  if (!turn) return { status: "open", missing: "Measure the distance at both ends.", table };
  const helps = "Measure over a longer base, or take more readings.";
  const estimates = [
    estimate(TURN, "Turn of the head", turn, { unit: "deg", headline: true, helps }),
    estimate("slope", "Turn, along the base", turn, { unit: "mmPerM", helps }),
  ];
  return {
    status: "solved",
    estimates,
    corrections: correctionOf(history, round, turn),
    findings: [
      ...beyondMachines(estimates, [
        {
          estimate: TURN,
          low: -5 * DEGREE,
          high: 5 * DEGREE,
          check: "Check both readings, and that the stock lay against the straight edge.",
        },
      ]),
      ...senseFindings(history),
    ],
    table,
    predicted: "Enter the turn and burn again. Both distances should be the same.",
  };
}

function correctionOf({ machine }: H, round: Round, turn: Budgeted): Correction[] {
  const old = numberIn(round, FIELD_TURN_SETTING.key);
  if (old === null) return [];
  const { sense } = holdOf(machine, FIELD_TURN_SETTING);
  const change = times(turn, -sense).quantity;
  const degrees = (rad: number) => fixed(fromInternal(rad, "deg"), 3);
  return [
    numberCorrection(machine, {
      spec: FIELD_TURN_SETTING,
      estimate: TURN,
      old,
      change,
      heldBack: null,
      arithmetic: [
        `turned by ${degrees(Math.abs(turn.quantity.value))}° ${turn.quantity.value < 0 ? "clockwise" : "counter-clockwise"} over ${plain(round.plan.baseMm)} mm`,
        `a larger value turns marks ${sense > 0 ? "counter-clockwise" : "clockwise"}`,
        `${degrees(old)} ${change.value < 0 ? "−" : "+"} ${degrees(Math.abs(change.value))} = ${degrees(old + change.value)}°`,
      ],
      leaves: (rounding) => `rounding leaves ${signed(fromInternal(rounding * sense, "deg"), 4)}°`,
    }),
  ];
}

function senseFindings({ machine }: H): Finding[] {
  const held = machine.held[FIELD_TURN_SETTING.key];
  if (held && !held.senseAssumed) return [];
  return [
    {
      id: "sense",
      tone: "note",
      site: null,
      headline: "The effect of a larger turn is not known.",
      text: "The value is a first try. If the turn doubles in the next burn, enter the opposite change, or turn the head by hand.",
    },
  ];
}

function tableOf(history: H, { plan, answers }: Round): ResultTable {
  const unit = lengthUnitOf(history);
  const kept = withoutLeftOut(answers, history.decisions);
  return {
    title: "Distances from the straight edge",
    columns: ["At the", `drawn, ${unit}`],
    resultLabel: `read, ${unit}`,
    rows: ENDS.map((end) => {
      const [label, values] = [endName(plan, end), quantitiesAt(kept, end)];
      return lengthRow({ site: end, label, drawnMm: plan.awayMm, values, repeats: plan.repeats }, unit);
    }),
  };
}
