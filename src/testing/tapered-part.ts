/** A tapered part under the beam, in space: where on it a mark comes to lie. Nothing here unrolls anything. */

export type TaperedPart = {
  /** Across at its two ends, mm, and how far they lie apart along the axis. */
  firstMm: number;
  lastMm: number;
  lengthMm: number;
  /** The rotary is tilted so that the upper side is level, instead of the axis. */
  sideLevel: boolean;
};

export type PointInSpace = { x: number; y: number; z: number };

/**
 * The beam comes down on the upper side at `alongMm` while the part is turned.
 *
 * @param alongMm of the head, from the first end
 * @param turnedRad by which the part is turned
 * @returns in the frame of the part: x along its axis
 */
export function struckAt(part: TaperedPart, alongMm: number, turnedRad: number): PointInSpace {
  const grows = (part.lastMm - part.firstMm) / 2;
  const side = Math.sqrt(part.lengthMm ** 2 + grows ** 2);
  const share = part.sideLevel ? alongMm / side : alongMm / part.lengthMm;
  const radius = part.firstMm / 2 + share * grows;
  return { x: share * part.lengthMm, y: radius * Math.sin(turnedRad), z: radius * Math.cos(turnedRad) };
}
