/** Where the cells of an array lie on the stock, with their labels and the dots by which a reader finds them. */
import type { CouponPoint } from "../../geometry/frames";
import type { Rect } from "../../geometry/rect";
import { type ArrayCell, type Edges, edgesOf } from "./cells";
import { NO_BLOCKS, type TestArrayPlan } from "./plan";

/** mm. Dots lie outside the cells, labels outside the dots. */
export const LAYOUT_MM = {
  edge: 4,
  letters: 2,
  /** Room for values on the left. */
  left: 13,
  /** Room for values in front. */
  front: 5,
  head: 5,
  dot: 1.2,
  dotGap: 2.5,
  betweenBlocks: 8,
} as const;

type Sizes = { pitch: number; blockWidth: number; width: number; height: number; at: CouponPoint };

function sizesOf(plan: TestArrayPlan, { across, up, blocks }: Edges): Sizes {
  const pitch = plan.cellMm + plan.gapMm;
  const blockWidth = across.length * pitch - plan.gapMm;
  const around = 2 * LAYOUT_MM.dotGap;
  return {
    pitch,
    blockWidth,
    width: blocks.length * (blockWidth + LAYOUT_MM.betweenBlocks) - LAYOUT_MM.betweenBlocks,
    height: up.length * pitch - plan.gapMm,
    at: {
      x: LAYOUT_MM.edge + LAYOUT_MM.left + around,
      y: LAYOUT_MM.edge + LAYOUT_MM.front + around,
    },
  };
}

/** Stock that the array needs with its labels, mm. */
export function needOf(plan: TestArrayPlan): { widthMm: number; heightMm: number } {
  const { width, height, at } = sizesOf(plan, edgesOf(plan));
  const after = 2 * LAYOUT_MM.dotGap + LAYOUT_MM.edge;
  const blockLabels = plan.blocks === NO_BLOCKS ? 0 : LAYOUT_MM.front;
  return { widthMm: at.x + width + after, heightMm: at.y + height + after + blockLabels + LAYOUT_MM.head };
}

export function areaOf(plan: TestArrayPlan, place: ArrayCell["place"]): Rect {
  const { pitch, blockWidth, at } = sizesOf(plan, edgesOf(plan));
  const x0 = at.x + place.block * (blockWidth + LAYOUT_MM.betweenBlocks) + place.column * pitch;
  const y0 = at.y + place.row * pitch;
  return { x0, y0, x1: x0 + plan.cellMm, y1: y0 + plan.cellMm };
}

/** The four corners, from the front left counter-clockwise, then one more beside the front left: it tells which corner is which. */
export function dotsOf(plan: TestArrayPlan): CouponPoint[] {
  const { width, height, at } = sizesOf(plan, edgesOf(plan));
  const [x0, y0] = [at.x - LAYOUT_MM.dotGap, at.y - LAYOUT_MM.dotGap];
  const [x1, y1] = [at.x + width + LAYOUT_MM.dotGap, at.y + height + LAYOUT_MM.dotGap];
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
    { x: x0 + (x1 - x0) / 4, y: y0 },
  ];
}

export type LabelPlace = { text: string; at: CouponPoint; anchor: "middle" | "end" };

/** The values along the edges and above the blocks, or letters and numbers of the places where these are mixed. */
export function labelsOf(plan: TestArrayPlan): LabelPlace[] {
  const edges = edgesOf(plan);
  const { pitch, blockWidth, height, at } = sizesOf(plan, edges);
  const mixed = plan.order === "mixed";
  const half = plan.cellMm / 2;
  const below = at.y - 2 * LAYOUT_MM.dotGap - LAYOUT_MM.letters;
  const left = at.x - 2 * LAYOUT_MM.dotGap;
  const above = at.y + height + 2 * LAYOUT_MM.dotGap;
  return [
    ...(plan.blocks === NO_BLOCKS ? [] : edges.blocks).map((value, b) => ({
      text: mixed ? String(b + 1) : short(value),
      at: { x: at.x + b * (blockWidth + LAYOUT_MM.betweenBlocks) + blockWidth / 2, y: above },
      anchor: "middle" as const,
    })),
    ...edges.blocks.flatMap((_, b) =>
      edges.across.map((value, c) => ({
        text: mixed ? String(c + 1) : short(value),
        at: { x: at.x + b * (blockWidth + LAYOUT_MM.betweenBlocks) + c * pitch + half, y: below },
        anchor: "middle" as const,
      })),
    ),
    ...edges.up.map((value, r) => ({
      text: mixed ? letterOf(r) : short(value),
      at: { x: left, y: at.y + r * pitch + half - LAYOUT_MM.letters / 2 },
      anchor: "end" as const,
    })),
  ];
}

/** A, B, ... Z, AA. */
export function letterOf(row: number): string {
  const letter = String.fromCharCode("A".charCodeAt(0) + (row % 26));
  return row < 26 ? letter : `A${letter}`;
}

/** `B4`: where a cell lies. */
export function placeText({ place }: Pick<ArrayCell, "place">, blocks: number): string {
  const within = `${letterOf(place.row)}${place.column + 1}`;
  return blocks > 1 ? `${place.block + 1}-${within}` : within;
}

function short(value: number): string {
  return String(Math.round(value * 1000) / 1000).replace("-", "−");
}
