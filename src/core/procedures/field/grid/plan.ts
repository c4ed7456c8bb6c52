/** Plan fields of a grid of dots. */
import { plain } from "../../../metrology/quantity-text";
import { field } from "../../../trial/plan-field";
import type { PlanOf } from "../../../trial/plan-table";
import { GRID_ONLY } from "../how";
import { dotMm, LEAST_DOT_MM } from "./lengths";

const PICTURES = {
  one: "One scan",
  two: "Two scans, the second with the stock turned by 90°",
  parts: "Overlapping scans: the stock is larger than the scanner",
  photo: "A photo, with six distances measured",
} as const;
const PARTS = {
  "2": "Two: the left half and the right half",
  "4": "Four: one for each corner",
} as const;
const LENGTHS = {
  diagonals: "Along X, along Y and both diagonals",
  sides: "Along X and along Y only",
} as const;
const [FEWEST, USUAL] = [11, 25];
/** Dots along each side, at most. */
export const MOST_ACROSS = 33;
/** With fewer the L reaches beyond what a part shows. */
const LEAST_IN_PARTS = 21;

export function gridFields() {
  const group = "Grid";
  return {
    across: field.count({
      label: "Dots along each side",
      group,
      why: "An odd number, so that one dot is in the middle.",
      usual: USUAL,
      min: [FEWEST, "Fewer dots do not show the shape of the field."],
      max: [MOST_ACROSS, "More dots do not improve the result."],
      when: GRID_ONLY,
    }),
    pictures: field.choice(PICTURES, {
      label: "Scans",
      group,
      usual: "two",
      when: GRID_ONLY,
      whys: {
        one: "Errors of the scanner remain in the field.",
        two: "The two scans separate errors of the scanner from errors of the field.",
        parts: "Each scan must show the larger dots in the middle.",
        photo: "The lens of the camera bends lines. A scan is ten times as exact.",
      },
    }),
    parts: field.choice(PARTS, {
      label: "Overlapping scans",
      group,
      usual: "2",
      when: { field: "pictures", is: ["parts"] },
    }),
    lengths: field.choice(LENGTHS, {
      label: "Lengths measured with calipers",
      group,
      usual: "diagonals",
      when: { field: "pictures", is: ["one", "two", "parts"] },
      whys: { sides: "No other reading checks these lengths. One scan cannot show a skew." },
    }),
    lengthRepeats: field.count({
      label: "Readings per length",
      group,
      why: "Set the jaws again each time.",
      usual: 4,
      max: 20,
      when: GRID_ONLY,
    }),
  };
}

export type GridPlan = PlanOf<ReturnType<typeof gridFields>> & { fieldMm: number };

/** Combinations of plan fields that are refused for a grid. */
export function gridFaults(plan: GridPlan) {
  return [["across", acrossFault(plan)]] as const;
}

function acrossFault(plan: GridPlan): string | null {
  if (plan.across % 2 === 0) return `${plan.across} is even. Enter ${plan.across - 1} or ${plan.across + 1}.`;
  if (plan.pictures === "parts" && plan.across < LEAST_IN_PARTS)
    return `Each overlapping scan must show the larger dots in the middle. Enter at least ${LEAST_IN_PARTS}.`;
  const dot = dotMm(plan);
  return dot < LEAST_DOT_MM
    ? `The dots would be ${plain(dot, 1)} mm wide. A scan shows dots of at least ${plain(LEAST_DOT_MM, 1)} mm. Use fewer dots.`
    : null;
}
