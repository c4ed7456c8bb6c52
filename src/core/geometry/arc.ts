/** Arcs of circles: an ellipse of equal radii, and the bulge by which DXF writes one. */
import { flattenedEllipse, onEllipse } from "./curve";

export type Arc = {
  centre: { x: number; y: number };
  radius: number;
  /** Where it begins, rad from +X. */
  startRad: number;
  /** How far it goes, rad, positive anticlockwise. */
  sweepRad: number;
};

/**
 * Points along an arc, its ends included.
 *
 * @param chordErrorMm largest distance of a chord from the arc, > 0
 * @throws RangeError when the arc would take more chords than can be meant
 */
export function flattened(
  { centre, radius, startRad, sweepRad }: Arc,
  chordErrorMm: number,
): { x: number; y: number }[] {
  const circle = { centre, rx: radius, ry: radius, turnRad: 0, startRad, sweepRad };
  return [onEllipse(circle, startRad), ...flattenedEllipse(circle, chordErrorMm)];
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
