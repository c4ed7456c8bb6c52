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
    readAt: field.choice(READ_AT, { label: "Read at each place", group: "Reading", usual: "scale, further apart" }),
    places: field.choice(PLACES, { label: "Places", group: "Reading", usual: "5" }),
    /** Places lie so far inside the working area. */
    insetMm: field.length({
      label: "In from the edges",
      group: "Reading",
      why: "The further apart, the better the tilt is told.",
      usual: kind === "galvo" ? INSET.galvo : INSET.gantry,
      min: 0,
    }),
    settableMm: field.length({
      label: "Heights are good to",
      group: "Reading",
      why: "The smallest difference that you can set and read.",
      usual: 0.1,
    }),
    repeats: field.count({
      label: "Readings a place",
      group: "Reading",
      why: "Find the height again each time.",
      usual: 2,
      max: [10, "More than 10 readings do not help."],
    }),
    supports: field.choice(SUPPORTS, { label: "What the bed stands on", group: "Supports", usual: "four" }),
    supportInsetMm: field.signedLength({
      label: "Supports in from the edges",
      group: "Supports",
      why: "Of the working area; below 0 where they stand outside it.",
      usual: 0,
    }),
    /** Lift of a whole turn; 0 where shims are laid. */
    pitchMm: field.length({
      label: "Pitch of their screws",
      group: "Supports",
      why: "Lift of a whole turn, for example 1 mm for M6; 0 where shims are laid.",
      usual: USUAL_PITCH_MM,
      min: 0,
      max: [10, "The pitch is the lift of one turn."],
    }),
    turns: field.choice(TURNS, {
      label: "A screw turned",
      group: "Supports",
      why: "Seen from above.",
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
          ? `So far in the places lie close together. Enter at most ${plain(smallest / 4)} mm.`
          : null,
      ],
      [
        "supportInsetMm",
        2 * supportInsetMm > smallest / 2 || -supportInsetMm > smallest
          ? "The supports would stand too close together, or far off the bed."
          : null,
      ],
      ["places", machine.kind === "galvo" && places === "3" ? CURVED : null],
    ],
  });
}

const CURVED =
  "Under a galvo the field is curved as well. Choose the corners and the middle, which tell it from a tilt.";
