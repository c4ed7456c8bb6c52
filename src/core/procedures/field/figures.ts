/** The errors of the field as arrows, before and as they will be. */
import type { Figure } from "../../drawing/figure";
import type { FieldFound } from "./found";
import { gridOf, type Vector } from "./map";

const PLACES = gridOf(9);
const FINE_PLACES = gridOf(13);
/** The longest arrow is this share of the distance between two places. */
const LONGEST = 0.9;
const ROUND = [1, 2, 5];
/** Smaller errors are not drawn as arrows. */
const MOST_TIMES = 10_000;

/** @param after where marks will lie once the corrections are in force, from the middle of the field, mm */
export function fieldFigures(found: FieldFound, after: (at: Vector) => Vector): Figure[] {
  return [
    arrows("field before", "The field as it is", found.reachMm, found.to),
    arrows("field after", "As it will be", found.reachMm, after),
  ];
}

export function arrows(id: string, title: string, half: number, map: (at: Vector) => Vector): Figure {
  const found = PLACES.map((p) => {
    const at = { x: p.x * half, y: p.y * half };
    const to = map(at);
    return { x: at.x, y: at.y, dx: to.x - at.x, dy: to.y - at.y };
  });
  const largest = Math.max(1e-6, ...found.map((a) => Math.hypot(a.dx, a.dy)));
  return {
    kind: "vectors",
    id,
    title,
    unit: "mm",
    magnification: Math.min(MOST_TIMES, roundDown((LONGEST * half) / 4 / largest)),
    arrows: found,
  };
}

/** Residual error of each point as a heat map over the measured square. */
export function remains({ reachMm }: Pick<FieldFound, "reachMm">, after: (at: Vector) => Vector): Figure {
  return heat("field remains", "Residual error", reachMm, (at) => {
    const to = after(at);
    return Math.hypot(to.x - at.x, to.y - at.y);
  });
}

/** @param valueAt mm, of a point that many mm from the middle */
export function heat(id: string, title: string, half: number, valueAt: (at: Vector) => number): Figure {
  return {
    kind: "heat",
    id,
    title,
    x: { label: "X", unit: "mm" },
    y: { label: "Y", unit: "mm" },
    unit: "mm",
    cells: FINE_PLACES.map((p) => {
      const at = { x: p.x * half, y: p.y * half };
      return { ...at, value: Number(valueAt(at).toFixed(4)) };
    }),
  };
}

/** The next smaller of 1, 2 and 5 times a power of ten. */
function roundDown(value: number): number {
  const power = 10 ** Math.floor(Math.log10(value));
  const digit = ROUND.findLast((r) => r * power <= value * (1 + 1e-9)) ?? 1;
  return digit * power;
}
