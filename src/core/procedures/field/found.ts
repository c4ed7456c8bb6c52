/** A field as a burn shows it, whichever way it was measured. Points are from the middle of the field, mm. */
import type { Row } from "../../estimate/model";
import type { Budgeted } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { type MapTerm, type Vector, worstPoint } from "./map";

export type FieldFound = {
  /** Where a mark lies that is drawn here. */
  to: (drawn: Vector) => Vector;
  /** Where a mark has to be drawn to lie here; `null` where the map cannot be undone. */
  from: (lies: Vector) => Vector | null;
  /** Terms in which errors are worked out. */
  terms: readonly MapTerm[];
  /** The uncertainty of a sum of errors, mm at the corner by term. */
  combined: (row: Row) => Budgeted;
  /** A sum of errors of points, each along a direction that is as long as it counts. */
  errorOver: (parts: readonly { at: Vector; along: Vector }[]) => Budgeted;
  /** Half a side of the square in which it is measured, mm. */
  reachMm: number;
};

/** The error of a point, with its uncertainty along the way in which it is off. */
function errorAt({ to, errorOver }: FieldFound, at: Vector): Budgeted {
  const there = to(at);
  const [dx, dy] = [there.x - at.x, there.y - at.y];
  const mm = Math.hypot(dx, dy);
  return errorOver([{ at, along: mm > 0 ? { x: dx / mm, y: dy / mm } : { x: 1, y: 0 } }]);
}

const AXES: readonly Vector[] = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
];

/** 95 % at a point, mm: along X or along Y, whichever is larger. The way in which it is off may be the one that is known best. */
export function uncertaintyAt({ errorOver }: FieldFound, at: Vector): number {
  return Math.max(...AXES.map((along) => expandedUncertainty(errorOver([{ at, along }]).quantity)));
}

export const FARTHEST = "Farthest point of the field";

/** The error of the farthest point. */
export function worstOf(found: FieldFound): Budgeted {
  return errorAt(found, worstPoint(found.to, found.reachMm).at);
}

/** Errors over the field as one number: the root of their mean square, over points in shares of the reach. */
export function rmsOf({ to, errorOver, reachMm }: FieldFound, shares: readonly Vector[]): Budgeted {
  const points = shares.map((s) => ({ x: s.x * reachMm, y: s.y * reachMm }));
  const errors = points.map((at) => {
    const there = to(at);
    return { at, x: there.x - at.x, y: there.y - at.y };
  });
  const rms = Math.sqrt(errors.reduce((sum, e) => sum + e.x ** 2 + e.y ** 2, 0) / errors.length);
  const weight = 1 / (errors.length * Math.max(rms, 1e-9));
  return errorOver(errors.map(({ at, x, y }) => ({ at, along: { x: weight * x, y: weight * y } })));
}
