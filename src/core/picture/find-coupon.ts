/**
 * Where a coupon lies in a picture: turned any way up, by some degrees more, perhaps mirrored.
 *
 * First from afar, by how well the drawn lines cover what is dark, for each quarter turn and its mirror image; then nearer, by
 * hill climbing over place and turn on a finer map. Other places within some mm where the drawing covers nearly as much are tried too.
 * Lines that only one of two places draws decide between them.
 */
import { type Affine, composed, mapped } from "../geometry/affine";
import { boundsOf, type Rect } from "../geometry/rect";
import { type DarknessMap, darknessMap, type ShrunkPicture, shrunk } from "./darkness-map";
import { FarSearch } from "./far-search";
import type { GreyPicture } from "./grey-picture";
import { blankMinusMarks } from "./mark-polarity";
import type { NominalLine } from "./nominal-lines";
import type { PictureScale } from "./picture-scale";
import { sharpestTurn, turnOf } from "./picture-turn";
import { pixelMm } from "./picture-window";
import { type DrawnSample, evidenceFor, laidOn } from "./placement-evidence";

export type FoundCoupon = {
  /** From coupon (mm, Y up) to picture (pixels, Y down; pixel centres at halves). */
  pose: Affine;
  mirrored: boolean;
  /** Correlation of drawing and picture from afar, -1 to 1. */
  score: number;
  /** Share of the drawn lines that lie inside the picture. */
  inside: number;
  /** Share of those inside that belong to groups which are dark nearly all along: a group marks as a whole, or not at all. */
  covered: number;
  /** Share of what is dark on the stock that lies on drawn lines. */
  explained: number;
  /**
   * Evidence for this place against the next best one, from lines that only one of them draws. 1 = no line of the other place is dark,
   * Infinity = no other place is nearly as good, `null` = too few lines differ.
   */
  clear: number | null;
};

/** Squares of the picture: for the direction of lines, near to, between, from afar, mm. */
const [FINE_MM, NEAR_MM, MIDDLE_MM, FAR_MM] = [0.12, 0.24, 0.5, 2];
const [SAMPLE_FAR_MM, SAMPLE_NEAR_MM] = [0.5, 0.24];
/** Darker than this share of the darkest tenth of the lines counts as marked. */
const DARK_SHARE = 0.35;
/** A group is marked where so much of it is dark. */
const WHOLE_GROUP = 0.6;
/** Marks lie on their lines to this, in squares seen near to. */
const NEAR_CELLS = 2;

/** Such a share of it may hang out of the picture, each way: of a coupon that is all there, of half a one, of a part. */
export const [WHOLE_OUT, HALF_OUT] = [0.1, 0.5];
const PART_OUT = 0.05;

type FarPlace = { pose: Affine; score: number; mirrored: boolean };

/** How a part of a coupon is looked for: by squares that are smaller by `grain`, as it is drawn, not on its side nor mirrored. */
export type PartSearch = {
  grain: number;
  /** What is not drawn of this window is blank: where marks end is known by that, mm. */
  window: Rect;
};

/** Looks for one coupon in one picture: what is worked out for one scale serves for others. */
export class CouponSearch {
  private readonly fine: ShrunkPicture;
  private readonly turn: number;
  private readonly grain: number;

  constructor(
    picture: GreyPicture,
    private readonly lines: readonly NominalLine[],
    scale: PictureScale,
    readonly brighter: boolean,
    private readonly part: PartSearch | null = null,
  ) {
    const perMm = meanPerMm(scale);
    this.grain = part?.grain ?? 1;
    this.fine = shrunk(picture, Math.max(1, Math.round(this.grain * FINE_MM * perMm)));
    const map = darknessMap(this.fine, 1, perMm, brighter, this.grain);
    this.turn = sharpestTurn(map, turnOf(map));
  }

  /** How well it fits from afar, by its best quarter turn, as it is or mirrored. */
  fromAfar(scale: PictureScale, out = HALF_OUT): FarPlace | null {
    return this.eachWay(scale, out)[0] ?? null;
  }

