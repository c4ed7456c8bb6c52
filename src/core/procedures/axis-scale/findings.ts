/** What is noticed along an axis, in plain words, with what to do. */

import type { Axis } from "../../machine/machine-kind";
import { numberIn } from "../../measuring/number-correction";
import { type Stray, strayOf } from "../../measuring/straying";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, shownLength, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { specOf } from "./correction";
import { type AxisRead, formsOf } from "./observe";
import { sideWord } from "./places";
import type { AxisScalePlan } from "./plan";
import type { PlaceRead } from "./read-places";

/** A cut of this much more or less is plausible, mm. (common practice, no source) */
const PLAUSIBLE_CUT_MM = 0.1;

type Says = Omit<Finding, "id" | "tone" | "site"> & Partial<Finding>;
const finding = (id: string, says: Says): Finding => ({ id, tone: "needs you", site: null, ...says });

export function findingsOf(
  history: History<AxisScalePlan>,
  round: RoundRecord<AxisScalePlan>,
  axes: readonly AxisRead[],
): Finding[] {
  const unit = lengthUnitOf(history);
  return [
    ...axes.flatMap((read) => [
      ...notReadBack(round, read.axis),
      ...straying(read, unit),
      ...formOf(read, unit),
      ...backlash(read, unit),
      ...partAlone(round.plan, read, unit),
    ]),
  ];
}

const name = (axis: Axis) => axis.toUpperCase();

function notReadBack(round: RoundRecord<AxisScalePlan>, axis: Axis): Finding[] {
  if (numberIn(round, specOf(axis).key) !== null) return [];
  return [
    finding(`not read back ${axis}`, {
      headline: `The setting of ${name(axis)} is not read back.`,
      text: "Read the setting at the controller and confirm it. The new value is worked out from the old one.",
    }),
  ];
}

function straying({ axis, read, residuals, strays }: AxisRead, unit: LengthUnit): Finding[] {
  if (!strays) return [];
  const points = read.map((r, i) => ({ nominalMm: r.nominalMm, ...(residuals[i] as { mm: number; u: number }) }));
  return [
    finding(`strays ${axis}`, {
      headline: `${name(axis)} is not straight.`,
      text: strayText(strayOf(points), unit),
    }),
  ];
}

function strayText(stray: Stray, unit: LengthUnit): string {
  const length = (mm: number) => shownLength(mm, unit, 2);
  switch (stray.kind) {
    case "period":
      return `The deviation is ${length(stray.amplitudeMm)} either way and repeats about every ${shownLength(stray.periodMm, unit, 0)}. Look for a pulley with this circumference, or a screw with this pitch, that runs out. A new scale does not help.`;
    case "step":
      return stray.byMm > 0
        ? `All ticks from ${shownLength(stray.fromMm, unit, 0)} on are ${length(stray.byMm)} too far. The belt jumped or is badly seated there, or one tick was misread. Read the ticks on both sides again.`
        : `All ticks from ${shownLength(stray.fromMm, unit, 0)} on are ${length(-stray.byMm)} too near. The belt jumped or is badly seated there, or one tick was misread. Read the ticks on both sides again.`;
    case "bend":
      return `The middle deviates by ${length(Math.abs(stray.byMm))} from the line through both ends. Check that the rule was straight on its guide line. If so, the pitch changes along the axis.`;
    default:
      return `Ticks deviate by up to ${length(stray.mostMm)}, without a pattern. Read the tick with the largest deviation again. The scale is the mean over the whole length.`;
  }
}

function formOf({ axis, read }: AxisRead, unit: LengthUnit): Finding[] {
  return formsOf(read).map(({ of, longer, shorter, differMm }) =>
    finding(`form ${of} ${axis}`, {
      tone: "note",
      headline: `Along ${name(axis)} the ${of} is ${shownLength(differMm, unit, 2)} longer near the ${nearWord(longer)}.`,
      text: `The ${of} measures ${shownLength(longer.mean, unit, 2)} near the ${nearWord(longer)} and ${shownLength(shorter.mean, unit, 2)} near the ${nearWord(shorter)}. The stock moved during the cut, or an axis is bent. More readings do not help.`,
    }),
  );
}

function nearWord({ place }: PlaceRead): string {
  return place.kind === "side" ? sideWord(place.axis, place.near) : "";
}

function backlash({ axis, reversal }: AxisRead, unit: LengthUnit): Finding[] {
  if (!reversal || Math.abs(reversal.quantity.value) <= expandedUncertainty(reversal.quantity)) return [];
  const size = shownNumber(Math.abs(reversal.quantity.value), unit, 2);
  return [
    finding(`backlash ${axis}`, {
      tone: "note",
      headline: `Backlash of ${name(axis)}: ${size} ± ${shownNumber(expandedUncertainty(reversal.quantity), unit, 2)} ${unit}.`,
      text: "Ticks approached from opposite sides differ by this distance. Backlash shifts marks, but does not change the scale. Tighten the belt or the nut.",
    }),
  ];
}

function partAlone(plan: AxisScalePlan, { axis, read }: AxisRead, unit: LengthUnit): Finding[] {
  const [first] = read;
  if (plan.way !== "part" || !first) return [];
  const share = (100 * PLAUSIBLE_CUT_MM) / first.nominalMm;
  return [
    finding(`cut ${axis}`, {
      tone: "note",
      headline: `The kerf changes the scale of ${name(axis)}.`,
      text: `The scale is worked out with a kerf of ${shownLength(plan.kerfMm, unit, 2)}. A kerf ${shownLength(PLAUSIBLE_CUT_MM, unit, 1)} wider or narrower changes it by ${plain(share, 3)} %. Measure the hole too, to separate the two.`,
    }),
  ];
}
