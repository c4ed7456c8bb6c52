/**
 * How far the ends of right-going rows lie beyond those of left-going ones.
 *
 * Where a controller fills an area by itself, which of its rows went right is not known for certain: those do that line up with rows
 * that were all burned to the right beside them, over the same length. If those rows do not decide, no sign is reported.
 */
import type { Affine } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { reachOf } from "./refined-pose";
import { type EndDistance, type EndSeen, type EndSet, endDistance } from "./row-ends";
import { trimmedFit } from "./trimmed-fit";

/** Lengths are the same to this, mm. */
const SAME_MM = 0.01;
/** The witness decides if it is this many standard uncertainties away from the middle between the two sets. */
const CLEAR = 3;
/** A stagger below this is reported as 0 if its sign is not known, mm. Its size becomes part of the uncertainty. */
const SMALL_MM = 0.03;

const NO_WITNESS =
  "The one-way rows beside this block are not in the picture. Include them in the picture, or measure this end by hand.";
const NO_SIGN = "The picture does not show which rows went right. Measure this end by hand.";

/** @param from,to sets whose distance is asked for */
export function endsApart(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  lines: readonly NominalLine[],
  from: EndSet,
  to: EndSet,
): EndDistance {
  const apart = (a: EndSet, b: EndSet) => endDistance(picture, pose, back, a, b, reachOf([...a.rows, ...b.rows]));
  const seen = apart(from, to);
  if (!seen.ok || to.rows[0]?.filled !== "both") return seen;
  const unsigned = (why: string): EndDistance =>
    Math.abs(seen.value) < SMALL_MM ? { ...seen, value: 0, u: Math.hypot(seen.u, seen.value) } : { ok: false, why };
  const witness = apart({ rows: witnessOf(lines, [...from.rows, ...to.rows]), end: from.end }, from);
  if (!witness.ok) return unsigned(NO_WITNESS);
  const linesUp = whichLinesUp(
    seen.ends,
    witness.ends.filter((e) => !e.second),
  );
  if (linesUp === null) return unsigned(NO_SIGN);
  const isDrawnSo = (linesUp === "second") === goesRight(to);
  if (isDrawnSo) return seen;
  return {
    ...seen,
    value: -seen.value,
    ends: seen.ends.map((end) => ({ ...end, second: !end.second })),
  };
}

function goesRight({ rows }: EndSet): boolean {
  return (rows[0]?.x1 ?? 0) > (rows[0]?.x0 ?? 0);
}

/**
 * The set that lines up with the witness, from one fit to all ends: end = a + b y + S (second set) + W (witness). The slope b comes from the
 * block, so that a lean of the axes does not look like a step.
 *
 * @returns `null` if neither set lines up, or both do
 */
function whichLinesUp(block: readonly EndSeen[], witness: readonly EndSeen[]): "first" | "second" | null {
  const all = [...block.filter((e) => e.kept).map((e) => ({ ...e, w: 0 })), ...witness.map((e) => ({ ...e, w: 1 }))];
  const middle = all.reduce((sum, e) => sum + e.y, 0) / all.length;
  const fit = trimmedFit(
    all.map((e) => [1, e.y - middle, e.w === 0 && e.second ? 1 : 0, e.w]),
    all.map((e) => e.x),
  );
  if (!fit) return null;
  const [, , s = 0, w = 0] = fit.x;
  const [vs = 0, vw = 0, vsw = 0] = [fit.covariance[2]?.[2], fit.covariance[3]?.[3], fit.covariance[2]?.[3]];
  const between = Math.sqrt(Math.max(0, vw + vs / 4 - vsw));
  const nearest = Math.min(Math.abs(w), Math.abs(w - s));
  if (Math.abs(w - s / 2) <= CLEAR * between || nearest > Math.max(Math.abs(s) / 2, CLEAR * between)) return null;
  return Math.abs(w) < Math.abs(w - s) ? "first" : "second";
}

/** The nearest rows of the same length that were all burned to the right. */
export function witnessOf(lines: readonly NominalLine[], block: readonly NominalLine[]): NominalLine[] {
  const [left, right] = [
    Math.min(...block.flatMap((l) => [l.x0, l.x1])),
    Math.max(...block.flatMap((l) => [l.x0, l.x1])),
  ];
  const [low, high] = [Math.min(...block.map((l) => l.y0)), Math.max(...block.map((l) => l.y0))];
  const alike = lines.filter(
    (l) => l.filled === "right-going" && Math.abs(l.x0 - left) < SAME_MM && Math.abs(l.x1 - right) < SAME_MM,
  );
  const away = (l: NominalLine) => Math.max(low - l.y0, l.y0 - high);
  const nearest = alike.reduce<NominalLine | null>((best, l) => (best && away(best) <= away(l) ? best : l), null);
  return alike.filter((l) => l.settings === nearest?.settings);
}
