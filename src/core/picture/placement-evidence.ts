/**
 * Decides between two placements of a coupon in a picture.
 *
 * A placement that is off by one row pitch still puts rows on rows. The scatter of the rows does not show the mistake. Lines that only one
 * placement draws show it: first and last rows, row ends, lettering. With D(A) the lines that A draws and B does not,
 *
 *   evidence for A over B = (mean darkness on D(A) - mean darkness on D(B)) / mean darkness on the lines of both
 *
 * is 1 if A is right and -1 if B is right.
 */
import type { Affine } from "../geometry/affine";
import type { DarknessMap } from "./darkness-map";

export type DrawnSample = { x: number; y: number; group: string };

/** Both placements draw a line if it is within this many squares of a line of the other. */
const SAME_CELLS = 2;
/** Least samples that differ between two placements. */
const FEWEST = 12;
/** A sample is marked above this share of the darkness of the darkest tenth. */
const DARK_SHARE = 0.35;
/** A group of marking settings marked if more than this share of its samples is marked. */
const GROUP_MARKED = 0.5;

/** The samples of one placement on the map. */
export type Laid = {
  /** Index of the square of each sample; -1 outside the picture. */
  at: Int32Array;
  dark: Float32Array;
  /** 1 if the group of the sample marked. */
  marked: Uint8Array;
  /** Mean darkness of the groups that marked. */
  mean: number;
  /** Squares within `SAME_CELLS` of a line. */
  near: Uint8Array;
};

/** The samples of the drawing laid on the picture by a pose: for each the square under it, -1 outside, and its darkness from 0 to 1. */
export function laidOn(map: DarknessMap, samples: readonly DrawnSample[], pose: Affine): Laid {
  const { width, height, cellPx } = map;
  const at = new Int32Array(samples.length);
  const dark = new Float32Array(samples.length);
  samples.forEach((p, i) => {
    const x = Math.floor((pose.a * p.x + pose.c * p.y + pose.e) / cellPx);
    const y = Math.floor((pose.b * p.x + pose.d * p.y + pose.f) / cellPx);
    const inside = x >= 0 && y >= 0 && x < width && y < height;
    at[i] = inside ? y * width + x : -1;
    dark[i] = inside ? (map.dark[y * width + x] ?? Number.NaN) : 0;
  });
  const marked = markedGroups(samples, dark);
  let [sum, count] = [0, 0];
  for (let i = 0; i < dark.length; i++)
    if (marked[i]) {
      sum += dark[i] ?? Number.NaN;
      count++;
    }
  return { at, dark, marked, mean: count > 0 ? sum / count : 0, near: nearLines(map, at) };
}

function markedGroups(samples: readonly DrawnSample[], dark: Float32Array): Uint8Array {
  const sorted = Float32Array.from(dark).sort();
  const least = DARK_SHARE * (sorted[Math.floor(sorted.length * 0.9)] ?? 0);
  const groups = new Map<string, { all: number; dark: number }>();
  samples.forEach(({ group }, i) => {
    const counts = groups.get(group) ?? { all: 0, dark: 0 };
    counts.all++;
    if ((dark[i] ?? Number.NaN) > least) counts.dark++;
    groups.set(group, counts);
  });
  return Uint8Array.from(samples, ({ group }) => {
    const counts = groups.get(group);
    return counts && least > 0 && counts.dark > GROUP_MARKED * counts.all ? 1 : 0;
  });
}

/** @returns -1 to 1; `null` if too few samples differ */
export function evidenceFor(a: Laid, b: Laid): number | null {
  const onlyA = meanOff(a, b.near);
  const onlyB = meanOff(b, a.near);
  const whole = Math.max(a.mean, b.mean);
  if (onlyA.count + onlyB.count < FEWEST || !(whole > 0)) return null;
  return (onlyA.mean - onlyB.mean) / whole;
}

function nearLines({ width, height }: DarknessMap, at: Int32Array): Uint8Array {
  const near = new Uint8Array(width * height);
  for (const index of at) {
    if (index < 0) continue;
    const [x, y] = [index % width, Math.floor(index / width)];
    const [x0, x1] = [Math.max(0, x - SAME_CELLS), Math.min(width - 1, x + SAME_CELLS)];
    for (let row = Math.max(0, y - SAME_CELLS); row <= Math.min(height - 1, y + SAME_CELLS); row++)
      near.fill(1, row * width + x0, row * width + x1 + 1);
  }
  return near;
}

function meanOff({ at, dark, marked }: Laid, near: Uint8Array): { mean: number; count: number } {
  let [sum, count] = [0, 0];
  for (let i = 0; i < at.length; i++) {
    const index = at[i] ?? Number.NaN;
    if (!marked[i] || (index >= 0 && near[index])) continue;
    sum += dark[i] ?? Number.NaN;
    count++;
  }
  return { mean: count > 0 ? sum / count : 0, count };
}
