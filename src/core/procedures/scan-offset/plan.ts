/** What is chosen before a scan-offset coupon is burned. */
import { field } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { placeFields, powerField, repeatsField, stockSizeFields } from "../../trial/shared-fields";

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

/** Below this there is no room to set calipers on both ends. (common practice, no source) */
const SHORTEST_ROW_MM = 20;
const STOCK = { widthMm: 90, heightMm: 120 };

export function planFields({ machine }: PlanContext) {
  return {
    speedsMmPerS: field.speeds({
      label: "Speeds",
      group: "Blocks",
      why: "One block each. Take the speeds of your work.",
      usual: usualSpeeds(machine.topSpeedMmPerS),
    }),
    way: field.choice(WAYS, {
      label: "How rows reach the machine",
      group: "Blocks",
      why: "Use the way in which work is engraved here.",
      usual: machine.scansBlocks ? "closed blocks" : "own strokes",
      whys: {
        "closed blocks": "Its own table acts on them.",
        "own strokes": "The table is applied when the file is written.",
        "bare strokes": "Measures the machine; a table changes nothing.",
      },
    }),
    outline: field.choice(OUTLINES, {
      label: "Outline",
      group: "Blocks",
      why: "Shows whether scanned rows are shifted against drawn lines. Four more readings per speed.",
      usual: "none",
    }),
    rowLengthMm: field.length({
      label: "Row length",
      group: "Blocks",
      why: "50 mm is usually enough.",
      usual: 50,
      min: [SHORTEST_ROW_MM, "Shorter rows leave no room for calipers at both ends."],
    }),
    rowPitchMm: field.length({
      label: "Row pitch",
      group: "Blocks",
      why: "0.5 to 1 mm, so that tips stand apart.",
      usual: 0.8,
      min: [0.2, "Neighbouring rows touch."],
      max: [3, "Tips so far apart cannot be compared."],
    }),
    rowsPerBlock: field.count({
      label: "Rows in a block",
      group: "Blocks",
      why: "Half of them go each way.",
      usual: 8,
      min: [4, "Two rows each way are needed."],
      max: [40, "More rows cannot be compared."],
    }),
    powerPct: powerField({ group: "Blocks", why: "Low: thin, clear tips.", usual: 14 }),
    repeats: repeatsField(3, "Three, at different rows, tell the scatter."),
    referenceStepMm: field.length({
      label: "Reference step",
      group: "Reading",
      why: "A step of known size: reading it takes out what the calipers always read wrong.",
      usual: 0.3,
      min: [0.1, "A smaller step cannot be measured well."],
      max: [2, "A larger step leaves the range of the stagger."],
    }),
    ...stockSizeFields(STOCK),
    ...placeFields({
      xMm: Math.round(Math.max(60, (machine.widthMm - STOCK.widthMm) / 2)),
      yMm: Math.round(Math.max(20, (machine.depthMm - STOCK.heightMm) / 2)),
    }),
  };
}

export type ScanOffsetPlan = PlanOf<ReturnType<typeof planFields>>;

function usualSpeeds(top: number): number[] {
  const step = top >= 500 ? 100 : top / 6;
  return [1, 2, 3, 4, 5, 6].map((n) => Math.round(n * step)).filter((v) => v <= top);
}

export function hasOutline({ outline }: Pick<ScanOffsetPlan, "outline">): boolean {
  return outline === "each block";
}