  /** The best place for each quarter turn, mirrored or not, best first. */
  private eachWay(scale: PictureScale, out: number): FarPlace[] {
    const far = new FarSearch(this.mapOf(FAR_MM, scale), this.part ? PART_OUT : out);
    const samples = sampled(this.lines, this.grain * SAMPLE_FAR_MM);
    const corners = this.part ? cornersOf(this.part.window) : [];
    const ways = (this.part ? [false] : [false, true]).flatMap((mirrored) =>
      Array.from({ length: this.part ? 1 : 4 }, (_, quarter) => ({ mirrored, quarter })),
    );
    return ways
      .flatMap(({ mirrored, quarter }): FarPlace[] => {
        const linear = linearOf(this.turn + (quarter * Math.PI) / 2, mirrored, scale);
        const found = far.place(samples, corners, linear);
        return found ? [{ score: found.score, mirrored, pose: { ...linear, e: found.x, f: found.y } }] : [];
      })
      .sort((a, b) => b.score - a.score);
  }

  find(scale: PictureScale, out = HALF_OUT): FoundCoupon | null {
    const ways = this.eachWay(scale, out);
    const [best] = ways;
    if (!best) return null;
    const near = this.mapOf(NEAR_MM, scale);
    const middle = this.mapOf(MIDDLE_MM, scale);
    const all = sampled(this.lines, this.grain * SAMPLE_NEAR_MM);
    const used = placesOf(all);
    const nearer = ({ pose }: FarPlace) =>
      REACHES.reduce(
        (from, reach) => climbed(reach.near ? near : middle, used, from, { ...reach, mm: this.grain * reach.mm }),
        pose,
      );
    if (this.part) {
      const pose = nearer(best);
      return { ...best, pose, clear: null, ...agreement(near, all, pose) };
    }
    const tried = ways
      .filter((way) => way.score >= NEARLY_AS_GOOD * best.score)
      .flatMap((way) => besides(near, used, nearer(way)).map((place) => ({ ...way, ...place })));
    const chosen = chosenOf(this.mapOf(FINE_MM, scale), all, tried);
    return chosen && { ...chosen, ...agreement(near, all, chosen.pose) };
  }

  /** Contrast of the drawn lines to blank stock divided by their contrast to their surroundings. Positive if the marks have the expected brightness. */
  standsOut(pose: Affine, scale: PictureScale, stock: Rect): number | null {
    const all = sampled(this.lines, SAMPLE_NEAR_MM);
    const { marked, mean } = laidOn(this.mapOf(FINE_MM, scale), all, pose);
    const blank = blankMinusMarks(
      this.fine,
      all.filter((_, i) => marked[i]),
      pose,
      stock,
    );
    return blank === null || mean === 0 ? null : ((this.brighter ? -1 : 1) * blank) / mean;
  }

  private mapOf(mm: number, scale: PictureScale): DarknessMap {
    const perMm = meanPerMm(scale);
    return darknessMap(
      this.fine,
      Math.max(1, Math.round((this.grain * mm * perMm) / this.fine.cellPx)),
      ...([perMm, this.brighter, this.grain] as const),
    );
  }
}

function meanPerMm({ xPixelsPerMm, yPixelsPerMm }: PictureScale): number {
  return (xPixelsPerMm + yPixelsPerMm) / 2;
}

/** Another place is tried if it covers at least this share of what the best place covers. */
const NEARLY_AS_GOOD = 0.7;
/** Other places are tried within this distance, mm. A wrong place is some row pitches off. */
const HOP_MM = 5;
/** Most places tried, best first. */
const MOST_TRIED = 12;
/** Places nearer than this are the same, mm. */
const ONE_PLACE_MM = 0.3;

/** Steps per square of the map, across the rows. */
const ACROSS_FINER = 2;

type Tried = { pose: Affine; along: number };

/**
 * The places around `around` where the drawing covers nearly as much as at the best of them.
 *
 * The shifts follow the axes of the coupon. They are finer across the rows, so that all places on one row cover it alike.
 */
function besides(map: DarknessMap, samples: Places, around: Affine): Tried[] {
  const cellMm = map.cellPx * pixelMm(around);
  const steps = Math.ceil(HOP_MM / cellMm);
  const [rows, columns] = [2 * ACROSS_FINER * steps + 1, 2 * steps + 1];
  const shifted = (i: number, j: number) =>
    composed(around, { a: 1, b: 0, c: 0, d: 1, e: (i - steps) * cellMm, f: (j / ACROSS_FINER - steps) * cellMm });
  const scores = Float64Array.from({ length: rows * columns }, (_, k) =>
    darkAlong(map, samples, shifted(k % columns, Math.floor(k / columns))),
  );
  const scoreAt = (i: number, j: number) =>
    i < 0 || j < 0 || i >= columns || j >= rows ? -Infinity : (scores[j * columns + i] ?? Number.NaN);
  const most = scores.reduce((a, b) => Math.max(a, b), 0);
  const tops: Tried[] = [];
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const here = scoreAt(i, j);
      const isTop = [-1, 0, 1].every((dj) => [-1, 0, 1].every((di) => scoreAt(i + di, j + dj) <= here));
      if (isTop && here >= NEARLY_AS_GOOD * most) tops.push({ pose: shifted(i, j), along: here });
    }
  return tops
    .sort((a, b) => b.along - a.along)
    .slice(0, MOST_TRIED)
    .map(({ pose }) => {
      const at = climbed(map, samples, pose, CLOSER);
      return { pose: at, along: darkAlong(map, samples, at) };
    });
}

