/** Where the dots and the caliper marks of a grid lie, from the middle of the field, mm. */
import { LARGE_NODES } from "../../../picture/dots/turn-by-the-l";
import type { Vector } from "../map";

/** Outermost dots lie at this share of half the field. */
const SPAN = 0.95;
/** Diameter of a dot, a share of the distance between dots, and its limits, mm. */
const DOT = { share: 0.24, most: 1, least: 0.4 } as const;
/** Dots of the L against the others. */
const LARGE = 1.5;

export type GridShape = { across: number; fieldMm: number };
/** Which lengths are read. */
export type GridLengths = { lengths: "diagonals" | "sides"; pictures: "one" | "two" | "parts" | "photo" };

/** Half a side of the square of dots, mm. */
export function reachMm({ fieldMm }: GridShape): number {
  return (SPAN * fieldMm) / 2;
}

export function pitchMm(plan: GridShape): number {
  return (2 * reachMm(plan)) / (plan.across - 1);
}

/** Diameter of a dot, mm; may be below the least that a scan shows. */
export function dotMm(plan: GridShape): number {
  return Math.min(DOT.most, Math.round(10 * DOT.share * pitchMm(plan)) / 10);
}

export const LEAST_DOT_MM = DOT.least;

export type GridDot = Vector & { column: number; row: number; diameterMm: number };

/** All dots, rows from the front, each from the left: the order in which they are answered. */
export function dotsOf(plan: GridShape): GridDot[] {
  const half = (plan.across - 1) / 2;
  const [pitch, diameter] = [pitchMm(plan), dotMm(plan)];
  const large = new Set(LARGE_NODES.map((n) => `${n.column} ${n.row}`));
  return Array.from({ length: plan.across ** 2 }, (_, i) => {
    const [column, row] = [(i % plan.across) - half, Math.floor(i / plan.across) - half];
    return {
      column,
      row,
      x: column * pitch,
      y: row * pitch,
      diameterMm: large.has(`${column} ${row}`) ? LARGE * diameter : diameter,
    };
  });
}

const LENGTH_IDS = ["length x", "length y", "diagonal 1", "diagonal 2"] as const;
/** Distances between the marks at the four corners. They determine the view of a photo. */
const CORNER_IDS = ["side front", "side back", "side left", "side right", "diagonal 1", "diagonal 2"] as const;
export type GridLengthId = (typeof LENGTH_IDS | typeof CORNER_IDS)[number];

type Ends = readonly [number, number];

/** Label, name on the coupon, and both ends in shares of half the square of dots. */
export const GRID_LENGTHS: Readonly<Record<GridLengthId, { label: string; mark: string; from: Ends; to: Ends }>> = {
  "length x": { label: "Distance along X", mark: "X", from: [-1, 0], to: [1, 0] },
  "length y": { label: "Distance along Y", mark: "Y", from: [0, -1], to: [0, 1] },
  "side front": { label: "Side along X, front", mark: "", from: [-1, -1], to: [1, -1] },
  "side back": { label: "Side along X, back", mark: "", from: [-1, 1], to: [1, 1] },
  "side left": { label: "Side along Y, left", mark: "", from: [-1, -1], to: [-1, 1] },
  "side right": { label: "Side along Y, right", mark: "", from: [1, -1], to: [1, 1] },
  "diagonal 1": { label: "Diagonal from front right to back left", mark: "D1", from: [1, -1], to: [-1, 1] },
  "diagonal 2": { label: "Diagonal from front left to back right", mark: "D2", from: [-1, -1], to: [1, 1] },
};

/** Two lengths give the scale alone; the diagonals show a skew, and check the others. */
export function gridLengthsOf({ lengths, pictures }: GridLengths): readonly GridLengthId[] {
  if (pictures === "photo") return CORNER_IDS;
  return lengths === "sides" ? ["length x", "length y"] : LENGTH_IDS;
}

/** The length that a point asks for. @throws RangeError for a point of no length */
export function gridLengthOf(site: string): GridLengthId {
  const found = [...LENGTH_IDS, ...CORNER_IDS].find((id) => id === site);
  if (!found) throw new RangeError(`“${site}” is no length of a grid`);
  return found;
}

/** Both marks of a length lie in the middle of four dots: half a step inside the outermost, and half a step beside a row. */
export function gridEndsOf(id: GridLengthId, plan: GridShape): { from: Vector; to: Vector } {
  const half = pitchMm(plan) / 2;
  const outer = reachMm(plan) - half;
  const { from, to } = GRID_LENGTHS[id];
  const at = ([u, v]: Ends): Vector => ({ x: u === 0 ? half : u * outer, y: v === 0 ? half : v * outer });
  return { from: at(from), to: at(to) };
}

export function gridNominalMm(id: GridLengthId, plan: GridShape): number {
  const { from, to } = gridEndsOf(id, plan);
  return Math.hypot(to.x - from.x, to.y - from.y);
}

/** The longest length that is read, mm. */
export function longestRead(plan: GridShape & GridLengths): number {
  return Math.max(...gridLengthsOf(plan).map((id) => gridNominalMm(id, plan)));
}
