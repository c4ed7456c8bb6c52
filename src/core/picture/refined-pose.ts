/**
 * Where the coupon lies, to a small part of a row: by the middles of its rows, near both ends of each.
 *
 * It also tells how much closer together rows lie than the scale of the picture says.
 */
import { type Affine, composed, inverseOf } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { pixelMm } from "./picture-window";
import { rowAcross } from "./row-profile";
import { trimmedFit } from "./trimmed-fit";

export type RefinedPose = {
  pose: Affine;
  /** Distances across rows in the picture over those drawn, by the scale it was given; `null` with too few rows. */
  pitchRatio: number | null;
  /** Rows that were seen, of those looked for. */
  seen: number;
  sought: number;
  /** Of rows about where the pose has them, standard deviation as a share of half the way to the next one; 0 with too few rows. */
  scatter: number;
};

const LOOKED_FOR = 90;
const SHORTEST_MM = 3;
/** Along a row as much is looked at, each end: no more pixels than tell its middle. */
const [SPAN_MM, LEAST_SPAN_MM, MOST_SPAN_PX] = [2, 0.6, 60];
const ROUNDS = 2;
/** Share of the way to the next row. */
const REACH = 0.5;
const WIDEST_REACH_MM = 0.6;

/** The pose that the rows themselves tell, from one that is right to half a pitch. Rows that run level alone are looked for. */
export function refinedPose(picture: GreyPicture, start: Affine, lines: readonly NominalLine[]): RefinedPose {
  const level = lines.filter((l) => l.row && l.y0 === l.y1 && Math.abs(l.x1 - l.x0) >= SHORTEST_MM);
  const every = Math.max(1, Math.ceil(level.length / LOOKED_FOR));
  const used = level.filter((_, i) => i % every === 0);
  const reach = reachOf(level);
  let pose = start;
  let result: RefinedPose = { pose, pitchRatio: null, seen: 0, sought: used.length, scatter: 0 };
  for (let round = 0; round < ROUNDS; round++) {
    const back = inverseOf(pose);
    const found = used.flatMap((line) => {
      const [x0, x1] = [Math.min(line.x0, line.x1), Math.max(line.x0, line.x1)];
      const span = Math.min(SPAN_MM, (x1 - x0) / 3, Math.max(LEAST_SPAN_MM, MOST_SPAN_PX * pixelMm(pose)));
      return [x0 + 0.2 * (x1 - x0), x1 - 0.2 * (x1 - x0)].flatMap((x) => {
        const seen = rowAcross(picture, pose, back, line, {
          fromX: x - span / 2,
          toX: x + span / 2,
          reachMm: reach,
        });
        return seen ? [{ x, y: line.y0, dy: seen.offset }] : [];
      });
    });
    if (found.length < 6) return result;
    const plane = trimmedFit(
      found.map((p) => [1, p.x, p.y]),
      found.map((p) => p.dy),
    );
    if (!plane) return result;
    const [at0 = 0, byX = 0, byY = 0] = plane.x;
    // What is drawn at y is seen at y + dy: the map must lead there.
    const shift: Affine = { a: 1, b: byX, c: 0, d: 1 + byY, e: 0, f: at0 };
    pose = turnedAlong(composed(pose, shift));
    result = {
      pose,
      pitchRatio: (result.pitchRatio ?? 1) * (1 + byY),
      seen: Math.round(found.length / 2),
      sought: used.length,
      scatter: plane.sd / reach,
    };
  }
  return result;
}

/** Half the least distance between neighbouring rows, mm. */
export function reachOf(level: readonly NominalLine[]): number {
  const ys = level.map((l) => l.y0).sort((a, b) => a - b);
  const gaps = ys.slice(1).map((y, i) => y - (ys[i] ?? Number.NaN));
  return Math.min(WIDEST_REACH_MM, REACH * Math.min(...gaps.filter((gap) => gap > 1e-6), Infinity));
}

/** Rows tell how they are turned; columns are taken to be turned as much, so that the corner stays square. */
function turnedAlong(m: Affine): Affine {
  const [rx, ry] = [Math.hypot(m.a, m.b), Math.hypot(m.c, m.d)];
  const side = Math.sign(m.a * m.d - m.b * m.c);
  // Perpendicular to the rows, as long as before.
  return { ...m, c: (-side * m.b * ry) / rx, d: (side * m.a * ry) / rx };
}
