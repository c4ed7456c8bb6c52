/** A practice technician who looks at cells: which of them marked, and which is the sharpest. */
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { Mark } from "./gantry";
import { marksWithin } from "./measure";
import type { Random } from "./random";

/** The eye takes two cells for equal whose beams differ by this share, and is off by so much either way (SD). */
const EYE = 0.06;
/** Thinner lines are overlooked, mm. */
const SEEN_MM = 0.02;

export type JudgedCells = { ok: true; cells: number[] } | { ok: false; why: string };

/** @returns indices of cells: the first and the last that marked, or those that look sharpest */
export function judgedCells(
  measurand: Measurand,
  marks: readonly Mark[],
  placement: Placement,
  random: Random,
): JudgedCells {
  if (measurand.kind !== "marked" && measurand.kind !== "sharpest")
    return { ok: false, why: "The practice machine cannot show this." };
  const seen = measurand.cells.map((cell) =>
    marksWithin(cell, marks, placement).filter((mark) => mark.widthMm >= SEEN_MM),
  );
  const marked = seen.flatMap((lines, i) => (lines.length > 0 ? [i] : []));
  const [first, last] = [marked[0], marked.at(-1)];
  if (first === undefined || last === undefined)
    return { ok: false, why: "No cell of the practice piece shows a mark." };
  if (measurand.kind === "marked") return { ok: true, cells: first === last ? [first] : [first, last] };
  const looks = seen.map((lines) =>
    lines.length > 0 ? Math.max(...lines.map((m) => m.narrowness ?? 0)) * (1 + EYE * random.normal()) : 0,
  );
  const best = Math.max(...looks);
  return { ok: true, cells: looks.flatMap((look, i) => (look === best ? [i] : [])) };
}
