/** The marks of an array with the shade that the stock gave them, and the ends of their rows as ragged as they came out. */
import type { Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import { type CellLook, isInside } from "./cell-look";
import type { Mark } from "./gantry";
import { type Random, seeded } from "./random";

/** @param stock shade of the blank stock */
export function shadedMarks(
  marks: readonly Mark[],
  cells: readonly Rect[],
  looks: readonly (CellLook | null)[],
  corner: Placement,
  stock: number,
  seed: number,
): Mark[] {
  const random = seeded(seed);
  return marks.map((mark) => {
    const at = cells.findIndex((cell) => isInside(cell, mark, corner));
    const look = looks[at];
    return look ? shaded(mark, look, stock, random) : mark;
  });
}

function shaded(mark: Mark, { darkness, unevenness, raggedMm }: CellLook, stock: number, random: Random): Mark {
  const own = darkness * (1 + unevenness * random.normal());
  const shade = Math.round(stock * (1 - Math.max(0, Math.min(0.97, own))));
  const long = Math.hypot(mark.x1 - mark.x0, mark.y1 - mark.y0);
  if (long === 0) return { ...mark, shade };
  const [ux, uy] = [(mark.x1 - mark.x0) / long, (mark.y1 - mark.y0) / long];
  const [a, b] = [raggedMm * random.normal(), raggedMm * random.normal()];
  return {
    ...mark,
    shade,
    x0: mark.x0 - a * ux,
    y0: mark.y0 - a * uy,
    x1: mark.x1 + b * ux,
    y1: mark.y1 + b * uy,
  };
}
