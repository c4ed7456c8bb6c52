/**
 * What the readings amount to, and what to enter.
 *
 *   offset = old + drawn − mean of readings,  u² = s²/n + (common error of the gauge)²          [JCGM 100:2008, 4.2, 4.3.7, 5.1.2]
 */
import { mean } from "../../fitting/repeats";
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import { commonUncertaintyMm } from "../../metrology/gauge";
import { signed } from "../../metrology/quantity-text";
import { pooledScatter } from "../../metrology/scatter";
import { quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, GivenOutcome } from "../../trial/outcome";
import { LENGTH_SITE } from "./coupon";
import { SAMPLE_BAR, type SampleBarPlan } from "./plan";

const DECIMALS = 3;
const STEP_MM = 10 ** -DECIMALS;

export function solve(history: History<SampleBarPlan>): GivenOutcome {
  const round = history.rounds.at(-1);
  const length = round && lengthOf(history, round);
  if (!round || !length) return { status: "open", missing: "Measure the bar." };
  return {
    status: "solved",
    estimates: [
      {
        id: "length",
        label: "Length",
        quantity: length.quantity,
        unit: "mm",
        headline: true,
        budget: length.parts,
        helps: null,
      },
    ],
    corrections: [correctionOf(round, length)],
    findings: [],
    table: null,
    predicted: "The bar should come out as long as it is drawn.",
  };
}

/** Mean of the readings with where its doubt comes from; `null` before there is one. */
export function lengthOf(history: History<SampleBarPlan>, round: RoundRecord<SampleBarPlan>): Budgeted | null {
  const readings = quantitiesAt(round.answers, LENGTH_SITE);
  const gauge = history.gauges.at(-1);
  if (readings.length === 0 || !gauge) return null;
  const scatter = pooledScatter([readings.map((value) => ({ value, share: 1 }))], gauge);
  const isSeen = scatter.basis === "repeats" || scatter.basis === "both";
  const parts: BudgetPart[] = [
    {
      id: "scatter",
      label: `Scatter of ${readings.length} readings`,
      kind: isSeen ? "A" : "B",
      standardUncertainty: scatter.sdMm / Math.sqrt(readings.length),
      degreesOfFreedom: Number.isFinite(scatter.degreesOfFreedom) ? scatter.degreesOfFreedom : "infinite",
    },
    {
      id: "gauge",
      label: `Common error, ${gauge.name}`,
      kind: "B",
      standardUncertainty: commonUncertaintyMm(gauge),
      degreesOfFreedom: "infinite",
    },
  ];
  return joined(mean(readings), parts);
}

function correctionOf({ plan, inForce }: RoundRecord<SampleBarPlan>, { quantity }: Budgeted): Correction {
  const held = inForce[SAMPLE_BAR];
  const old = held?.shape === "scalar" ? held.value : 0;
  const change = { ...quantity, value: plan.lengthMm - quantity.value };
  const enter = Math.round((old + change.value) / STEP_MM) * STEP_MM;
  return {
    setting: SAMPLE_BAR,
    label: "Sample bar offset",
    unit: "mm",
    decimals: DECIMALS,
    choice: null,
    newValue: { shape: "scalar", value: enter },
    rows: [
      {
        key: "value",
        label: "Sample bar offset",
        estimate: "length",
        at: null,
        old,
        change,
        enter,
        heldBack: null,
        changeText: signed(change.value, DECIMALS),
        rounding: enter - old - change.value,
        arithmetic: [`${old} + ${plan.lengthMm} − ${quantity.value.toFixed(DECIMALS)} = ${enter.toFixed(DECIMALS)}`],
        worth: Math.abs(change.value) > quantity.standardUncertainty ? "yes" : "no",
      },
    ],
  };
}
