/** What may be chosen before a bed is measured: where, and on what it stands. */
import type { MachineSpec } from "../../machine/machine-spec";
import { plain } from "../../metrology/quantity-text";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";

/** The number at which a place is in focus, or a block of the gap just fits. */
export const READ_AT = {
  "scale, further apart": "A readout or scale: larger is head and bed further apart",
  "scale, closer": "A readout or scale: larger is closer",
} as const;
export const PLACES = {
  "3": "Three: front left, front right, back middle",
  "5": "Five: the corners and the middle",
  "9": "Nine: corners, middles of the sides, middle",
} as const;
export const SUPPORTS = {
  four: "Four, one near each corner",
  three: "Three: front left, front right, back middle",
} as const;
export const TURNS = {
  "clockwise lifts": "Clockwise lifts the bed",
  "clockwise lowers": "Clockwise lowers the bed",
} as const;

const INSET = { gantry: 50, galvo: 10 };
/** Of machine screws M6. [ISO 261:1998, coarse series] */
const USUAL_PITCH_MM = 1;

function planFields({ kind }: MachineSpec) {
  return {
    readAt: field.choice(READ_AT, { label: "Reading at each point", group: "Reading", usual: "scale, further apart" }),
    places: field.choice(PLACES, { label: "Points", group: "Reading", usual: "5" }),
    /** Places lie so far inside the working area. */
    insetMm: field.length({
      label: "Distance from the edges",
      group: "Reading",
      why: "Points farther apart make the tilt more certain.",
      usual: kind === "galvo" ? INSET.galvo : INSET.gantry,
      min: 0,
    }),
    settableMm: field.length({
      label: "Resolution of the height",
      group: "Reading",
      why: "Smallest difference that you can set and read.",
      usual: 0.1,
    }),
    repeats: field.count({
      label: "Readings per point",
      group: "Reading",
      why: "Find the height again each time.",
      usual: 2,
      max: [10, "More than 10 readings do not help."],
    }),
    supports: field.choice(SUPPORTS, { label: "Supports of the bed", group: "Supports", usual: "four" }),
    supportInsetMm: field.signedLength({
      label: "Distance of the supports from the edges",
      group: "Supports",
      why: "Enter a negative value for supports outside the working area.",
      usual: 0,
    }),
    /** Lift of a whole turn; 0 where shims are laid. */
    pitchMm: field.length({
      label: "Pitch of the screws",
      group: "Supports",
      why: "Lift per turn, for example 1 mm for M6. Enter 0 for shims.",
      usual: USUAL_PITCH_MM,
      min: 0,
      max: [10, "The pitch is the lift of one turn."],
    }),
    turns: field.choice(TURNS, {
      label: "Effect of a screw",
      group: "Supports",
      why: "Turn as seen from above.",
      usual: "clockwise lifts",
    }),
  };
}

export type BedTiltPlan = PlanOf<ReturnType<typeof planFields>>;

export function bedTiltPlan({ machine }: PlanContext): PlanForm<BedTiltPlan> {
  const smallest = Math.min(machine.widthMm, machine.depthMm);
  return planForm(planFields(machine), {
    faults: ({ insetMm, supportInsetMm, places }) => [
      [
        "insetMm",
        2 * insetMm > smallest / 2
          ? `The points would be too close together. Enter at most ${plain(smallest / 4)} mm.`
          : null,
      ],
      [
        "supportInsetMm",
        2 * supportInsetMm > smallest / 2 || -supportInsetMm > smallest
          ? `The supports would be too close together, or far outside the bed. Enter between ${plain(-smallest)} and ${plain(smallest / 4)} mm.`
          : null,
      ],
      ["places", machine.kind === "galvo" && places === "3" ? CURVED : null],
    ],
  });
}

const CURVED = "The field of a galvo is curved. Choose five or nine points to separate the curvature from the tilt.";
