/** Two jaws that a person sets on the picture of a coupon, and the distance between them. */
import type { Feature, Site } from "../coupon/site";
import type { CouponPoint } from "../geometry/frames";

export type JawsOnPiece = {
  /** Middle of each enlarged view: one view if both marks are near each other, else one view per jaw. */
  views: CouponPoint[];
  /** Width of a view, mm. */
  acrossMm: number;
  /** Direction in which the jaws move, length 1. */
  along: { x: number; y: number };
  /** First positions of the jaws. */
  start: readonly [Jaw, Jaw];
};

/** `offMm`: distance from the middle of its view, in the direction in which it moves. */
export type Jaw = { view: number; offMm: number };

/** Marks nearer to each other than this share a view, mm. */
const TOGETHER_MM = 8;
/** Width of the view of one end, mm. */
const AROUND_END_MM = 5;
const LEAST_ACROSS_MM = 2;

/** @returns `null` if this is not measured with jaws from one mark to another */
export function jawsOnPiece({ measurand, place }: Pick<Site, "measurand" | "place">): JawsOnPiece | null {
  switch (measurand.kind) {
    case "distance":
    case "span": {
      const [from, to] = [pointOf(measurand.from), pointOf(measurand.to)];
      if (!from || !to) return place && measurand.kind === "distance" ? oneView(place, axis(measurand.along)) : null;
      const along = measurand.kind === "distance" ? axis(measurand.along) : unit(from, to);
      return Math.hypot(to.x - from.x, to.y - from.y) < TOGETHER_MM
        ? oneView({ at: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, radiusMm: TOGETHER_MM / 2 }, along)
        : twoViews(from, to, along);
    }
    case "row gap":
      return place && oneView(place, axis("x"));
    case "width":
      return place && measurand.of.kind === "line"
        ? oneView(place, axis(measurand.of.along === "y" ? "x" : "y"))
        : null;
    default:
      return null;
  }
}

/** Distance from the first jaw to the second, mm; positive in the direction in which they move. */
export function betweenJaws({ views, along }: JawsOnPiece, [first, second]: readonly [Jaw, Jaw]): number {
  const at = ({ view, offMm }: Jaw) => {
    const middle = views[view] ?? { x: 0, y: 0 };
    return middle.x * along.x + middle.y * along.y + offMm;
  };
  return at(second) - at(first);
}

function oneView({ at, radiusMm }: { at: CouponPoint; radiusMm: number }, along: JawsOnPiece["along"]): JawsOnPiece {
  const acrossMm = Math.max(LEAST_ACROSS_MM, Math.min(2 * radiusMm, TOGETHER_MM));
  return {
    views: [at],
    acrossMm,
    along,
    start: [
      { view: 0, offMm: -acrossMm / 4 },
      { view: 0, offMm: acrossMm / 4 },
    ],
  };
}

/** Each jaw starts beside its mark, so that the person has to set it. */
function twoViews(from: CouponPoint, to: CouponPoint, along: JawsOnPiece["along"]): JawsOnPiece {
  return {
    views: [from, to],
    acrossMm: AROUND_END_MM,
    along,
    start: [
      { view: 0, offMm: -AROUND_END_MM / 4 },
      { view: 1, offMm: AROUND_END_MM / 4 },
    ],
  };
}

function pointOf(feature: Feature): CouponPoint | null {
  switch (feature.kind) {
    case "spot":
    case "cross":
      return feature.near;
    case "line": {
      const { x0, x1, y0, y1 } = feature.within;
      return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
    }
    case "row ends":
      return null;
  }
}

function axis(along: "x" | "y"): JawsOnPiece["along"] {
  return along === "x" ? { x: 1, y: 0 } : { x: 0, y: 1 };
}

function unit(from: CouponPoint, to: CouponPoint): JawsOnPiece["along"] {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return length > 0 ? { x: (to.x - from.x) / length, y: (to.y - from.y) / length } : axis("x");
}
