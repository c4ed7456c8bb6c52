/** Turn against a fence: X of a galvo runs along a straight edge. */
import { predictedReading } from "../../measuring/examined";
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty, type Measured, measured } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { fromInternal } from "../../metrology/units";
import type { History } from "../../trial/history";
import { defineProcedure } from "../contract";
import { NEEDS_ORIENTATION } from "../orientation/setting";
import { turnRound } from "./coupon";
import { turnDetail } from "./detail";
import { type TurnPlan, turnPlan } from "./plan";
import { FIELD_TURN_SETTING } from "./setting";
import { observeTurn, solveTurn, turnIn } from "./solve";

/** A tenth of a millimetre over a tag of 60 mm. (common practice, no source) */
const DEFAULT_TOLERANCE_RAD = (0.1 * Math.PI) / 180;

export const headTurn = defineProcedure<TurnPlan>({
  id: "head-turn",
  title: "Turn against a fence",
  summary: "X runs along a straight edge",
  machineKinds: ["galvo"],
  settings: [FIELD_TURN_SETTING],
  needs: [
    ...NEEDS_ORIENTATION,
    { on: "change", what: "head", effect: "stale" },
    { on: "change", what: "bed", effect: "stale" },
  ],
  occasional: true,
  tolerance: { default: DEFAULT_TOLERANCE_RAD, unit: "deg", label: "Largest turn" },
  recheck: { defaultDays: 365, why: "Heads and fences are pushed." },
  plan: turnPlan,
  round: turnRound,
  observe: observeTurn,
  expected: expectedDistance,
  solve: solveTurn,
  words: {
    read: "Measure the distance at both ends first.",
    prove: "Enter the turn and read it back. Then burn the line again.",
    proved: "Proved: X runs along the straight edge.",
    holding: "Still valid. Change nothing.",
  },
  judge: judgeErrors<TurnPlan, "">({
    unit: "deg",
    errors: oneError("Turn of the head", (history, round) => turnIn(history, round)?.quantity),
    text: ({ error }) =>
      `The head is turned ${error.value < 0 ? "clockwise" : "counter-clockwise"} by ${fixed(fromInternal(Math.abs(error.value), "deg"), 3)} ± ${fixed(fromInternal(expandedUncertainty(error), "deg"), 3)}°`,
    advice: {
      proved: "Change nothing.",
      "not proved": "Enter the new value from Correct, then burn another proof.",
      "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or use a longer base.",
    },
    asFound: "turn of the head",
    became: () => ({
      unchanged: {
        headline: "The turn is the same as before.",
        text: "Check that the new value is stored in the controller and used for this drawing.",
      },
      doubled: {
        headline: "The turn has doubled.",
        text: "A larger value turns marks the other way. Enter that on the machine page, then enter the new value from Correct.",
      },
    }),
  }),
  detail: turnDetail,
});

/** Lines lie within this of where they are drawn before anything is known, sd, mm. */
const EXPECTED_WITHIN_MM = 2;

/** By the other end; before that tells, as drawn. */
function expectedDistance(history: History<TurnPlan>, site: string): Measured | null {
  const plan = history.rounds.at(-1)?.plan;
  return plan
    ? (predictedReading(observeTurn, history, site) ?? measured(plan.awayMm, EXPECTED_WITHIN_MM, Infinity))
    : null;
}
