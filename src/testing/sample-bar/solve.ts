/**
 * By which share the bar comes out too long, and the new value.
 *
 *   y = L (1 + e) + c + z + scatter      new = old / (1 + e)
 *
 * L length as drawn, c limit of error of the gauge, z zero of its jaws. [JCGM 100:2008, 4.2, 4.3.7, 5.1.2]
 */
import { adjust, combine } from "../../core/estimate/adjustment";
import { type Model, ofReadings, usual } from "../../core/estimate/model";
import { newestRead } from "../../core/measuring/examined";
import { gaugeTerms, lengthReadings, modelOf } from "../../core/measuring/length-readings";
import { numberCorrection, numberIn } from "../../core/measuring/number-correction";
import type { Budgeted } from "../../core/metrology/budget";
import { freedomOf, measured } from "../../core/metrology/measured";
import { plain, signed } from "../../core/metrology/quantity-text";
import { scalarSetting } from "../../core/settings/declared";
import { estimate, type GivenOutcome } from "../../core/trial/given-outcome";
import type { History, RoundRecord } from "../../core/trial/history";
import { LENGTH_SITE } from "./coupon";
import type { SampleBarPlan } from "./plan";

export const SAMPLE_BAR_SCALE = scalarSetting({
  key: "sample bar scale",
  label: "Sample bar scale",
  acts: { on: "length", axis: "x" },
  unit: "one",
  usualStep: { ratio: 1e-5 },
  larger: { positive: "longer marks", negative: "shorter marks" },
});

const ERROR = "error";
/** Before anything is read, sd, as a share. (common practice, no source) */
const USUAL_ERROR = 0.01;

/** The readings as a model: what they share, what is known beforehand, and what is wanted. */
export function observe(history: History<SampleBarPlan>, round: RoundRecord<SampleBarPlan>): Model | null {
  const { lengthMm } = round.plan;
  const readings = lengthReadings(round.answers, [LENGTH_SITE], history.gauges, history.decisions);
  if (readings.length === 0) return null;
  return modelOf(readings, {
    row: () => ({ [ERROR]: lengthMm }),
    y: (r) => r.value - lengthMm,
    terms: gaugeTerms(readings, { jawsOf: () => "outside", lengthOf: () => lengthMm }),
    facts: () => ({ pointLabel: "the bar", signedByWords: false }),
    known: [usual(ERROR, "usual error", USUAL_ERROR)],
    wanted: [{ id: ERROR, label: "the error of length", row: { [ERROR]: 1 }, proves: 1 }],
  });
}

/** Error of length as a share, with its budget. */
export function errorIn(history: History<SampleBarPlan>, round: RoundRecord<SampleBarPlan>): Budgeted | null {
  const model = observe(history, round);
  const fit = model && adjust(ofReadings(model));
  return fit ? combine(fit, { [ERROR]: 1 }) : null;
}

export function solve(history: History<SampleBarPlan>): GivenOutcome {
  const round = newestRead(history);
  const error = round && errorIn(history, round);
  if (!round || !error) return { status: "open", missing: "Measure the bar." };
  return {
    status: "solved",
    estimates: [estimate(ERROR, "Error of length", error, { unit: "percent", headline: true })],
    corrections: correctionsOf(history, round, error),
    predicted: `The next bar should measure ${plain(round.plan.lengthMm)} mm.`,
  };
}

/** None while the value in force is not read back. */
function correctionsOf({ machine }: History<SampleBarPlan>, round: RoundRecord<SampleBarPlan>, { quantity }: Budgeted) {
  const old = numberIn(round, SAMPLE_BAR_SCALE.key);
  if (old === null) return [];
  const ratio = 1 + quantity.value;
  const exact = old / ratio;
  return [
    numberCorrection(machine, {
      spec: SAMPLE_BAR_SCALE,
      estimate: ERROR,
      old,
      change: measured(exact - old, (exact * quantity.standardUncertainty) / ratio, freedomOf(quantity)),
      arithmetic: [`${plain(old, 5)} ÷ ${plain(ratio, 5)} = ${plain(exact, 5)}`],
      leaves: (rounding) => `rounding leaves ${signed((100 * rounding) / exact, 4)} %`,
      heldBack: null,
    }),
  ];
}
