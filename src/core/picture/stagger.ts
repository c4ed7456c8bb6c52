/**
 * How far the ends of right-going rows lie beyond those of left-going ones.
 *
 * Where a controller fills an area by itself, which of its rows went right is not known for certain: those do that line up with rows
 * that were all burned to the right beside them, over the same length.
 */
import type { Affine } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { reachOf } from "./refined-pose";
import { type EndDistance, type EndSet, endDistance } from "./row-ends";

/** Lengths are the same to this, mm. */
const SAME_MM = 0.01;
/** The witness speaks where the two sets differ by so many times the uncertainty. */
const CLEAR = 4;

/** With whether which rows went right is only taken as it is drawn, no witness telling. */
type RowsApart = Extract<EndDistance, { ok: false }> | (Extract<EndDistance, { ok: true }> & { asDrawn: boolean });

/** @param from,to sets whose distance is asked for */
export function endsApart(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  lines: readonly NominalLine[],
  from: EndSet,
  to: EndSet,
): RowsApart {
  const apart = (a: EndSet, b: EndSet) => endDistance(picture, pose, back, a, b, reachOf([...a.rows, ...b.rows]));
  const seen = apart(from, to);
  const [row] = to.rows;
  if (!seen.ok) return seen;
  if (row?.filled !== "both" || Math.abs(seen.value) < CLEAR * seen.u) return { ...seen, asDrawn: false };
  const witness = witnessOf(lines, row);
  const [toFrom, toTo] = [from, to].map((set) => apart({ rows: witness, end: set.end }, set));
  if (!toFrom?.ok || !toTo?.ok) return { ...seen, asDrawn: true };
  const goesRight = (set: EndSet) => (set.rows[0]?.x1 ?? 0) > (set.rows[0]?.x0 ?? 0);
  const [right, left] = goesRight(to) ? [toTo, toFrom] : [toFrom, toTo];
  const isClear = Math.abs(Math.abs(right.value) - Math.abs(left.value)) > CLEAR * Math.hypot(right.u, left.u);
  if (!isClear || Math.abs(right.value) < Math.abs(left.value)) return { ...seen, asDrawn: false };
  return {
    ...seen,
    asDrawn: false,
    value: -seen.value,
    ends: seen.ends.map((end) => ({ ...end, second: !end.second })),
  };
}

/** The nearest rows of the same length that were all burned to the right. */
function witnessOf(lines: readonly NominalLine[], { x0, x1, y0 }: NominalLine): NominalLine[] {
  const [left, right] = [Math.min(x0, x1), Math.max(x0, x1)];
  const alike = lines.filter(
    (l) => l.filled === "right-going" && Math.abs(l.x0 - left) < SAME_MM && Math.abs(l.x1 - right) < SAME_MM,
  );
  const away = (l: NominalLine) => Math.abs(l.y0 - y0);
  const nearest = alike.reduce<NominalLine | null>((best, l) => (best && away(best) <= away(l) ? best : l), null);
  return alike.filter((l) => l.settings === nearest?.settings);
}
