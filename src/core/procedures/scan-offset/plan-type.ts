/** What a scan-offset plan consists of. */

export const SCAN_OFFSET = "scan offset";

/** How rows reach the machine: it decides what the controller's table does to them. */
export const WAYS = {
  "closed blocks": "Closed blocks, scanned by the controller",
  "own strokes": "Rows as strokes, compensated in Ustrina's G-code",
  "bare strokes": "Rows as strokes, compensated by nobody",
} as const;
export type Way = keyof typeof WAYS;

/** A slow line around each block: the gaps to it show where the rows of each direction are, not only how far they are apart. */
export const OUTLINES = { none: "No outline", "each block": "A slow line around each block" } as const;

export type ScanOffsetPlan = {
  way: Way;
  speedsMmPerS: number[];
  rowLengthMm: number;
  rowPitchMm: number;
  rowsPerBlock: number;
  powerPct: number;
  referenceStepMm: number;
  repeats: number;
  /** Left out in plans from before there were outlines. */
  outline?: keyof typeof OUTLINES;
  stockWidthMm: number;
  stockHeightMm: number;
  stockAtXMm: number;
  stockAtYMm: number;
};

export function hasOutline({ outline }: Pick<ScanOffsetPlan, "outline">): boolean {
  return outline === "each block";
}
