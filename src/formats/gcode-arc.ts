/**
 * Arcs of RS-274 as chords. [NIST RS274/NGC Interpreter, version 3 (2000), 3.5.3]
 *
 * Centre form: I, J from the start to the centre; the two radii may differ by what rounding leaves. Radius form: R > 0 the
 * shorter way round, R < 0 the longer one. Z runs along evenly.
 */
import { flattened } from "../core/geometry/arc";

export type Place = { x: number; y: number; z: number };

export type ArcWords = {
  from: Place;
  to: Place;
  clockwise: boolean;
  /** mm; `undefined` where the word does not stand in the line. */
  i: number | undefined;
  j: number | undefined;
  r: number | undefined;
  chordErrorMm: number;
};

/** What four decimals of a mm, or five of an inch, leave of a radius; the standard allows as much, from memory. */
const RADIUS_TOLERANCE_MM = 0.006;

/** Where both ends are one, it is a full turn. */
const SAME_PLACE_MM = 1e-7;
const TURN = 2 * Math.PI;

/** @returns the points after `from`, or what is wrong */
export function arcPoints(words: ArcWords): Place[] | string {
  const centre = centreOf(words);
  if (typeof centre === "string") return centre;
  const { from, to, clockwise } = words;
  const radius = Math.hypot(from.x - centre.x, from.y - centre.y);
  const endRadius = Math.hypot(to.x - centre.x, to.y - centre.y);
  if (radius === 0) return "An arc without a radius: I and J are 0.";
  if (Math.abs(radius - endRadius) > RADIUS_TOLERANCE_MM)
    return `The arc does not meet its end: the radius is ${radius.toFixed(4)} mm where it begins, ${endRadius.toFixed(4)} mm where it ends.`;
  const startRad = Math.atan2(from.y - centre.y, from.x - centre.x);
  const whole = Math.hypot(to.x - from.x, to.y - from.y) < SAME_PLACE_MM;
  const sweepRad = whole
    ? wholeTurn(clockwise)
    : sweepOf(startRad, Math.atan2(to.y - centre.y, to.x - centre.x), clockwise);
  try {
    const flat = flattened({ centre, radius, startRad, sweepRad }, words.chordErrorMm);
    const last = flat.length - 1;
    // The end is the one that is written, not the one worked out.
    return flat
      .slice(1)
      .map((p, k) => (k + 1 === last ? to : { ...p, z: from.z + ((to.z - from.z) * (k + 1)) / last }));
  } catch (error) {
    if (error instanceof RangeError) return "The arc is too large to be meant.";
    throw error;
  }
}

function centreOf({ from, to, clockwise, i, j, r }: ArcWords): { x: number; y: number } | string {
  if (r === undefined) {
    if (i === undefined && j === undefined) return "An arc needs I and J, or R.";
    return { x: from.x + (i ?? 0), y: from.y + (j ?? 0) };
  }
  if (i !== undefined || j !== undefined) return "An arc takes either I and J or R, not both.";
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const chord = Math.hypot(dx, dy);
  if (chord === 0) return "A full circle cannot be written with R: use I and J.";
  const square = r * r - (chord * chord) / 4;
  if (square < 0 && Math.abs(r) < chord / 2 - RADIUS_TOLERANCE_MM) return "R is too small to reach the end of the arc.";
  const height = Math.sqrt(Math.max(0, square));
  // The centre of the shorter clockwise arc lies to the right of the chord.
  const side = clockwise === r > 0 ? 1 : -1;
  return {
    x: (from.x + to.x) / 2 + (side * height * dy) / chord,
    y: (from.y + to.y) / 2 - (side * height * dx) / chord,
  };
}

function wholeTurn(clockwise: boolean): number {
  return clockwise ? -TURN : TURN;
}

function sweepOf(startRad: number, endRad: number, clockwise: boolean): number {
  const ahead = (((endRad - startRad) % TURN) + TURN) % TURN;
  return clockwise ? ahead - TURN : ahead;
}
