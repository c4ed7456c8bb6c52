/**
 * What the controller has to make of a drawing, out of what it made of it during the burn and what the burn showed.
 *
 *   marks = f(drawing) = head(c(drawing))        c what the controller makes of it, with its present settings
 *   head(c'(w)) = w   =>   c'(w) = c(f^-1(w))    (adding the change to the settings, or replacing them, leaves 0.006 to 0.3 mm)
 *
 * c is of the form of the map, in the terms that the controller holds:  c_x = a (x + u (T v + B v^2 + C u^2)) + G v. The settings whose form
 * comes nearest to c' over the working field are found by least squares. What no setting can make stays: the form of the controller limits
 * it.
 */
import { projected } from "../../estimate/adjustment";
import { thinQr } from "../../fitting/thin-qr";
import type { FieldFound } from "./found";
import { basisOf, type FieldMap, gridOf, type MapTerm, mapped, unmapped, type Vector } from "./map";

/** Places over the field at which the forms are held against each other. */
const PLACES = gridOf(9);

export type Composed = {
  /** What the controller should make, mm at the corner; its scale as a term. */
  controller: FieldMap;
  /** Where marks will lie by the map, from the middle of the field, mm. */
  after: (at: Vector) => Vector;
};

/**
 * @param found the map of the burn
 * @param present what the controller made of it, in the terms whose effect is known; 0 where it is not
 * @param terms that can be set
 * @param half of the working field, mm
 * @returns `null` when the terms cannot be told apart
 */
export function composed(
  found: Pick<FieldFound, "to" | "from">,
  present: FieldMap,
  terms: readonly MapTerm[],
  half: number,
): Composed | null {
  const wanted = PLACES.flatMap((p) => {
    const at = { x: p.x * half, y: p.y * half };
    const drawn = found.from(at);
    if (!drawn) return [];
    const to = mapped(present, drawn, half);
    return [{ p, dx: to.x - at.x, dy: to.y - at.y }];
  });
  if (wanted.length < PLACES.length) return null;
  const controller: Partial<Record<MapTerm, number>> = {};
  for (const axis of ["x", "y"] as const) {
    const own = terms.filter((t) => basisOf(t, { x: 1, y: 1 })[axis] !== 0);
    if (own.length === 0) continue;
    const solved = nearest(
      wanted.map(({ p }) => own.map((t) => basisOf(t, p)[axis])),
      wanted.map(({ dx, dy }) => (axis === "x" ? dx : dy)),
    );
    if (!solved) return null;
    for (const [j, t] of own.entries()) controller[t] = solved[j] ?? 0;
  }
  return {
    controller,
    // The head is what it was: marks = f(c^-1(c'(w))).
    after: (at) => found.to(unmapped(present, mapped(controller, at, half), half)),
  };
}

/** Least squares of a few columns; `null` where they cannot be told apart. */
function nearest(rows: readonly (readonly number[])[], y: readonly number[]): number[] | null {
  const n = rows[0]?.length ?? 0;
  const qr = thinQr(Float64Array.from(rows.flat()), rows.length, n);
  if (!qr) return null;
  const along = projected(qr, Float64Array.from(y));
  return Array.from({ length: n }, (_, j) => {
    let sum = 0;
    for (let k = j; k < n; k++) sum += (qr.inverse[j * n + k] ?? Number.NaN) * (along[k] ?? Number.NaN);
    return sum;
  });
}
