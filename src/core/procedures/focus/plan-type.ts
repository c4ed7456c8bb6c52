/** What is burned to find the focus. Heights are the numbers that are read at the machine, whichever way they count. */

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
export type Moves = keyof typeof MOVES;

/** Where heights are read, and which way they count. */
export const READ_AT = {
  rule: "At a rule or with blocks, from the lens housing to the work",
  "scale, further apart": "At a scale or readout: larger is further apart",
  "scale, closer": "At a scale or readout: larger is closer",
} as const;
export type ReadAt = keyof typeof READ_AT;

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
export type Sense = keyof typeof SENSES;

/** What a cell holds. */
export const CELL_MARKS = {
  both: "Hatched square and single lines",
  squares: "Hatched square",
  lines: "Single lines",
  "lines both ways": "Single lines along X and along Y",
} as const;
export type CellMarks = keyof typeof CELL_MARKS;

/** How cells are judged. */
export const JUDGED = {
  "by eye": "By eye: first and last that marked, and the sharpest",
  "by widths": "By the widths of its lines as well",
} as const;
export type Judged = keyof typeof JUDGED;

/** What the widths are of: it decides how they go with the height. */
export const DOSES = {
  lines: "Lines whose energy adds up: a steady beam, or pulses that overlap",
  pulses: "Single pulses: what counts is the peak of each",
  beam: "No marks: widths of the beam itself, four times its second moment",
} as const;
export type Doses = keyof typeof DOSES;

/** How heights are read and set, and what is set in the end. */
export type HeightTerms = {
  readAt: ReadAt;
  /** Added to what a rule reads, mm; rules only. */
  allowanceMm?: number;
  /** How finely a height can be set and read. */
  settableMm: number;
  /** Nothing may be set outside these. */
  lowestMm: number;
  highestMm: number;
  setIn: SetIn;
  /** Height to which the machine comes by itself now; stored numbers only. */
  homedMm?: number;
  sense?: Sense;
  /** A number that was tried, and the height to which the machine came with it; to learn the sense. */
  triedNumberMm?: number;
  triedHomedMm?: number;
};

/** How it is marked, and on what. */
export type MarkTerms = {
  speedMmPerS: number;
  powerPct: number;
  /** Galvos only. */
  pulseKHz?: number;
  stockWidthMm: number;
  stockHeightMm: number;
  stockAtXMm: number;
  stockAtYMm: number;
};

export type LadderPlan = HeightTerms &
  MarkTerms & {
    way: "ladder";
    moves: Moves;
    firstMm: number;
    stepMm: number;
    count: number;
    marks: CellMarks;
    judged: Judged;
    doses: Doses;
    /** How often the sharpest is chosen. */
    looks: number;
  };

/** Along what the run of a ramp is measured. */
export const RUN_ALONG = {
  bed: "Along the bed, level",
  plate: "Along the plate itself",
} as const;
export type RunAlong = keyof typeof RUN_ALONG;

/** Where a place on the ramp is read. */
export const RAMP_READ = {
  scale: "At the engraved scale, as a height",
  rule: "With a rule along the plate, from the low end of the line",
} as const;
export type RampRead = keyof typeof RAMP_READ;

export type RampPlan = HeightTerms &
  MarkTerms & {
    way: "ramp";
    /** Height over the low end of the line, mm. */
    lowMm: number;
    riseMm: number;
    runMm: number;
    runAlong: RunAlong;
    /** How well rise and run are known, mm. */
    slopeGoodMm: number;
    /** Of a sheet on the plate that the low height does not count in, mm. */
    thicknessMm: number;
    /** The head reaches so far beyond its beam, uphill, mm. */
    headReachMm: number;
    rampRead: RampRead;
    /** Widths at the ticks are read too. */
    judged: Judged;
    doses: Doses;
    looks: number;
  };

export type SweepPlan = HeightTerms &
  MarkTerms & {
    way: "sweep";
    /** Passes each way. */
    passes: number;
    squareMm: number;
  };

export type FocusPlan = LadderPlan | RampPlan | SweepPlan;

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
