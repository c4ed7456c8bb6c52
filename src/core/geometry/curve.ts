/**
 * Curves as chords that stay within a stated distance of them.
 *
 * Cubic in n equal steps of its parameter: error <= (1/8) max|P''| / n^2, with max|P''| <= 6 max(|P0 - 2 P1 + P2|, |P1 - 2 P2 + P3|).
 * [the bound of linear interpolation; de Boor, A Practical Guide to Splines (2001), II(12)]
 * Circle: the sagitta of a chord over the angle a is r (1 - cos(a/2)).
 */
type Vector = { x: number; y: number };
export type Cubic = readonly [Vector, Vector, Vector, Vector];

const MOST_CHORDS = 100_000;

/**
 * Points after the first, the last included.
 *
 * @param chordError largest distance of a chord from the curve, > 0
 * @throws RangeError when the curve would take more chords than can be meant
 */
export function flattenedCubic([p0, p1, p2, p3]: Cubic, chordError: number): Vector[] {
  if (!(chordError > 0)) throw new RangeError("chordError must be positive");
  const bend = Math.max(
    Math.hypot(p0.x - 2 * p1.x + p2.x, p0.y - 2 * p1.y + p2.y),
    Math.hypot(p1.x - 2 * p2.x + p3.x, p1.y - 2 * p2.y + p3.y),
  );
  const count = Math.max(1, Math.ceil(Math.sqrt((6 * bend) / (8 * chordError))));
  if (!(count <= MOST_CHORDS)) throw new RangeError(`a curve would take ${count} chords`);
  return Array.from({ length: count }, (_, i) => (i + 1 === count ? p3 : cubicAt(p0, p1, p2, p3, (i + 1) / count)));
}

function cubicAt(p0: Vector, p1: Vector, p2: Vector, p3: Vector, t: number): Vector {
  const s = 1 - t;
  const [a, b, c, d] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return { x: a * p0.x + b * p1.x + c * p2.x + d * p3.x, y: a * p0.y + b * p1.y + c * p2.y + d * p3.y };
}

/** The same curve, a degree higher. */
export function cubicOfQuadratic(p0: Vector, p1: Vector, p2: Vector): Cubic {
  const third = (from: Vector, to: Vector) => ({
    x: from.x + ((to.x - from.x) * 2) / 3,
    y: from.y + ((to.y - from.y) * 2) / 3,
  });
  return [p0, third(p0, p1), third(p2, p1), p2];
}

export type EllipseArc = {
  centre: Vector;
  rx: number;
  ry: number;
  /** Turn of the x radius, rad. */
  turnRad: number;
  startRad: number;
  /** Positive from the x radius to the y radius. */
  sweepRad: number;
};

/**
 * The arc of an ellipse between two points. Radii that are too small are enlarged until they reach.
 * [W3C SVG 1.1 (Second Edition), F.6.5, F.6.6]
 *
 * @returns `null` where it is a straight line: a radius is 0
 */
export function ellipseArc(
  from: Vector,
  to: Vector,
  radii: { rx: number; ry: number; turnRad: number },
  large: boolean,
  sweep: boolean,
): EllipseArc | null {
  let [rx, ry] = [Math.abs(radii.rx), Math.abs(radii.ry)];
  if (rx === 0 || ry === 0) return null;
  const [cos, sin] = [Math.cos(radii.turnRad), Math.sin(radii.turnRad)];
  const [hx, hy] = [(from.x - to.x) / 2, (from.y - to.y) / 2];
  const [x, y] = [cos * hx + sin * hy, -sin * hx + cos * hy];
  const reach = Math.sqrt((x / rx) ** 2 + (y / ry) ** 2);
  if (reach > 1) [rx, ry] = [rx * reach, ry * reach];
  // In the circle of radius 1 that the ellipse becomes: half the chord, and the way from its middle to the centre.
  const [u, v] = [x / rx, y / ry];
  const half = u * u + v * v;
  const off = Math.sqrt(Math.max(0, 1 - half) / half) * (large === sweep ? -1 : 1);
  const [cu, cv] = [off * v, -off * u];
  const startRad = Math.atan2(v - cv, u - cu);
  let sweepRad = Math.atan2(-v - cv, -u - cu) - startRad;
  if (sweep && sweepRad < 0) sweepRad += 2 * Math.PI;
  if (!sweep && sweepRad > 0) sweepRad -= 2 * Math.PI;
  const centre = {
    x: cos * cu * rx - sin * cv * ry + (from.x + to.x) / 2,
    y: sin * cu * rx + cos * cv * ry + (from.y + to.y) / 2,
  };
  return { centre, rx, ry, turnRad: radii.turnRad, startRad, sweepRad };
}

/**
 * Points after the first, the last included. An ellipse stretches a circle: a chord over the angle a is off by at most
 * max(rx, ry) (1 - cos(a/2)).
 *
 * @throws RangeError when it would take more chords than can be meant
 */
export function flattenedEllipse(arc: EllipseArc, chordError: number): Vector[] {
  if (!(chordError > 0)) throw new RangeError("chordError must be positive");
  const radius = Math.max(arc.rx, arc.ry);
  const step = radius > chordError ? Math.min(Math.PI / 2, 2 * Math.acos(1 - chordError / radius)) : Math.PI / 2;
  const count = Math.max(1, Math.ceil(Math.abs(arc.sweepRad) / step));
  if (!(count <= MOST_CHORDS)) throw new RangeError(`an arc would take ${count} chords`);
  return Array.from({ length: count }, (_, i) => onEllipse(arc, arc.startRad + (arc.sweepRad * (i + 1)) / count));
}

/** The point of an ellipse at an angle of its own, from its x radius on. */
export function onEllipse({ centre, rx, ry, turnRad }: EllipseArc, angleRad: number): Vector {
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  const [x, y] = [rx * Math.cos(angleRad), ry * Math.sin(angleRad)];
  return { x: centre.x + cos * x - sin * y, y: centre.y + sin * x + cos * y };
}
