/**
 * Arcs as chords that stay within a stated distance of them.
 *
 *   sagitta of a chord over the angle a: r (1 - cos(a/2)) <= e, so a = 2 acos(1 - e/r)
 */
export type Arc = {
  centre: { x: number; y: number };
  radius: number;
  /** Where it begins, rad from +X. */
  startRad: number;
  /** How far it goes, rad, positive anticlockwise. */
  sweepRad: number;
};

const MOST_CHORDS = 100_000;

/**
 * Points along an arc, its ends included.
 *
 * @param chordErrorMm largest distance of a chord from the arc, > 0
 * @throws RangeError when the arc would take more chords than can be meant
 */
export function flattened(arc: Arc, chordErrorMm: number): { x: number; y: number }[] {
  if (!(chordErrorMm > 0)) throw new RangeError("chordErrorMm must be positive");
  const { centre, radius, startRad, sweepRad } = arc;
  const step = radius > chordErrorMm ? 2 * Math.acos(1 - chordErrorMm / radius) : Math.PI / 2;
  const count = Math.max(1, Math.ceil(Math.abs(sweepRad) / Math.min(step, Math.PI / 2)));
  if (count > MOST_CHORDS) throw new RangeError(`an arc of radius ${radius} would take ${count} chords`);
  return Array.from({ length: count + 1 }, (_, i) => {
    const angle = startRad + (sweepRad * i) / count;
    return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
  });
}

/**
 * The arc between two points with a bulge, tan of a quarter of its sweep, positive anticlockwise. [Autodesk DXF Reference, LWPOLYLINE, code 42]
 *
 * @throws RangeError when the points are one and the same, or the bulge is 0
 */
export function arcOfBulge(from: { x: number; y: number }, to: { x: number; y: number }, bulge: number): Arc {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const chord = Math.hypot(dx, dy);
  if (chord === 0 || bulge === 0) throw new RangeError("an arc needs two points and a bulge");
  const sweepRad = 4 * Math.atan(bulge);
  // Centre: from the middle of the chord, to its left by (1 - b^2)/(4b) chords.
  const off = (1 - bulge ** 2) / (4 * bulge);
  const centre = { x: (from.x + to.x) / 2 - dy * off, y: (from.y + to.y) / 2 + dx * off };
  return {
    centre,
    radius: Math.hypot(from.x - centre.x, from.y - centre.y),
    startRad: Math.atan2(from.y - centre.y, from.x - centre.x),
    sweepRad,
  };
}
