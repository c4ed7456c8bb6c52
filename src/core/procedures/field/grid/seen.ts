/**
 * The dots as the scans show them, laid on the drawing.
 *
 *   P = S R(theta) q + t        q on the stock, S the scanner: its own scale in X and in Y, and a skew
 *   Q = R(-theta) P + t' = (I + E) q,   E = R(-theta) (S - I) R(theta)
 *
 * The pose is a turn and a shift alone: one of more parameters would swallow shear, scale and keystone of the field. With the stock turned
 * by theta the scanner's deviations e (X longer than Y) and g (skew) are seen as  e cos 2 theta + g sin 2 theta  and
 * g cos 2 theta - e sin 2 theta: at 90 degrees with the opposite sign, so that the mean of two scans is nearly free of them.
 */
import { fitPlaneMap, MOST_DEGREE, mapPoint, type PlanePoint } from "../../../fitting/plane-map";
import { projected, projectiveThrough } from "../../../fitting/projective";
import { laidBy, type RigidPose, rigidPose } from "../../../fitting/rigid-pose";
import type { Answer } from "../../../trial/answer";
import { scansOf } from "./coupon";
import { dotsOf, gridEndsOf } from "./lengths";
import type { GridPlan } from "./plan";

/** Fewer dots of a scan, as a share, are no grid. */
const LEAST_SEEN = 0.5;
/** Of a side of it. */
const LEAST_SIDE = 0.3;
/** Of a part of the grid, and dots that two parts must share. */
const [LEAST_PART, LEAST_SHARED] = [0.2, 12];
/** Usual bend of lines by a scanner, standard deviation along each axis, mm. (common practice, no source) */
const WAVES_MM = 0.0035;
/** No two scans agree better, mm. (common practice, no source) */
const LEAST_WAVES_MM = 5e-4;
/** Terms of a map that a half difference is smoothed with: so many degrees of freedom its mean square is worth. */
const WAVES_FREEDOM = 20;

export type Scan = {
  site: string;
  /** Of the stock on the glass against the drawing, counter-clockwise as seen on the stock, rad. */
  turnRad: number;
  pose: RigidPose;
  /** By index of the dot; `null` where it was not seen. */
  dots: (PlanePoint | null)[];
};

/** A second scan against the first: by how much it is longer, longer along X than Y, and skewed, as shares; and how well that is known. */
export type ScanDifference = { first: Scan; second: Scan; scale: number; ratio: number; skew: number; u: number };

export type GridSeen = {
  scans: Scan[];
  /** Mean of the scans, laid on the drawing. */
  dots: { from: PlanePoint; to: PlanePoint }[];
  differences: ScanDifference[];
  /** Bend of lines by the scanner, standard uncertainty along each axis, mm: from two scans, or the usual value. */
  waves: { u: number; freedom: number; isSeen: boolean };
};

/** Whether two scans have nearly the same turn. Their difference then shows nothing of the scanner. */
export function isSameWay({ first, second }: ScanDifference): boolean {
  return (
    Math.hypot(
      Math.cos(2 * second.turnRad) - Math.cos(2 * first.turnRad),
      Math.sin(2 * second.turnRad) - Math.sin(2 * first.turnRad),
    ) < SAME_WAY
  );
}

/** A quarter turn is 2. */
const SAME_WAY = 1;

/** Usual bend of lines by the lens of a camera, standard deviation along each axis, a share of half the field. (common practice, no source) */
const CAMERA_SHARE = 0.001;

/** Mean over the scans of cos and of sin of twice the turn: as much of e and g is left in the mean. */
export function leftOfScanner(scans: readonly Pick<Scan, "turnRad">[]): { cos: number; sin: number } {
  const mean = (of: (turn: number) => number) => scans.reduce((sum, s) => sum + of(s.turnRad), 0) / scans.length;
  return { cos: mean((t) => Math.cos(2 * t)), sin: mean((t) => Math.sin(2 * t)) };
}

