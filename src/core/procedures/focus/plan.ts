/** What is chosen before the focus is looked for. Heights are the numbers that are read at the machine, whichever way they count. */
import { DOSES } from "../../beam/doses";
import type { MachineSpec } from "../../machine/machine-spec";
import { field, type When } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { middleOf, placeFields, powerField, stockSizeFields, topSpeed } from "../../trial/shared-fields";

export const FOCUS_HEIGHT = "focus height";
/** The number by which a sensor or a table finds its height by itself. */
export const STORED_HEIGHT = "stored height";

/** How the focus is looked for. */
export const FOCUS_WAYS = {
  ladder: "Height ladder: cells, each burned at its own height",
  ramp: "Ramp: one line up a propped plate",
  sweep: "Live sweep: the height is moved while a small square is marked",
} as const;
export type FocusWay = keyof typeof FOCUS_WAYS;

/** Who moves the lens, or the table, from cell to cell. */
export const MOVES = {
  "by hand": "By hand, from one cell to the next",
  "by motor": "By the motor of the machine, in its G-code",
} as const;

/** Where heights are read, and which way they count. */
export const READ_AT = {
  rule: "At a rule or with blocks, from the lens housing to the work",
  "scale, further apart": "At a scale or readout: larger is further apart",
  "scale, closer": "At a scale or readout: larger is closer",
} as const;

/** What is changed at the machine in the end. */
export const SET_IN = {
  height: "The height itself",
  stored: "The stored number of its sensor or table",
} as const;
export type SetIn = keyof typeof SET_IN;

/** What a larger stored number does to the gap between lens and work. */
export const SENSES = {
  larger: "Makes the gap larger",
  smaller: "Makes the gap smaller",
  "not known": "Not known: learn it by a small change",
} as const;

/** What a cell holds. */
export const CELL_MARKS = {
  both: "Hatched square and single lines",
  squares: "Hatched square",
  lines: "Single lines",
  "lines both ways": "Single lines along X and along Y",
} as const;

/** How cells are judged. */
export const JUDGED = {
  "by eye": "By eye: first and last that marked, and the sharpest",
  "by widths": "By the widths of its lines as well",
} as const;

/** Along what the run of a ramp is measured. */
export const RUN_ALONG = {
  bed: "Along the bed, level",
  plate: "Along the plate itself",
} as const;

/** Where a place on the ramp is read. */
export const RAMP_READ = {
  scale: "At the engraved scale, as a height",
  rule: "With a rule along the plate, from the low end of the line",
} as const;

const WHY_WAYS: Record<FocusWay, string> = {
  ladder: "Simple and reliable. Each cell needs its own height setting.",
  ramp: "One height setting and one line. You need a plate that can be propped.",
  sweep: "Quick on metal. The brightest and loudest point is the focus.",
};

const only = (...is: FocusWay[]): When => ({ field: "way", is });
const LADDER = only("ladder");
const RAMP = only("ramp");
const SWEEP = only("sweep");
const BURNED = only("ladder", "ramp");

const [FEWEST_CELLS, MOST_CELLS] = [5, 60];
/** A plate of this length, propped by so much. (common practice, no source) */
const PLATE = { riseMm: 14, runMm: 120 };
/** Between lens housing and work, under the flat-field lenses that are met most. (common practice, no source) */
const GALVO_HEIGHT_MM = 181;
const GANTRY_HEIGHT_MM = 10;
/** Of a gantry's head beyond its nozzle, where nothing is known of it, mm. */
const USUAL_REACH_MM = 15;
/** Shorter waves mark metal pulse by pulse; longer ones are taken up where they add up. */
const LONG_WAVE_NM = 3000;
/** Slow, so that thin lines come out even. */
const SPEED_SHARE = 0.1;
/** Short lenses have a shallow focus. */
const LADDERS = { gantry: { count: 17, stepMm: 1 }, galvo: { count: 25, stepMm: 0.5 } };
const STOCKS = { gantry: { widthMm: 110, heightMm: 70 }, galvo: { widthMm: 100, heightMm: 90 } };

export function planFields(context: PlanContext) {
  const { machine } = context;
  const usual = usualHeights(context);
  const stock = STOCKS[sortOf(machine)];
  return {
    way: field.choice(FOCUS_WAYS, { label: "How it is looked for", group: "Way", usual: "ladder", whys: WHY_WAYS }),
    ...heightFields(machine),
    ...storedFields(machine),
    ...limitFields(usual),
    ...ladderFields(usual),
    ...rampFields(machine, usual),
    ...markFields(machine),
    ...stockSizeFields(stock),
    ...placeFields(middleOf(machine, stock)),
  };
}

type Sort = "gantry" | "galvo";

function sortOf({ kind }: MachineSpec): Sort {
  return kind === "galvo" ? "galvo" : "gantry";
}

type Heights = { firstMm: number; stepMm: number; count: number; lowMm: number };

