/** What is chosen before a rotary is measured. */
import type { MachineSpec } from "../../machine/machine-spec";
import type { RotaryDrive } from "../../machine/part-spec";
import { gaugeFields } from "../../measuring/length-gauges";
import { field, type When } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { powerField, repeatsField, topSpeed } from "../../trial/shared-fields";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "./setting";

export const WAYS = {
  wrap: "A line once around, and the gap that it leaves",
  span: "Two lines a length apart, burned",
  traced: "A line of known length, traced by the aiming dot",
} as const;
export type Way = keyof typeof WAYS;

export const DRIVES = { roller: "Rollers carry the part", chuck: "A chuck holds it" } as const satisfies Record<
  RotaryDrive,
  string
>;
export const REPLACED = { y: "Y: the part lies along X", x: "X: the part lies along Y" } as const;
export const HELD = {
  both: "Steps per revolution and roller diameter",
  steps: "Steps per revolution alone",
  diameter: "Roller diameter alone",
} as const;
export const RESTS = { same: "Where it is marked", other: "On another diameter: a neck or a step" } as const;
export const SIZED = { across: "Calipers, across", around: "A tape measure, around" } as const;
export const BACK = { yes: "Yes: slip shows", no: "No" } as const;

/** In the place of a name, where no rotary is written down as fitted. */
export const NO_NAME = "not written down";

/** A bottle or a tube of this size is usual. (common practice, no source) */
const USUAL_DIAMETER_MM = 60;
/** Half the largest swing that an eye tolerates at a chuck, mm. (common practice, no source) */
const USUAL_RUNOUT_MM = 0.1;

const only = (...is: Way[]): When => ({ field: "way", is });
const SPANS = only("span", "traced");
const TRACED = only("traced");
const BURNED = only("wrap", "span");
const ROLLERS: When = { field: "drive", is: ["roller"] };

/** @param alongMm how much of the part the marks take */
export function planFields(context: PlanContext, alongMm: number) {
  return {
    ...testFields(),
    ...rotaryFields(context),
    ...partFields(),
    ...gaugeFields(context, "Longest length that the gauge can measure."),
    ...readingFields(),
    ...burnFields(context, alongMm),
  };
}

export type RotaryPlan = PlanOf<ReturnType<typeof planFields>>;

function testFields() {
  return {
    way: field.choice(WAYS, {
      label: "What is measured",
      group: "Test",
      why: "A line once around gives the smallest uncertainty.",
      usual: "wrap",
    }),
    spanMm: field.length({
      label: "From line to line",
      group: "Test",
      why: "Use a long line, but less than half a turn with tape.",
      usual: 80,
      min: [20, "A longer line gives a smaller uncertainty."],
      when: SPANS,
    }),
    /** On which it is burned or drawn; 0 = none. */
    tapeMm: field.length({
      label: "Thickness of the tape",
      group: "Test",
      why: "The tape is read laid flat. Enter 0 without tape.",
      usual: 0.1,
      min: 0,
      max: [2, "Tape is usually 0.1 mm thick."],
      when: SPANS,
    }),
    thereAndBack: field.choice(BACK, {
      label: "There and back",
      group: "Test",
      why: "A workpiece that slips does not return to the first line.",
      usual: "yes",
    }),
  };
}

function rotaryFields({ machine, rotary }: PlanContext) {
  const group = "Rotary";
  const known = rotary?.label ?? NO_NAME;
  return {
    /** Name of the rotary that is fitted. */
    rotary: field.oneOfThese([{ value: known, label: known }], {
      label: "Rotary",
      group,
      why: rotary ? "The rotary that is fitted." : "No rotary is entered as fitted. You can measure without one.",
      usual: known,
    }),
    drive: field.choice(DRIVES, { label: "Drive", group, usual: rotary?.drive ?? "roller" }),
    replaces: field.choice(REPLACED, { label: "Replaced axis", group, usual: rotary?.replaces ?? "y" }),
    holds: field.choice(HELD, {
      label: "Settings of the controller",
      group,
      why: "Only one of the two settings is corrected.",
      usual: heldBy(machine),
      when: ROLLERS,
    }),
    /** How far the surface of a chucked part goes up and down in a turn. */
    runoutMm: field.length({
      label: "Runout",
      group,
      why: "Movement up and down in a turn, by indicator or by eye.",
      usual: USUAL_RUNOUT_MM,
      min: 0,
      max: [5, "Align the workpiece in the chuck first."],
      when: { field: "drive", is: ["chuck"] },
    }),
  };
}