/** The place that is better than every other one, judged by the lines that only one of the two draws. */
function chosenOf<T extends Tried>(
  map: DarknessMap,
  samples: readonly DrawnSample[],
  tried: readonly T[],
): (T & { clear: number | null }) | null {
  const laid = [...tried]
    .sort((a, b) => b.along - a.along)
    .slice(0, MOST_TRIED)
    .map((one) => ({ one, on: laidOn(map, samples, one.pose) }));
  const [first, ...others] = laid;
  if (!first) return null;
  const best = others.reduce((a, b) => ((evidenceFor(b.on, a.on) ?? 0) > 0 ? b : a), first);
  const apartPx = ONE_PLACE_MM / pixelMm(best.one.pose);
  const middle = middleOf(samples);
  const isElsewhere = ({ one }: typeof best) => {
    const [a, b] = [mapped(one.pose, middle), mapped(best.one.pose, middle)];
    return Math.hypot(a.x - b.x, a.y - b.y) > apartPx || turnedApart(one.pose, best.one.pose);
  };
  const clears = laid.filter(isElsewhere).map(({ on }) => evidenceFor(best.on, on));
  const known = clears.filter((c) => c !== null);
  return { ...best.one, clear: known.length < clears.length ? null : Math.min(Infinity, ...known) };
}

function turnedApart(a: Affine, b: Affine): boolean {
  return (
    a.a * b.a + a.b * b.b < 0.9 * Math.hypot(a.a, a.b) * Math.hypot(b.a, b.b) ||
    a.a * a.d - a.b * a.c > 0 !== b.a * b.d - b.b * b.c > 0
  );
}

type Place = { x: number; y: number };

function sampled(lines: readonly NominalLine[], everyMm: number): DrawnSample[] {
  return lines.flatMap(({ x0, y0, x1, y1, settings: group }) => {
    const count = Math.max(1, Math.round(Math.hypot(x1 - x0, y1 - y0) / everyMm));
    return Array.from({ length: count }, (_, i) => {
      const share = (i + 0.5) / count;
      return { x: x0 + share * (x1 - x0), y: y0 + share * (y1 - y0), group };
    });
  });
}

/** Coupon to picture without the shift: Y up becomes Y down, then it is turned in the picture. */
function linearOf(turn: number, mirrored: boolean, { xPixelsPerMm: sx, yPixelsPerMm: sy }: PictureScale): Affine {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const flip = mirrored ? -1 : 1;
  return { a: flip * c * sx, b: flip * s * sy, c: s * sx, d: -c * sy, e: 0, f: 0 };
}

function cornersOf({ x0, y0, x1, y1 }: Rect): Place[] {
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
}

/** Everything within so far is tried: place in mm, turn in radians; then nearer and finer. */
type Reach = { near: boolean; mm: number; steps: number; turn: number; turns: number };
const REACHES: readonly Reach[] = [
  { near: false, mm: 2, steps: 4, turn: 0.006, turns: 3 },
  { near: true, mm: 0.6, steps: 5, turn: 0.004, turns: 3 },
  { near: true, mm: 0.12, steps: 2, turn: 0.0012, turns: 3 },
];
/** From the middle of a square to the exact place. */
const CLOSER: Reach = { near: true, mm: 0.16, steps: 2, turn: 0.003, turns: 1 };
/** So many samples are enough to climb by. */
const MOST_SAMPLES = 1500;

/** Samples as bare numbers, which thousands of tries go through. */
type Places = { xs: Float64Array; ys: Float64Array; middle: Place };

function placesOf(samples: readonly DrawnSample[]): Places {
  const every = Math.max(1, Math.ceil(samples.length / MOST_SAMPLES));
  const used = samples.filter((_, i) => i % every === 0);
  return {
    xs: Float64Array.from(used, (p) => p.x),
    ys: Float64Array.from(used, (p) => p.y),
    middle: middleOf(used),
  };
}