/** Around the height of daily work, where the ledger knows it, or the one that the maker of the lens gives. */
function usualHeights({ machine, inForce, optic }: PlanContext): Heights {
  const sort = sortOf(machine);
  const held = inForce[FOCUS_HEIGHT];
  const nominal = sort === "galvo" ? (optic?.workingDistanceMm ?? GALVO_HEIGHT_MM) : GANTRY_HEIGHT_MM;
  const middle = Math.round(held?.shape === "scalar" ? held.value : nominal);
  const { count, stepMm } = LADDERS[sort];
  const firstMm = Math.max(0, middle - ((count - 1) / 2) * stepMm);
  // Focus in the middle of the ramp, as far as nothing touches over its high end.
  const rise = (STOCKS[sort].widthMm * PLATE.riseMm) / PLATE.runMm;
  return { firstMm, stepMm, count, lowMm: Math.max(middle + Math.round(rise / 2 - 1), Math.ceil(firstMm + rise)) };
}

function heightFields(machine: MachineSpec) {
  const group = "Heights";
  return {
    // A galvo takes no program that could move its column.
    moves: field.choice(MOVES, {
      label: "Who moves the height",
      group,
      why: "Choose what moves the lens or the table.",
      usual: "by hand",
      when: machine.kind === "galvo" ? false : LADDER,
    }),
    readAt: field.choice(READ_AT, { label: "Heights are read", group, usual: "rule" }),
    /** Added to what a rule reads. */
    allowanceMm: field.length({
      label: "Rule allowance",
      group,
      why: "Distance from the end of the rule to its zero mark. Enter 0 for blocks.",
      usual: 0,
      min: [0, "The allowance is added to the reading."],
      when: { field: "readAt", is: ["rule"] },
    }),
    /** How finely a height can be set and read. */
    settableMm: field.length({
      label: "Resolution of the height",
      group,
      why: "Smallest difference that you can set and read.",
      usual: 0.5,
    }),
  };
}

/** Only where the machine finds its height by a stored number. */
function storedFields({ held }: MachineSpec) {
  const group = "Heights";
  const stored: When | false = held[STORED_HEIGHT] ? { field: "setIn", is: ["stored"] } : false;
  const learned: When | false = stored && { field: "sense", is: ["not known"] };
  return {
    setIn: field.choice(SET_IN, {
      label: "What is set in the end",
      group,
      usual: "height",
      when: stored ? undefined : false,
    }),
    /** Height to which the machine comes by itself now. */
    homedMm: field.unknownLength({
      label: "Height found by the machine",
      group,
      why: "Height with the value stored now, read as the other heights.",
      missing: "Let the machine find its height, then enter the height that you read.",
      when: stored,
    }),
    sense: field.choice(SENSES, { label: "A larger stored number", group, usual: "not known", when: stored }),
    /** A number that was tried, and the height to which the machine came with it; to learn the sense. */
    triedNumberMm: field.unknownLength({
      label: "Number tried",
      group,
      why: "Use a value near the stored one. Restore the stored value afterwards.",
      missing: NO_TRY,
      when: learned,
    }),
    triedHomedMm: field.unknownLength({
      label: "Height with the number tried",
      group,
      why: "Height found by the machine, read as the other heights.",
      missing: NO_TRY,
      when: learned,
    }),
  };
}

const NO_TRY = "Enter the number that you tried and the height that you read with it.";

/** Nothing may be set outside these. */
function limitFields({ firstMm, stepMm, count }: Heights) {
  return {
    lowestMm: field.signedLength({
      label: "Never below",
      group: "Heights",
      why: "Lowest height at which nothing touches the lens or the work.",
      usual: firstMm,
    }),
    highestMm: field.signedLength({
      label: "Never above",
      group: "Heights",
      why: "Highest height at which nothing touches the lens or the work.",
      usual: firstMm + (count - 1) * stepMm,
    }),
  };
}

function ladderFields({ firstMm, stepMm, count }: Heights) {
  const group = "Ladder";
  return {
    firstMm: field.signedLength({
      label: "Lowest number",
      group,
      why: "Lowest height of the ladder, as you read it.",
      usual: firstMm,
      when: LADDER,
    }),
    stepMm: field.length({ label: "Step", group, why: "0.5 to 1 mm is usual.", usual: stepMm, when: LADDER }),
    count: field.count({
      label: "Cells",
      group,
      why: "Use enough cells that the first and the last do not mark.",
      usual: count,
      min: [FEWEST_CELLS, "Some cells must leave no mark."],
      max: [MOST_CELLS, "The coupon has room for 60 cells."],
      when: LADDER,
    }),
  };
}

