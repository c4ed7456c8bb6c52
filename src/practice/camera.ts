/**
 * A practice camera over a stock that lies flat: it looks at it from the side, and its lens bends straight lines a little.
 *
 * Pinhole: a point is turned into the camera's own axes, divided by its distance, then moved along its ray from the middle by k r^2.
 */
import { seeded, seedOf } from "./random";

export type Camera = {
  /** Above the middle of the stock, mm. */
  farMm: number;
  /** From straight down, toward X and toward Y, and turned about its own axis, rad. */
  tiltX: number;
  tiltY: number;
  turn: number;
  /** Of the lens: at half the width of the stock seen from there straight lines bend by this share. */
  bend: number;
};

/** (invented; phones correct their lens to about a thousandth) */
export function cameraFromSeed(seed: number): Camera {
  const random = seeded(seedOf(seed, "camera"));
  return {
    farMm: random.between(320, 420),
    tiltX: random.between(-0.2, 0.2),
    tiltY: random.between(-0.2, 0.2),
    turn: random.between(-0.15, 0.15),
    bend: random.between(-0.0008, 0.0008),
  };
}

/** On the picture, in the size of a stock seen straight from above, about its middle. @param at from the middle of the stock, mm */
export function photographed({ farMm, tiltX, tiltY, turn, bend }: Camera, { x, y }: { x: number; y: number }) {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [tx, ty] = [c * x - s * y, s * x + c * y];
  // About X, then about Y: what lies farther away is smaller.
  const [y1, z1] = [ty * Math.cos(tiltX), ty * Math.sin(tiltX)];
  const [x2, z2] = [tx * Math.cos(tiltY) + z1 * Math.sin(tiltY), z1 * Math.cos(tiltY) - tx * Math.sin(tiltY)];
  const near = farMm / (farMm + z2);
  const [px, py] = [near * x2, near * y1];
  const lens = 1 + bend * ((px * px + py * py) / 55 ** 2);
  return { x: lens * px, y: lens * py };
}
