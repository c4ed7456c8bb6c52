/** Where the blocks of a scan-offset coupon lie on the stock. */
import type { Rect } from "../../geometry/rect";
import type { ScanOffsetPlan } from "./plan";

export const SPACING_MM = {
  edge: 6,
  /** Room for the speed label left of the rows. */
  labels: 20,
  /** Between a label and its rows: a tick is drawn there once the end is read. */
  besideLabel: 5,
  title: 9,
  betweenBlocks: 4,
  /** Between a block and its one-way witness strip. */
  witness: 0.8,
  letters: 3,
  /** From the drawn ends of the rows to the outline: wide enough for two tips and the line itself. */
  outline: 1.5,
  /** Length of the rows of the reference step. */
  referenceRow: 20,
} as const;

export const WITNESS_ROWS = 3;

/** `outline` runs around the block and its witness strip. */
export type BlockPlace = { speedMmPerS: number; block: Rect; witness: Rect; outline: Rect };

export type CouponPlaces = {
  title: { x: number; y: number };
  blocks: BlockPlace[];
  /** `long` reaches further than `short` at both ends, by the reference step. */
  reference: { long: Rect; short: Rect };
};

/** Left and right end of the rows, coupon mm. */
export function rowSpan(plan: ScanOffsetPlan): { x0: number; x1: number } {
  return { x0: SPACING_MM.labels, x1: SPACING_MM.labels + plan.rowLengthMm };
}

/** Height of a block with its witness strip, mm. */
export function blockHeightMm(plan: ScanOffsetPlan): number {
  return (plan.rowsPerBlock + WITNESS_ROWS) * plan.rowPitchMm + SPACING_MM.witness;
}

/** Height of stock that the whole coupon needs, mm. */
export function usedHeightMm(plan: ScanOffsetPlan): number {
  const blocks = plan.speedsMmPerS.length * (blockHeightMm(plan) + SPACING_MM.betweenBlocks);
  return SPACING_MM.edge * 2 + SPACING_MM.title + blocks + referenceHeightMm(plan);
}

function referenceHeightMm(plan: ScanOffsetPlan): number {
  return 2 * WITNESS_ROWS * plan.rowPitchMm;
}

/** Blocks from the top down by rising speed, the reference step below them. */
export function placesOf(plan: ScanOffsetPlan): CouponPlaces {
  const { x0, x1 } = rowSpan(plan);
  const height = blockHeightMm(plan);
  const speeds = [...plan.speedsMmPerS].sort((a, b) => a - b);
  let top = plan.stockHeightMm - SPACING_MM.edge;
  const title = { x: SPACING_MM.edge, y: top - SPACING_MM.letters };
  top -= SPACING_MM.title;
  const blocks = speeds.map((speedMmPerS) => {
    const y1 = top;
    const y0 = y1 - height;
    top = y0 - SPACING_MM.betweenBlocks;
    const blockTop = y0 + plan.rowsPerBlock * plan.rowPitchMm;
    return {
      speedMmPerS,
      block: { x0, y0, x1, y1: blockTop },
      witness: { x0, y0: blockTop + SPACING_MM.witness, x1, y1 },
      outline: {
        x0: x0 - SPACING_MM.outline,
        y0: y0 - SPACING_MM.witness,
        x1: x1 + SPACING_MM.outline,
        y1: y1 + SPACING_MM.witness,
      },
    };
  });
  const middle = top - WITNESS_ROWS * plan.rowPitchMm;
  const left = x1 - SPACING_MM.referenceRow;
  return {
    title,
    blocks,
    reference: {
      short: { x0: left, y0: middle, x1, y1: top },
      long: {
        x0: left - plan.referenceStepMm,
        y0: middle - WITNESS_ROWS * plan.rowPitchMm,
        x1: x1 + plan.referenceStepMm,
        y1: middle,
      },
    },
  };
}
