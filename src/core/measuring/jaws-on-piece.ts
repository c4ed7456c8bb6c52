/** Where a person sets two jaws on a piece that is seen from above, and what is between them. */
import type { Feature, Site } from "../coupon/site";
import type { CouponPoint } from "../geometry/frames";

export type JawsOnPiece = {
  /** What is looked at, enlarged: one place where both jaws are near each other, else one for each. */
  views: CouponPoint[];
  /** Shown across a view, mm. */
  acrossMm: number;
  /** The way along which the jaws move, of length 1. */
  along: { x: number; y: number };
  /** Where each jaw begins: its view, and how far along from the middle of that view, mm. */
  start: readonly [Jaw, Jaw];
};

export type Jaw = { view: number; offMm: number };

/** Places nearer to each other than this are seen together, mm. */
const TOGETHER_MM = 8;
/** Shown around one end of a length, mm. */
const AROUND_END_MM = 5;
const LEAST_ACROSS_MM = 2;

/** @returns `null` where nothing on the piece is measured with jaws from one mark to another */
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

/** What is between the jaws: positive where the second lies further along. */
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

/** Each jaw begins beside its mark, so that it has to be set. */
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
