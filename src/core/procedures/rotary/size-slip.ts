/** A size that is a distance around, a radius or an inch instead of what was asked for. */
import { plain } from "../../metrology/quantity-text";
import { MM_PER_INCH } from "../../metrology/units";
import type { RotaryPlan } from "./plan";
import { type Readings, SITES } from "./travel";

/** A quotient this near to a slip is one, as a share. */
const NEAR = 0.06;

const SLIPS = [
  { factor: Math.PI, words: "This looks like the circumference, not the diameter." },
  { factor: 1 / Math.PI, words: "This looks like the diameter, not the circumference." },
  { factor: 1 / 2, words: "This looks like the radius." },
  { factor: 2, words: "The layout looks like the radius." },
  { factor: MM_PER_INCH, words: "The factor is 25.4. Check the unit of both." },
  { factor: 1 / MM_PER_INCH, words: "The factor is 1/25.4. Check the unit of both." },
] as const;

/** Why a size as it was read cannot be, held against what was laid out; `null` where it can. */
export function sizeSlip(plan: RotaryPlan, read: Readings): string | null {
  const turn = plan.sizedBy === "around" ? Math.PI : 1;
  const sizes = [
    { value: read[SITES.marked], laid: plan.diameterMm * turn, where: "where it is marked" },
    { value: read[SITES.resting], laid: plan.restsOnMm * turn, where: "where it rests" },
  ];
  for (const { value, laid, where } of sizes) {
    if (value === undefined) continue;
    const slip = SLIPS.find(({ factor }) => Math.abs(value / laid / factor - 1) < NEAR);
    if (slip)
      return `The workpiece measures ${plain(value, 2)} mm ${where}, but ${plain(laid, 2)} mm is entered in the layout. ${slip.words} Undo this reading and read again, or lay out a new trial with the right size.`;
  }
  return null;
}
