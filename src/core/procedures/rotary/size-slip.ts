/** A size that is a distance around, a radius or an inch instead of what was asked for. */
import { plain } from "../../metrology/quantity-text";
import { MM_PER_INCH } from "../../metrology/units";
import type { RotaryPlan } from "./plan";
import { type Readings, SITES } from "./travel";

/** A quotient this near to a slip is one, as a share. */
const NEAR = 0.06;

const SLIPS = [
  { factor: Math.PI, words: "that is the way around, not across" },
  { factor: 1 / Math.PI, words: "that is across, not around" },
  { factor: 1 / 2, words: "that is the radius" },
  { factor: 2, words: "that is twice as thick: was a radius laid out?" },
  { factor: MM_PER_INCH, words: "that is 25.4 times as much: mm for inches, or inches for mm" },
  { factor: 1 / MM_PER_INCH, words: "that is 25.4 times less: inches for mm, or mm for inches" },
] as const;

/** Why a size as it was read cannot be, held against what was laid out; `null` where it can. */
export function sizeSlip(plan: RotaryPlan, read: Readings): string | null {
  const turn = plan.sizedBy === "around" ? Math.PI : 1;
  const sizes = [
    { value: read[SITES.marked], laid: plan.diameterMm * turn, where: "where it is marked" },
    { value: read[SITES.resting], laid: plan.restsOnMm * turn, where: "where it lies" },
  ];
  for (const { value, laid, where } of sizes) {
    if (value === undefined) continue;
    const slip = SLIPS.find(({ factor }) => Math.abs(value / laid / factor - 1) < NEAR);
    if (slip)
      return `The part reads ${plain(value, 2)} mm ${where}, laid out as ${plain(laid, 2)} mm: ${slip.words}. Take that reading back and read it again, or lay a new trial out with what it is.`;
  }
  return null;
}
