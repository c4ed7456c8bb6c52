/**
 * The new number of an axis, from how long its millimetres come out.
 *
 *   a larger number makes marks shorter (way per pulse, size of the field):  new = old s
 *   a larger number makes marks longer (pulses per mm):                      new = old / s
 *
 * with u(new) = new u(s) / s. [common practice, no source]
 */

import type { Axis } from "../../machine/machine-kind";
import { holdOf, numberCorrection, numberIn } from "../../measuring/number-correction";
import { expandedUncertainty, freedomOf, type Measured, measured } from "../../metrology/measured";
import { fixed, plain, signed } from "../../metrology/quantity-text";
import { fromInternal, UNITS } from "../../metrology/units";
import { entryShape } from "../../settings/entry-text";
import { slopeOfNewest } from "../../settings/learned-sense";
import type { HeldSetting } from "../../settings/setting";
import { senseFixedBy } from "../../settings/setting";
import { yesOrNo } from "../../trial/decision";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow } from "../../trial/outcome";
import { type AxisRead, axesRead, estimateId } from "./observe";
import { type AxisScalePlan, spanOf } from "./plan";
import { AXIS_SCALE, AXIS_SCALES } from "./setting";

/** More than this is rather a slip than a scale. */
const ASKED_BEYOND = 0.1;
const RATIO_DECIMALS = 5;

/** Enters a scale that is far off. */
export const acceptScale = (axis: Axis) => yesOrNo(`accept:${axis}`);

export function specOf(axis: Axis) {
  return AXIS_SCALES.find((s) => s.key === AXIS_SCALE[axis]) as (typeof AXIS_SCALES)[number];
}

/** Two burns show the sense if the length changed by more than this many standard uncertainties. */
const TELLS_SENSE = 3;

/** `sense`: +1 if a larger value makes marks longer. */
export type Sense = { sense: 1 | -1; from: "unit" | "machine" | "two burns" | "assumed" };

/** The unit decides, then the machine page. If the sense is not known, two burns decide, and before them the assumed sense. */
export function senseOf(history: History<AxisScalePlan>, held: HeldSetting, axis: Axis): Sense {
  const fixedByUnit = senseFixedBy(specOf(axis), held.unit);
  if (fixedByUnit !== null) return { sense: fixedByUnit, from: "unit" };
  if (!held.senseAssumed) return { sense: held.sense, from: "machine" };
  const known = history.rounds.flatMap((round) => {
    const value = numberIn(round, AXIS_SCALE[axis]);
    const ratio = axesRead(history, round).find((r) => r.axis === axis)?.ratio.quantity;
    return value === null || !ratio ? [] : [{ value, result: ratio.value, u: ratio.standardUncertainty }];
  });
  const slope = slopeOfNewest(known, TELLS_SENSE);
  return slope === null ? { sense: held.sense, from: "assumed" } : { sense: slope > 0 ? 1 : -1, from: "two burns" };
}

const SENSE_LINES: Record<Sense["from"], { longer: string; shorter: string }> = {
  unit: { longer: "A larger value makes marks longer.", shorter: "A larger value makes marks shorter." },
  machine: { longer: "A larger value makes marks longer.", shorter: "A larger value makes marks shorter." },
  "two burns": {
    longer: "Two burns show that a larger value makes marks longer.",
    shorter: "Two burns show that a larger value makes marks shorter.",
  },
  assumed: {
    longer: "Assumed: a larger value makes marks longer. The next burn shows whether this is right.",
    shorter: "Assumed: a larger value makes marks shorter. The next burn shows whether this is right.",
  },
};

/** @returns `null` while the number in force is not read back */
export function scaleCorrection(
  history: History<AxisScalePlan>,
  round: RoundRecord<AxisScalePlan>,
  read: AxisRead,
): Correction | null {
  const spec = specOf(read.axis);
  const old = numberIn(round, spec.key);
  if (old === null || old === 0) return null;
  const held = holdOf(history.machine, spec);
  const { sense, from } = senseOf(history, held, read.axis);
  const { quantity: ratio } = read.ratio;
  const exact = sense > 0 ? old / ratio.value : old * ratio.value;
  const change: Measured = measured(
    exact - old,
    (Math.abs(exact) * ratio.standardUncertainty) / ratio.value,
    freedomOf(ratio),
  );
  const { decimals } = entryShape(held, spec.unit);
  const shown = (value: number) => fixed(fromInternal(value, held.unit), decimals + 1);
  const symbol = UNITS[held.unit].symbol;
  return numberCorrection(history.machine, {
    spec,
    estimate: estimateId(read.axis),
    old,
    change,
    arithmetic: [
      ratioLine(read),
      SENSE_LINES[from][sense > 0 ? "longer" : "shorter"],
      `${shown(old)} ${sense > 0 ? "÷" : "×"} ${fixed(ratio.value, RATIO_DECIMALS)} = ${shown(exact)} ${symbol}`,
    ],
    leaves: (rounding) => leftByRounding(rounding / exact, spanOf(round.plan, read.axis)),
    heldBack: whyHeldBack(history, read),
  });
}

function ratioLine({ read, ratio, kerf }: AxisRead): string {
  const value = fixed(ratio.quantity.value, RATIO_DECIMALS);
  const [only] = read;
  const readings = read.reduce((sum, r) => sum + r.values.length, 0);
  if (kerf) return `part and hole: half their sum ÷ ${plain(only?.nominalMm ?? 0)} mm = ${value}`;
  if (new Set(read.map((r) => r.nominalMm)).size > 1)
    return `line through ${readings} readings: a nominal mm comes out as ${value} mm`;
  return `mean of ${readings} ÷ nominal: ${plain(only?.mean ?? 0, 3)} ÷ ${plain(only?.nominalMm ?? 0, 3)}, with what is known beside it: ${value}`;
}

function leftByRounding(share: number, spanMm: number): string {
  const percent = signed(100 * share, 4);
  return `rounding leaves ${percent} %, ${signed(share * spanMm, 3)} mm over ${plain(spanMm)} mm`;
}

function whyHeldBack({ decisions }: History<AxisScalePlan>, { axis, ratio }: AxisRead): CorrectionRow["heldBack"] {
  const off = ratio.quantity.value - 1;
  if (Math.abs(off) - expandedUncertainty(ratio.quantity) <= ASKED_BEYOND || acceptScale(axis).of(decisions))
    return null;
  return {
    why: `The scale would change by ${plain(100 * off, 1)} %: is the right axis measured, in the right unit, and the right number read back? If so, accept it.`,
    site: null,
    accept: acceptScale(axis).key,
  };
}
