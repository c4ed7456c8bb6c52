/** Distances between single marks of a practice piece. A mark is known by where it was sent, however far off it came to lie. */
import type { Feature, Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { Mark } from "./gantry";
import type { Seen } from "./seen";

/** A mark this far from where it is looked for is another one, mm. */
const NEAR_MM = 3;

type Place = { x: number; y: number; widthMm: number };
type SentMark = Mark & { sent: { x: number; y: number } };

/** @param placement where the corner of the stock was said to lie */
export function distanceSeen(measurand: Measurand, marks: readonly Mark[], placement: Placement): Seen {
  const sent = marks.filter((m): m is SentMark => m.sent !== undefined);
  const at = (feature: Feature) => placeOf(feature, sent, placement);
  switch (measurand.kind) {
    case "distance":
      return between(at(measurand.from), at(measurand.to), (a, b) => b[measurand.along] - a[measurand.along]);
    case "span":
      return between(at(measurand.from), at(measurand.to), (a, b) => Math.hypot(b.x - a.x, b.y - a.y));
    case "cut size": {
      const sign = measurand.of === "part" ? -1 : 1;
      return between(
        at(measurand.from),
        at(measurand.to),
        (a, b) => b[measurand.along] - a[measurand.along] + (sign * (a.widthMm + b.widthMm)) / 2,
      );
    }
    case "fence distance": {
      const found = lineNearest(measurand.near, sent);
      return found ? always(fromFence(measurand.side, measurand.near, found, placement)) : NOTHING;
    }
    case "pushed gap":
      return pushedGap(measurand.cuts.map(at), measurand.along);
    case "readout": {
      const found = nearestTo(measurand.of, sent, placement);
      return found ? always(found.sent[measurand.along]) : NOTHING;
    }
    default:
      return { ok: false, why: "The practice machine cannot show this." };
  }
}

/** Of lines that are found by the drawing: the piece that lies nearest to a place. */
function lineNearest(near: { x: number; y: number }, marks: readonly SentMark[]): SentMark | null {
  const far = ({ drawn }: SentMark) => (drawn ? Math.hypot(drawn.x - near.x, drawn.y - near.y) : Infinity);
  const best = marks.reduce<SentMark | null>((best, m) => (best && far(best) <= far(m) ? best : m), null);
  return best && far(best) < NEAR_MM ? best : null;
}

/** From a straight edge at a side of the stock to a line along it, at a place that is marked along the edge. */
function fromFence(
  side: Extract<Measurand, { kind: "fence distance" }>["side"],
  near: { x: number; y: number },
  line: Mark,
  { xMm, yMm }: Placement,
): number {
  const [x, y] = [near.x + xMm, near.y + yMm];
  const isLevel = side === "front";
  const share = isLevel ? (x - line.x0) / (line.x1 - line.x0) : (y - line.y0) / (line.y1 - line.y0);
  const at = isLevel ? line.y0 + share * (line.y1 - line.y0) : line.x0 + share * (line.x1 - line.x0);
  return Math.abs(at - (isLevel ? yMm : xMm));
}

/** The window less the strips that lie in it: the strips are what is left between one cut and the next. */
function pushedGap(cuts: readonly (Place | null)[], along: "x" | "y"): Seen {
  const there = cuts.filter((c) => c !== null);
  const [first, last] = [there[0], there.at(-1)];
  if (!first || !last || there.length < cuts.length) return NOTHING;
  const window = last[along] - first[along] + (first.widthMm + last.widthMm) / 2;
  const strips = there.slice(1).reduce((sum, c, i) => {
    const before = there[i] as Place;
    return sum + c[along] - before[along] - (c.widthMm + before.widthMm) / 2;
  }, 0);
  return always(window - strips);
}

/** The marks of a feature, by where they were sent. */
export function marksOf(feature: Feature, marks: readonly Mark[], placement: Placement): Mark[] {
  const sent = marks.filter((m): m is SentMark => m.sent !== undefined);
  return feature.kind === "line" ? sent.filter(within(feature, placement)) : [];
}

const NOTHING: Seen = { ok: false, why: "There are no such marks on the practice piece." };

function always(value: number): Seen {
  return { ok: true, look: () => value, mean: value };
}

function between(a: Place | null, b: Place | null, size: (a: Place, b: Place) => number): Seen {
  return a && b ? always(size(a, b)) : NOTHING;
}

function placeOf(feature: Feature, marks: readonly SentMark[], placement: Placement): Place | null {
  if (feature.kind === "cross") return crossNear(feature.near, marks, placement);
  const found = feature.kind === "line" ? marks.find(within(feature, placement)) : nearestTo(feature, marks, placement);
  return found ? { ...middleOf(found), widthMm: found.widthMm } : null;
}

function within({ within: { x0, y0, x1, y1 } }: Extract<Feature, { kind: "line" }>, placement: Placement) {
  return ({ sent }: SentMark) => {
    const [x, y] = [sent.x - placement.xMm, sent.y - placement.yMm];
    return x > x0 && x < x1 && y > y0 && y < y1;
  };
}

function middleOf({ x0, y0, x1, y1 }: Mark) {
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
}

/** Of single pulses: the one that was sent nearest, within what a hand may be off. */
function nearestTo(feature: Feature, marks: readonly SentMark[], placement: Placement): SentMark | undefined {
  if (feature.kind !== "spot") return undefined;
  const far = ({ sent }: SentMark) =>
    Math.hypot(sent.x - placement.xMm - feature.near.x, sent.y - placement.yMm - feature.near.y);
  const pulses = marks.filter((m) => m.x0 === m.x1 && m.y0 === m.y1);
  return pulses.sort((a, b) => far(a) - far(b))[0];
}

/** Where the two lines that were sent past a place cross, however far they come to lie from it. */
function crossNear(near: { x: number; y: number }, marks: readonly SentMark[], placement: Placement): Place | null {
  const passes = (mark: SentMark) => {
    const [x, y] = [near.x + placement.xMm, near.y + placement.yMm];
    const isUp = Math.abs(mark.y1 - mark.y0) > Math.abs(mark.x1 - mark.x0);
    const [across, along, half] = isUp
      ? [mark.sent.x - x, mark.sent.y - y, Math.abs(mark.y1 - mark.y0) / 2]
      : [mark.sent.y - y, mark.sent.x - x, Math.abs(mark.x1 - mark.x0) / 2];
    return { isUp, isNear: Math.abs(across) < NEAR_MM && Math.abs(along) < half + NEAR_MM };
  };
  // A line that is marked in pieces: the one that was sent nearest.
  const far = ({ sent }: SentMark) => Math.hypot(sent.x - near.x - placement.xMm, sent.y - near.y - placement.yMm);
  const nearest = (isUp: boolean) =>
    marks
      .filter((m) => passes(m).isUp === isUp && passes(m).isNear)
      .reduce<SentMark | null>((best, m) => (best && far(best) <= far(m) ? best : m), null);
  const [up, level] = [nearest(true), nearest(false)];
  if (!up || !level) return null;
  const [ux, uy] = [up.x1 - up.x0, up.y1 - up.y0];
  const [lx, ly] = [level.x1 - level.x0, level.y1 - level.y0];
  const turned = ux * ly - uy * lx;
  if (turned === 0) return null;
  const along = ((level.x0 - up.x0) * ly - (level.y0 - up.y0) * lx) / turned;
  return { x: up.x0 + along * ux, y: up.y0 + along * uy, widthMm: up.widthMm };
}