function climbed(map: DarknessMap, samples: Places, around: Affine, reach: Reach): Affine {
  const { mm, steps, turn, turns } = reach;
  const { middle } = samples;
  const perMm = Math.sqrt(Math.abs(around.a * around.d - around.b * around.c));
  let best = { pose: around, score: darkAlong(map, samples, around) };
  for (let k = -turns; k <= turns; k++)
    for (let i = -steps; i <= steps; i++)
      for (let j = -steps; j <= steps; j++) {
        const [dx, dy] = [(i / steps) * mm * perMm, (j / steps) * mm * perMm];
        const pose = moved(around, middle, (k / turns) * turn, dx, dy);
        const score = darkAlong(map, samples, pose);
        if (score > best.score) best = { pose, score };
      }
  return best.pose;
}

function middleOf(samples: readonly DrawnSample[]): Place {
  const box = boundsOf(samples) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  return { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
}

/** Turned in the picture about where `middle` lies, then shifted by pixels. */
function moved(pose: Affine, middle: Place, turn: number, dx: number, dy: number): Affine {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = {
    x: pose.a * middle.x + pose.c * middle.y + pose.e,
    y: pose.b * middle.x + pose.d * middle.y + pose.f,
  };
  const linear = {
    a: c * pose.a - s * pose.b,
    b: s * pose.a + c * pose.b,
    c: c * pose.c - s * pose.d,
    d: s * pose.c + c * pose.d,
  };
  return {
    ...linear,
    e: at.x + dx - linear.a * middle.x - linear.c * middle.y,
    f: at.y + dy - linear.b * middle.x - linear.d * middle.y,
  };
}

function darkAlong(
  { width, height, dark, cellPx }: DarknessMap,
  { xs, ys }: Places,
  { a, b, c, d, e, f }: Affine,
): number {
  const share = 1 / cellPx;
  let sum = 0;
  for (let i = 0; i < xs.length; i++) {
    const [px, py] = [xs[i] ?? Number.NaN, ys[i] ?? Number.NaN];
    const x = Math.floor((a * px + c * py + e) * share);
    const y = Math.floor((b * px + d * py + f) * share);
    if (x >= 0 && y >= 0 && x < width && y < height) sum += dark[y * width + x] ?? Number.NaN;
  }
  return sum;
}

function agreement(
  map: DarknessMap,
  samples: readonly DrawnSample[],
  pose: Affine,
): Pick<FoundCoupon, "inside" | "covered" | "explained"> {
  const { width, height, dark, cellPx } = map;
  const onLines = new Uint8Array(width * height);
  const seen: { value: number; group: string }[] = [];
  let [left, right, top, bottom] = [width, 0, height, 0];
  for (const p of samples) {
    const x = Math.floor((pose.a * p.x + pose.c * p.y + pose.e) / cellPx);
    const y = Math.floor((pose.b * p.x + pose.d * p.y + pose.f) / cellPx);
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    seen.push({ value: dark[y * width + x] ?? Number.NaN, group: p.group });
    [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
    for (let dy = -NEAR_CELLS; dy <= NEAR_CELLS; dy++)
      for (let dx = -NEAR_CELLS; dx <= NEAR_CELLS; dx++)
        if (x + dx >= 0 && y + dy >= 0 && x + dx < width && y + dy < height) onLines[(y + dy) * width + x + dx] = 1;
  }
  if (seen.length === 0) return { inside: 0, covered: 0, explained: 0 };
  const byDarkness = seen.map((s) => s.value).sort((x, y) => x - y);
  const least = DARK_SHARE * (byDarkness[Math.floor(byDarkness.length * 0.9)] ?? Number.NaN);
  let [marked, explained] = [0, 0];
  for (let y = top; y <= bottom; y++)
    for (let x = left; x <= right; x++) {
      if ((dark[y * width + x] ?? Number.NaN) <= least) continue;
      marked++;
      explained += onLines[y * width + x] ?? Number.NaN;
    }
  return {
    inside: seen.length / samples.length,
    covered: least > 0 ? inWholeGroups(seen, least) / seen.length : 0,
    explained: marked > 0 ? explained / marked : 0,
  };
}

function inWholeGroups(seen: readonly { value: number; group: string }[], least: number): number {
  const groups = new Map<string, { all: number; dark: number }>();
  for (const { value, group } of seen) {
    const counts = groups.get(group) ?? { all: 0, dark: 0 };
    groups.set(group, { all: counts.all + 1, dark: counts.dark + Number(value > least) });
  }
  return [...groups.values()].reduce((sum, { all, dark }) => sum + (dark > WHOLE_GROUP * all ? all : 0), 0);
}
