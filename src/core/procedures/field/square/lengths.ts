/** The lengths that are read of a field: sides at both ends and in the middle, diagonals, and halves or quarters of the mid-lines. */

import type { Vector } from "../map";
import type { FieldPlan } from "../plan";

const SQUARE = ["x front", "x middle", "x back", "y left", "y middle", "y right", "diagonal 1", "diagonal 2"] as const;
const HALVES = ["x half", "y half"] as const;
const QUARTERS = ["x quarter", "y quarter"] as const;
export type LengthId = (typeof SQUARE | typeof HALVES | typeof QUARTERS)[number];

/** The length that a point asks for. @throws RangeError for a point of no length */
export function lengthOf(site: string): LengthId {
  const found = [...SQUARE, ...HALVES, ...QUARTERS].find((id) => id === site);
  if (!found) throw new RangeError(`“${site}” is no length of a field`);
  return found;
}

type Ends = readonly [number, number];

/** Label, name on the coupon, and both ends in shares of half a side. */
export const LENGTHS: Readonly<Record<LengthId, { label: string; mark: string; from: Ends; to: Ends }>> = {
  "x front": { label: "Side along X, front", mark: "X1", from: [-1, -1], to: [1, -1] },
  "x middle": { label: "Mid-line along X", mark: "X2", from: [-1, 0], to: [1, 0] },
  "x back": { label: "Side along X, back", mark: "X3", from: [-1, 1], to: [1, 1] },
  "y left": { label: "Side along Y, left", mark: "Y1", from: [-1, -1], to: [-1, 1] },
  "y middle": { label: "Mid-line along Y", mark: "Y2", from: [0, -1], to: [0, 1] },
  "y right": { label: "Side along Y, right", mark: "Y3", from: [1, -1], to: [1, 1] },
  "diagonal 1": { label: "Diagonal from front right to back left", mark: "D1", from: [1, -1], to: [-1, 1] },
  "diagonal 2": { label: "Diagonal from front left to back right", mark: "D2", from: [-1, -1], to: [1, 1] },
  "x half": { label: "Half mid-line from the centre to the right", mark: "X4", from: [0, 0], to: [1, 0] },
  "y half": { label: "Half mid-line from the centre to the back", mark: "Y4", from: [0, 0], to: [0, 1] },
  "x quarter": { label: "Distance between the quarter ticks along X", mark: "X4", from: [-0.5, 0], to: [0.5, 0] },
  "y quarter": { label: "Distance between the quarter ticks along Y", mark: "Y4", from: [0, -0.5], to: [0, 0.5] },
};

/** Quarter ticks show own cubics; where no setting takes them, they make the worst point worse, and halves check a tilt instead. */
export function lengthsOf({ way }: Pick<FieldPlan, "way">): LengthId[] {
  return [...SQUARE, ...(way === "nine" ? QUARTERS : HALVES)];
}

export type Sides = Pick<FieldPlan, "sideXMm" | "sideYMm">;

/** Both ends as drawn, from the middle of the field, mm. */
export function endsOf(id: LengthId, { sideXMm, sideYMm }: Sides): { from: Vector; to: Vector } {
  const { from, to } = LENGTHS[id];
  const at = ([u, v]: Ends) => ({ x: (u * sideXMm) / 2, y: (v * sideYMm) / 2 });
  return { from: at(from), to: at(to) };
}

export function nominalMm(id: LengthId, sides: Sides): number {
  const { from, to } = endsOf(id, sides);
  return Math.hypot(to.x - from.x, to.y - from.y);
}
