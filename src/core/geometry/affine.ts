/** Affine maps of the plane: x' = a x + c y + e, y' = b x + d y + f. [W3C SVG 1.1 (Second Edition), 7.4] */
type Vector = { x: number; y: number };
export type Affine = { a: number; b: number; c: number; d: number; e: number; f: number };

export const IDENTITY: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** One map out of two: first `inner`, then `outer`. */
export function composed(outer: Affine, inner: Affine): Affine {
  return {
    a: outer.a * inner.a + outer.c * inner.b,
    b: outer.b * inner.a + outer.d * inner.b,
    c: outer.a * inner.c + outer.c * inner.d,
    d: outer.b * inner.c + outer.d * inner.d,
    e: outer.a * inner.e + outer.c * inner.f + outer.e,
    f: outer.b * inner.e + outer.d * inner.f + outer.f,
  };
}

/** (a x + c y + e, b x + d y + f). */
export function mapped(m: Affine, p: Vector): Vector {
  return { x: m.a * p.x + m.c * p.y + m.e, y: m.b * p.x + m.d * p.y + m.f };
}

/** How much the map stretches at most: its larger singular value. */
export function largestStretch({ a, b, c, d }: Affine): number {
  const [s, t] = [a * a + b * b + c * c + d * d, a * d - b * c];
  return Math.sqrt((s + Math.sqrt(Math.max(0, s * s - 4 * t * t))) / 2);
}

/** The map back. @throws RangeError for a map that is flat */
export function inverseOf({ a, b, c, d, e, f }: Affine): Affine {
  const det = a * d - b * c;
  if (!(Math.abs(det) > 0)) throw new RangeError("The map is flat.");
  const [ia, ib, ic, id] = [d / det, -b / det, -c / det, a / det];
  return { a: ia, b: ib, c: ic, d: id, e: -(ia * e + ic * f), f: -(ib * e + id * f) };
}
