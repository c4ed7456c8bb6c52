/** What may be chosen before a bed is measured: where, and on what it stands. */
import { z } from "zod";
import type { MachineSpec } from "../../machine/machine-spec";
import { plain } from "../../metrology/quantity-text";
import type { FieldSpec, PlanContext, PlanForm } from "../../trial/plan-form";
import { choice, oneOf } from "../../trial/plan-form";

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

export type BedTiltPlan = {
  readAt: keyof typeof READ_AT;
  places: keyof typeof PLACES;
  /** Places lie so far inside the working area, mm. */
  insetMm: number;
  settableMm: number;
  /** How often each place is read. */
  repeats: number;
  supports: keyof typeof SUPPORTS;
  /** Supports stand so far inside the working area; below 0 outside it, mm. */
  supportInsetMm: number;
  /** Lift of a whole turn; 0 where shims are laid, mm. */
  pitchMm: number;
  turns: keyof typeof TURNS;
};

const INSET = { gantry: 50, galvo: 10 };
/** Of machine screws M6. [ISO 261:1998, coarse series] */
const USUAL_PITCH_MM = 1;

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;

const FIELDS: FieldSpec[] = [
  { key: "readAt", label: "Read at each place", group: "Reading", ...choice(READ_AT), why: "" },
  { key: "places", label: "Places", group: "Reading", ...choice(PLACES), why: "" },
  {
    key: "insetMm",
    label: "In from the edges",
    group: "Reading",
    ...length,
    why: "The further apart, the better the tilt is told.",
  },
  {
    key: "settableMm",
    label: "Heights are good to",
    group: "Reading",
    ...length,
    why: "The smallest difference that you can set and read.",
  },
  { key: "repeats", label: "Readings a place", group: "Reading", kind: "count", why: "Come to each anew." },
  { key: "supports", label: "What the bed stands on", group: "Supports", ...choice(SUPPORTS), why: "" },
  {
    key: "supportInsetMm",
    label: "Supports in from the edges",
    group: "Supports",
    ...length,
    signed: true,
    why: "Of the working area; below 0 where they stand outside it.",
  },
  {
    key: "pitchMm",
    label: "Pitch of their screws",
    group: "Supports",
    ...length,
    why: "Lift of a whole turn, for example 1 mm for M6; 0 where shims are laid.",
  },
  { key: "turns", label: "A screw turned", group: "Supports", ...choice(TURNS), why: "Seen from above." },
];

export function planForm({ machine }: PlanContext): PlanForm<BedTiltPlan> {
  const isGalvo = machine.kind === "galvo";
  const defaults: BedTiltPlan = {
    readAt: "scale, further apart",
    places: "5",
    insetMm: isGalvo ? INSET.galvo : INSET.gantry,
    settableMm: 0.1,
    repeats: 2,
    supports: "four",
    supportInsetMm: 0,
    pitchMm: USUAL_PITCH_MM,
    turns: "clockwise lifts",
  };
  return { schema: schemaFor(machine), defaults, fields: FIELDS };
}

function schemaFor(machine: MachineSpec): z.ZodType<BedTiltPlan> {
  const isGalvo = machine.kind === "galvo";
  const smallest = Math.min(machine.widthMm, machine.depthMm);
  return z
    .object({
      readAt: oneOf(READ_AT),
      places: oneOf(PLACES),
      insetMm: z.number({ error: "Give how far in the places lie, for example 50 mm." }).min(0, "No less than 0."),
      settableMm: z
        .number({ error: "Give how finely a height can be set, for example 0.1 mm." })
        .positive("It must be larger than 0."),
      repeats: z
        .number({ error: "Give how often each place is read." })
        .int("A whole number.")
        .min(1, "At least once.")
        .max(10, "More than 10 readings do not help."),
      supports: oneOf(SUPPORTS),
      supportInsetMm: z.number({ error: "Give where the supports stand, or 0." }),
      pitchMm: z
        .number({ error: "Give the pitch, or 0 for shims." })
        .min(0, "No less than 0.")
        .max(10, "A pitch of more than 10 mm? Lift of one turn."),
      turns: oneOf(TURNS),
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof BedTiltPlan, message: string) =>
        issues.addIssue({ code: "custom", path: [field], message });
      if (2 * plan.insetMm > smallest / 2)
        say("insetMm", `So far in the places lie close together: ${plain(smallest / 4)} mm at most.`);
      if (2 * plan.supportInsetMm > smallest / 2 || -plan.supportInsetMm > smallest)
        say("supportInsetMm", "The supports would stand too close together, or far off the bed.");
      if (isGalvo && plan.places === "3")
        say(
          "places",
          "Under a galvo the field is curved as well: take the corners and the middle, which tell it from a tilt.",
        );
    });
}
