/** Where a kerf is read, and what is asked there. */

import { lengthAsk } from "../../coupon/ask";
import type { Feature, Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { AXES, type Axis } from "../../machine/machine-kind";
import { knownLengthSites } from "../../measuring/known-length";
import { cellsOf, combCorner, combWidthMm, cutSideMm, SQUARE_AT, STRIP_HEIGHT_MM } from "./layout";
import { mateShape } from "./mate-shapes";
import { mateText } from "./mate-text";
import { isMateWay, type KerfPlan } from "./plan";

export const PIECE = "kerf";
/** From the one that falls through to the one that cannot be pressed in. */
export const FITS = ["loose", "slides", "snug", "tight", "will not go"] as const;
export const SNUG = FITS.indexOf("snug");
const RADIUS_MM = 8;
const AROUND_MM = 1;
const PLAUSIBLE_SHARE = 1.1;
/** Wider cuts are asked about, mm. */
const WIDEST_CUT_MM = 1;

export type SquareSite = { id: string; of: "part" | "hole"; axis: Axis; near: "low" | "high"; face: "top" | "bottom" };

/** Each size near both ends of its sides at the top face, and once at the bottom face where that is read too. */
export function squareSites({ way, faces }: Pick<KerfPlan, "way" | "faces">): SquareSite[] {
  const objects = way === "part and hole" ? (["part", "hole"] as const) : ([way === "hole" ? "hole" : "part"] as const);
  return objects.flatMap((of) =>
    AXES.flatMap((axis) => [
      ...(["low", "high"] as const).map((near) => ({
        of,
        axis,
        near,
        face: "top" as const,
        id: `${of} ${axis} ${near}`,
      })),
      ...(faces === "both"
        ? [{ of, axis, near: "low" as const, face: "bottom" as const, id: `${of} ${axis} bottom` }]
        : []),
    ]),
  );
}

export const combSite = (axis: Axis) => `gap ${axis}`;
export const mateSite = (index: number) => `mate ${index + 1}`;

export function sitesOf(plan: KerfPlan): Site[] {
  if (isMateWay(plan.way)) return cellsOf(plan).map((cell) => mateSiteOf(plan, cell));
  const sites =
    plan.way === "comb"
      ? AXES.map((axis) => gapSite(plan, axis))
      : squareSites(plan).map((site) => sideSite(plan, site));
  return [...sites, ...knownLengthSites(plan, sites)];
}

const SIDES = { x: { low: "front", high: "back" }, y: { low: "left", high: "right" } } as const;

function sideSite(plan: KerfPlan, { id, of, axis, near, face }: SquareSite): Site {
  const side = cutSideMm(plan);
  const beside = near === "low" ? 0.15 * side : 0.85 * side;
  const end = (along: number): CouponPoint =>
    axis === "x"
      ? { x: SQUARE_AT.x + along, y: SQUARE_AT.y + side / 2 }
      : { x: SQUARE_AT.x + side / 2, y: SQUARE_AT.y + along };
  const at =
    axis === "x"
      ? { x: SQUARE_AT.x + side, y: SQUARE_AT.y + beside }
      : { x: SQUARE_AT.x + beside, y: SQUARE_AT.y + side };
  const name = axis.toUpperCase();
  const where = face === "top" ? `near its ${SIDES[axis][near]} side, on the top face` : "on the bottom face";
  return {
    id,
    label: `${of === "part" ? "Part" : "Hole"}, along ${name} ${face === "top" ? `near the ${SIDES[axis][near]}` : "at the bottom"}`,
    question: `How ${of === "part" ? "long is the part" : "wide is the hole"} along ${name}, ${where}?`,
    ask: lengthAsk({ jaws: of === "part" ? "outside" : "inside", plausibleUpTo: Math.max(1, PLAUSIBLE_SHARE * side) }),
    measurand: {
      kind: "cut size",
      of,
      from: line(end(0)),
      to: line(end(side)),
      along: axis,
      ...(face === "bottom" ? { face } : {}),
    },
    place: { piece: PIECE, at, radiusMm: RADIUS_MM },
    repeats: plan.repeats,
    openEnded: false,
  };
}

function gapSite(plan: KerfPlan, axis: Axis): Site {
  const corner = combCorner(plan, axis);
  const middle = (along: number): CouponPoint =>
    axis === "x"
      ? { x: corner.x + along, y: corner.y + STRIP_HEIGHT_MM / 2 }
      : { x: corner.x + STRIP_HEIGHT_MM / 2, y: corner.y + along };
  const cuts = Array.from({ length: plan.cuts }, (_, i) => line(middle(i * plan.stripMm)));
  const toward = axis === "x" ? "left" : "front";
  return {
    id: combSite(axis),
    label: `Comb along ${axis.toUpperCase()}, gap of ${plan.cuts} cuts`,
    question: `Push all ${plan.cuts - 1} strips to the ${toward}, tight together. How wide is the gap that is left along ${axis.toUpperCase()}?`,
    ask: lengthAsk({ jaws: "inside", plausibleUpTo: WIDEST_CUT_MM * plan.cuts }),
    measurand: { kind: "pushed gap", cuts, along: axis },
    place: { piece: PIECE, at: middle(combWidthMm(plan)), radiusMm: RADIUS_MM },
    repeats: plan.repeats,
    openEnded: false,
  };
}

function mateSiteOf(plan: KerfPlan, cell: ReturnType<typeof cellsOf>[number]): Site {
  const shape = mateShape(plan, cell);
  const value = mateText(plan, cell.offsetMm);
  const thicknessMm = plan.from?.thickness?.meanMm ?? plan.from?.nominalMm ?? plan.jointMm;
  return {
    id: mateSite(cell.index),
    label: `Mate ${cell.index + 1}, ${value}`,
    question: `${QUESTIONS[plan.way as keyof typeof QUESTIONS](value)} How does it go in?`,
    ask: { kind: "ordinal", categories: [...FITS] },
    measurand: {
      kind: "clearance",
      mate: value,
      touching: shape.touching.map(({ inner, outer }) => ({ inner: inner ?? { thicknessMm }, outer })),
    },
    place: { piece: PIECE, at: shape.middle, radiusMm: Math.max(RADIUS_MM, plan.jointMm) },
    repeats: plan.repeats,
    openEnded: false,
  };
}

const QUESTIONS = {
  "tongue and slot": (value: string) => `Put the tongue ${value} into the slot ${value}.`,
  "plug and ring": (value: string) => `Put the plug ${value} into the ring ${value}.`,
  "sheet slot": (value: string) => `Push an edge of the sheet, uncut, into the slot ${value}.`,
};

function line({ x, y }: CouponPoint): Feature {
  return { kind: "line", within: { x0: x - AROUND_MM, y0: y - AROUND_MM, x1: x + AROUND_MM, y1: y + AROUND_MM } };
}