/** @returns `null` while a scan that the plan asks for is not read */
export function gridSeen(plan: GridPlan, answers: readonly Answer[]): GridSeen | null {
  const nominal = dotsOf(plan);
  const read: Scan[] = [];
  for (const site of scansOf(plan)) {
    const scan = scanAt(site, answers, nominal, plan.pictures === "parts" ? LEAST_PART : LEAST_SEEN);
    if (!scan) return null;
    read.push(scan);
  }
  const scans = plan.pictures === "parts" ? joinedParts(read, nominal) : read;
  if (!scans?.every((s) => reachesAllSides(s.dots, plan.across))) return null;
  if (plan.pictures === "photo") return seenInPhoto(plan, scans[0], nominal);
  const dots = nominal.flatMap(({ x, y }, i) => {
    const seen = scans.flatMap((s) => s.dots[i] ?? []);
    // A dot that one of the scans does not show would have the errors of the other alone.
    if (seen.length < scans.length) return [];
    const sum = seen.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }));
    return [{ from: { x, y }, to: { x: sum.x / seen.length, y: sum.y / seen.length } }];
  });
  const [first, ...others] = scans;
  const compared = first ? others.map((second) => compare(first, second, nominal, plan.fieldMm / 2)) : [];
  // Errors that are fixed to the glass are visible only if the stock was turned.
  const waves = compared.flatMap((c) => (c && !isSameWay(c.difference) ? [c.wavesMm] : []));
  return {
    scans,
    dots,
    differences: compared.flatMap((c) => (c ? [c.difference] : [])),
    waves:
      waves.length > 0
        ? {
            u: Math.max(LEAST_WAVES_MM, Math.sqrt(waves.reduce((sum, w) => sum + w * w, 0) / waves.length)),
            freedom: WAVES_FREEDOM,
            isSeen: true,
          }
        : { u: WAVES_MM, freedom: Infinity, isSeen: false },
  };
}

/** A photo, laid on the drawing by its corners as if they were where they are drawn: distances then put that right. */
function seenInPhoto(plan: GridPlan, photo: Scan | undefined, nominal: readonly PlanePoint[]): GridSeen | null {
  const half = plan.fieldMm / 2;
  const raw = nominal.flatMap((from, i) => {
    const to = photo?.dots[i];
    return to ? [{ from, to }] : [];
  });
  const smooth = fitPlaneMap(raw, MOST_DEGREE, half);
  const corners = cornersOf(plan);
  const view = smooth && projectiveThrough(corners.map((to) => ({ from: mapPoint(smooth.map, to), to })));
  if (!photo || !view) return null;
  const dots = raw.map(({ from, to }) => ({ from, to: projected(view, to) }));
  return {
    scans: [{ ...photo, turnRad: 0 }],
    dots,
    differences: [],
    waves: { u: CAMERA_SHARE * half, freedom: Infinity, isSeen: false },
  };
}

/** The marks at the four corners as they are drawn. */
function cornersOf(plan: GridPlan): PlanePoint[] {
  const { from, to } = gridEndsOf("diagonal 1", plan);
  const { from: low, to: high } = gridEndsOf("diagonal 2", plan);
  return [from, to, low, high];
}

/** Without dots along a side the map would be extrapolated there. */
function reachesAllSides(dots: readonly (PlanePoint | null)[], across: number): boolean {
  const last = across - 1;
  const sides = [
    (i: number) => i,
    (i: number) => last * across + i,
    (i: number) => i * across,
    (i: number) => i * across + last,
  ];
  return sides.every((index) => {
    const seen = Array.from({ length: across }, (_, i) => dots[index(i)]).filter((d) => d);
    return seen.length >= LEAST_SIDE * across;
  });
}

