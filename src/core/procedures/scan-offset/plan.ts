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
      why: "Enter the speeds of your work. Each speed gets one block.",
      usual: usualSpeeds(machine.topSpeedMmPerS),
    }),
    way: field.choice(WAYS, {
      label: "How rows reach the machine",
      group: "Blocks",
      why: "Choose how you engrave your work.",
      usual: machine.scansBlocks ? "closed blocks" : "own strokes",
      whys: {
        "closed blocks": "The table in the controller acts on the rows.",
        "own strokes": "Ustrina applies the table when it writes the file.",
        "bare strokes": "No table acts on the rows.",
      },
    }),
    outline: field.choice(OUTLINES, {
      label: "Outline",
      group: "Blocks",
      why: "An outline also shows a shift of the rows. Each speed needs four more readings.",
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
      why: "Use 0.5 to 1 mm to keep the tips apart.",
      usual: 0.8,
      min: [0.2, "Closer rows touch."],
      max: [3, "Rows farther apart cannot be compared."],
    }),
    rowsPerBlock: field.count({
      label: "Rows in a block",
      group: "Blocks",
      why: "Half of the rows are burned in each direction.",
      usual: 8,
      min: [4, "Each direction needs two rows."],
      max: [40, "More rows cannot be compared."],
    }),
    powerPct: powerField({ group: "Blocks", why: "Low power gives thin, clear tips.", usual: 14 }),
    repeats: repeatsField(3, "Measure at different rows to get the repeatability."),
    referenceStepMm: field.length({
      label: "Reference step",
      group: "Reading",
      why: "Size of a drawn step. Its reading corrects the systematic error of the calipers.",
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