function rampFields(machine: MachineSpec, { lowMm }: Heights) {
  const group = "Ramp";
  return {
    lowMm: field.signedLength({
      label: "Height over the low end",
      group,
      why: "Height over the low end of the line, kept for the whole burn.",
      usual: lowMm,
      when: RAMP,
    }),
    riseMm: field.length({
      label: "Rise",
      group,
      why: "Difference in height between the low end and the propped end.",
      usual: PLATE.riseMm,
      when: RAMP,
    }),
    runMm: field.length({
      label: "Run",
      group,
      why: "Length over which the plate rises.",
      usual: PLATE.runMm,
      when: RAMP,
    }),
    runAlong: field.choice(RUN_ALONG, { label: "The run is measured", group, usual: "bed", when: RAMP }),
    slopeGoodMm: field.length({
      label: "Limit of error of rise and run",
      group,
      why: "A smaller limit makes the focus more certain.",
      usual: 0.5,
      when: RAMP,
    }),
    thicknessMm: field.length({
      label: "Sheet on the plate",
      group,
      why: "Thickness, if the height was read to the bare plate. Otherwise enter 0.",
      usual: 0,
      min: 0,
      when: RAMP,
    }),
    /** The head reaches so far beyond its beam, uphill. */
    headReachMm: field.length({
      label: "Head beyond its beam",
      group,
      why: "Distance that the head reaches uphill. The head must not touch the plate.",
      usual: machine.kind === "galvo" ? 0 : USUAL_REACH_MM,
      min: 0,
      when: RAMP,
    }),
    rampRead: field.choice(RAMP_READ, { label: "Places are read", group, usual: "scale", when: RAMP }),
  };
}

function markFields(machine: MachineSpec) {
  const group = "Marks";
  const isGalvo = machine.kind === "galvo";
  return {
    marks: field.choice(CELL_MARKS, { label: "A cell holds", group, usual: "both", when: LADDER }),
    judged: field.choice(JUDGED, { label: "Judged", group, usual: "by eye", when: BURNED }),
    doses: field.choice(DOSES, {
      label: "What marks",
      group,
      why: "The choice changes the size of the spot, not the focus.",
      usual: isGalvo && machine.wavelengthNm < LONG_WAVE_NM ? "pulses" : "lines",
      when: { field: "judged", is: ["by widths"] },
    }),
    passes: field.count({
      label: "Passes each way",
      group,
      why: "Move up and down through the brightest point. The difference is the backlash.",
      usual: 3,
      min: [2, "One pass each way does not show the repeatability."],
      max: [20, "More passes do not improve the result."],
      when: SWEEP,
    }),
    squareMm: field.length({
      label: "Side of the square",
      group,
      why: "Use a small square that is marked again and again.",
      usual: 8,
      min: [2, "Smaller squares cannot be seen."],
      when: SWEEP,
    }),
    speedMmPerS: field.speed({
      label: "Speed",
      group,
      usual: Math.round(machine.topSpeedMmPerS * SPEED_SHARE),
      max: topSpeed(machine),
    }),
    powerPct: powerField({
      group,
      why: "Use so little power that only cells near the focus mark.",
      usual: isGalvo ? 40 : 14,
    }),
    pulseKHz: field.number({
      label: "Pulses, kHz",
      group,
      why: "Use the value of your daily work with this lens.",
      usual: 30,
      when: isGalvo ? undefined : false,
    }),
    /** How often the sharpest is chosen. */
    looks: field.count({
      label: "Readings of the sharpest",
      group,
      why: "Choose the sharpest again later, or ask another person.",
      usual: 2,
      max: [10, "More readings do not improve the result."],
      when: BURNED,
    }),
  };
}

type Asked = PlanOf<ReturnType<typeof planFields>>;
type OfWay<W extends FocusWay> = Omit<Asked, "way"> & { way: W };

export type LadderPlan = OfWay<"ladder">;
export type RampPlan = OfWay<"ramp">;
export type SweepPlan = OfWay<"sweep">;
export type FocusPlan = LadderPlan | RampPlan | SweepPlan;

/** How heights are read and set, and what is set in the end. */
export type HeightTerms = Pick<Asked, "readAt" | "allowanceMm" | "settableMm">;

/** Pulses of a machine that has them. */
export function pulsesOf({ pulseKHz }: Pick<Asked, "pulseKHz">, { kind }: MachineSpec): { pulseKHz?: number } {
  return kind === "galvo" ? { pulseKHz } : {};
}

export type Cell = { number: number; heightMm: number };

/** The cells in the order in which they are burned: by rising height. */
export function cellsOf({ firstMm, stepMm, count }: Pick<LadderPlan, "firstMm" | "stepMm" | "count">): Cell[] {
  return Array.from({ length: count }, (_, i) => ({
    number: i + 1,
    // No tail of binary digits on what a person sets at a rule.
    heightMm: Number((firstMm + i * stepMm).toFixed(6)),
  }));
}

/** Whether single lines run both ways, and the widths of both are read. */
export function runsBothWays({ judged, doses, marks }: Pick<LadderPlan, "judged" | "doses" | "marks">): boolean {
  return marks === "lines both ways" && judged === "by widths" && doses !== "beam";
}

/** The setting that is corrected in the end. */
export function settingOf(setIn: SetIn): string {
  return setIn === "stored" ? STORED_HEIGHT : FOCUS_HEIGHT;
}

/** Setting a height, to within half of what can be set: standard uncertainty, mm. */
export function settingUncertainty({ settableMm }: Pick<HeightTerms, "settableMm">): number {
  return settableMm / Math.sqrt(12);
}

/** Which way the numbers count: +1 where larger is further apart. */
export function apartSense({ readAt }: Pick<HeightTerms, "readAt">): 1 | -1 {
  return readAt === "scale, closer" ? -1 : 1;
}