/** The newest answer counts: a picture that is read again replaces the one before. */
function scanAt(site: string, answers: readonly Answer[], nominal: readonly PlanePoint[], least: number): Scan | null {
  const content = answers.findLast((a) => a.site === site && a.content.status === "read")?.content;
  if (content?.status !== "read" || content.value.kind !== "points") return null;
  const { points } = content.value;
  const pairs = nominal.flatMap((to, i) => {
    const from = points[i];
    return from ? [{ from, to }] : [];
  });
  const pose = rigidPose(pairs);
  if (!pose || pairs.length < least * nominal.length) return null;
  const dots = nominal.map((_, i) => {
    const point = points[i];
    return point ? laidBy(pose, point) : null;
  });
  return { site, turnRad: -pose.turnRad, pose, dots };
}

/**
 * Overlapping scans as one: each is laid by turn and shift on those before, by the dots that both show.
 *
 * @returns `null` where too few dots are shared, or half of the grid is in none
 */
function joinedParts(parts: readonly Scan[], nominal: readonly PlanePoint[]): Scan[] | null {
  const [first, ...others] = parts;
  if (!first) return null;
  const sums = first.dots.map((d) => (d ? { ...d, count: 1 } : null));
  for (const part of others) {
    const pairs = part.dots.flatMap((from, i) => {
      const sum = sums[i];
      return from && sum ? [{ from, to: { x: sum.x / sum.count, y: sum.y / sum.count } }] : [];
    });
    const pose = rigidPose(pairs);
    if (!pose || pairs.length < LEAST_SHARED) return null;
    part.dots.forEach((dot, i) => {
      if (!dot) return;
      const at = laidBy(pose, dot);
      const sum = sums[i];
      sums[i] = sum ? { x: sum.x + at.x, y: sum.y + at.y, count: sum.count + 1 } : { ...at, count: 1 };
    });
  }
  const dots = sums.map((s) => (s ? { x: s.x / s.count, y: s.y / s.count } : null));
  const pairs = nominal.flatMap((to, i) => {
    const from = dots[i];
    return from ? [{ from, to }] : [];
  });
  const pose = rigidPose(pairs);
  if (!pose || pairs.length < LEAST_SEEN * nominal.length) return null;
  return [{ ...first, dots: dots.map((d) => (d ? laidBy(pose, d) : null)) }];
}

/** The smooth part of the difference of two scans. Its strain shows scale errors of the scanner, the rest shows bent lines. */
function compare(
  first: Scan,
  second: Scan,
  nominal: readonly PlanePoint[],
  half: number,
): { difference: ScanDifference; wavesMm: number } | null {
  const pairs = nominal.flatMap((from, i) => {
    const [a, b] = [first.dots[i], second.dots[i]];
    return a && b ? [{ from, to: { x: b.x - a.x, y: b.y - a.y } }] : [];
  });
  const straight = fitPlaneMap(pairs, 1, half);
  const smooth = fitPlaneMap(
    straight ? straight.residuals.map((to, i) => ({ from: (pairs[i] as (typeof pairs)[number]).from, to })) : [],
    MOST_DEGREE,
    half,
  );
  if (!straight || !smooth) return null;
  // Coefficients of u and v: mm over half the field.
  const [[, xx = 0, xy = 0], [, yx = 0, yy = 0]] = [straight.map.x, straight.map.y];
  const bent =
    (straight.residuals.reduce((sum, e, i) => {
      const left = smooth.residuals[i] ?? e;
      return sum + (e.x - left.x) ** 2 + (e.y - left.y) ** 2;
    }, 0) /
      (2 * pairs.length)) **
    0.5;
  return {
    difference: {
      first,
      second,
      scale: (xx + yy) / (2 * half),
      ratio: (xx - yy) / (2 * half),
      skew: (xy + yx) / (2 * half),
      // Bent lines are also longer, by about as much.
      u: Math.max(bent, 1e-4) / half,
    },
    wavesMm: bent / 2,
  };
}
