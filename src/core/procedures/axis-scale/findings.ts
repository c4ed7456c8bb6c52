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
      ...play(read, unit),
      ...partAlone(round.plan, read, unit),
    ]),
  ];
}

const name = (axis: Axis) => axis.toUpperCase();

function notReadBack(round: RoundRecord<AxisScalePlan>, axis: Axis): Finding[] {
  if (numberIn(round, specOf(axis).key) !== null) return [];
  return [
    finding(`not read back ${axis}`, {
      headline: `The number of ${name(axis)} is not read back.`,
      text: "The new number is the old one times what was measured: read the old one at the controller, and confirm it.",
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
      return `By ${length(stray.amplitudeMm)} either way, again and again over about ${shownLength(stray.periodMm, unit, 0)}: a pulley or screw that runs out. No scale cures it: look for a pulley of that circumference, or a screw with that pitch.`;
    case "step":
      return `From ${shownLength(stray.fromMm, unit, 0)} on everything lies ${length(Math.abs(stray.byMm))} ${stray.byMm > 0 ? "further" : "nearer"}: a belt that jumped or sits badly there, or one tick misread by as much. Read the ticks on both sides of it again.`;
    case "bend":
      return `It bends by ${length(Math.abs(stray.byMm))} in the middle: a pitch that changes along the way, or a rule that did not lie straight on its guide line.`;
    default:
      return `By up to ${length(stray.mostMm)}, with no pattern: read again where it is largest. The scale is the mean over the whole length.`;
  }
}

function formOf({ axis, read }: AxisRead, unit: LengthUnit): Finding[] {
  return formsOf(read).map(({ of, longer, shorter, differMm }) =>
    finding(`form ${of} ${axis}`, {
      tone: "note",
      headline: `The ${of} is no rectangle: along ${name(axis)} it is ${shownLength(differMm, unit, 2)} longer near the ${nearWord(longer)}.`,
      text: `${shownLength(longer.mean, unit, 2)} near the ${nearWord(longer)}, ${shownLength(shorter.mean, unit, 2)} near the ${nearWord(shorter)}. That is its form, which more readings do not take away: stock that moved while it was cut, or axes that bend.`,
    }),
  );
}

function nearWord({ place }: PlaceRead): string {
  return place.kind === "side" ? sideWord(place.axis, place.near) : "";
}

function play({ axis, reversal }: AxisRead, unit: LengthUnit): Finding[] {
  if (!reversal || Math.abs(reversal.quantity.value) <= expandedUncertainty(reversal.quantity)) return [];
  const size = shownNumber(Math.abs(reversal.quantity.value), unit, 2);
  return [
    finding(`play ${axis}`, {
      tone: "note",
      headline: `${name(axis)} has ${size} ± ${shownNumber(expandedUncertainty(reversal.quantity), unit, 2)} ${unit} of play.`,
      text: "Ticks come to from the last lie that much off those come to from the first. It shifts marks, and leaves the scale alone: a tighter belt or nut takes it away.",
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
      headline: `The cut is mixed into the scale of ${name(axis)}.`,
      text: `Taken as ${shownLength(plan.kerfMm, unit, 2)}. If it were ${shownLength(PLAUSIBLE_CUT_MM, unit, 1)} more or less, the scale would be ${plain(share, 3)} % more or less: measure the hole too, and the two tell each other apart.`,
    }),
  ];
}