/** As it is said of the machine; both where nothing is. */
function heldBy({ held }: MachineSpec): keyof typeof HELD {
  const [steps, roller] = [held[ROTARY_STEPS] !== undefined, held[ROLLER_DIAMETER] !== undefined];
  return steps === roller ? "both" : steps ? "steps" : "diameter";
}

function partFields() {
  const group = "Part";
  return {
    /** As the machine is told it. */
    diameterMm: field.length({
      label: "Diameter, where it is marked",
      group,
      why: "Enter the value used by the machine. You measure it later.",
      usual: USUAL_DIAMETER_MM,
    }),
    /** How its size is measured when it is read. */
    sizedBy: field.choice(SIZED, { label: "Size is measured by", group, usual: "across" }),
    rests: field.choice(RESTS, {
      label: "Part on the rollers",
      group,
      why: "Choose where the rollers touch the workpiece.",
      usual: "same",
      when: ROLLERS,
    }),
    restsOnMm: field.length({
      label: "Diameter, where it lies",
      group,
      usual: USUAL_DIAMETER_MM,
      when: { field: "rests", is: ["other"] },
    }),
  };
}

function readingFields() {
  return {
    repeats: repeatsField(3, "Turn the workpiece between readings, to notice an oval one."),
    readoutStepMm: field.length({
      label: "Step of the readout",
      group: "Reading",
      why: "Smallest change that the controller shows.",
      usual: 0.1,
      when: TRACED,
    }),
    dotMm: field.length({
      label: "Resolution of the dot",
      group: "Reading",
      why: "Smallest distance from the line that you can see.",
      usual: 0.2,
      max: 2,
      when: TRACED,
    }),
  };
}

function burnFields({ machine, rotary }: PlanContext, alongMm: number) {
  const size = (rotary?.replaces ?? "y") === "y" ? machine.widthMm : machine.depthMm;
  return {
    speedMmPerS: field.speed({
      label: "Speed",
      group: "Burn",
      why: "Use a slow speed. A fast workpiece slips.",
      usual: Math.min(50, machine.topSpeedMmPerS / 8),
      max: topSpeed(machine),
      when: BURNED,
    }),
    powerPct: powerField({ usual: 14, when: BURNED }),
    beginsAtMm: field.length({
      label: "Marks begin at",
      group: "Burn",
      why: "Distance along the workpiece from the edge of the working area.",
      usual: Math.max(0, Math.floor((size - alongMm) / 2)),
      min: [0, "The marks must lie inside the working area."],
      when: BURNED,
    }),
  };
}

/** From the first line to the last as it is sent, mm: once around, or the length that is chosen. */
export function sentMm({ way, diameterMm, spanMm }: Pick<RotaryPlan, "way" | "diameterMm" | "spanMm">): number {
  return way === "wrap" ? Math.PI * diameterMm : spanMm;
}

export function isBurned({ way }: Pick<RotaryPlan, "way">): boolean {
  return way !== "traced";
}

/** Whether the part lies on another diameter than the one that is marked. */
export function restsElsewhere({ drive, rests }: Pick<RotaryPlan, "drive" | "rests">): boolean {
  return drive === "roller" && rests === "other";
}

/** Which sizes of the part the travel is worked out from. */
export function sizesNeeded(plan: Pick<RotaryPlan, "way" | "drive" | "rests">): ("marked" | "resting")[] {
  if (restsElsewhere(plan)) return ["marked", "resting"];
  return plan.way === "wrap" || plan.drive === "chuck" ? ["marked"] : [];
}

/** Thickness of the tape that the line lies on, 0 without one: a line once around has none. */
export function tapeOn({ way, tapeMm }: Pick<RotaryPlan, "way" | "tapeMm">): number {
  return way === "wrap" ? 0 : tapeMm;
}
