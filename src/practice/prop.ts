/** A stock that is propped: it rises along X, so marks on it lie nearer to the lens and come out longer than they were sent. */

import { seeded, seedOf } from "./random";

/** From a place on (mm of X, where the head is sent) it rises by so much a mm. */
export type Prop = { fromXMm: number; tangent: number };

/** Longest piece of a mark that is taken to be at one height, mm. */
const PIECE_MM = 0.4;

/** How much higher the stock is there. */
export function riseAt(prop: Prop, x: number): number {
  return (x - prop.fromXMm) * prop.tangent;
}

/** Where on the stock itself a place lies to which the head was sent: the slant is longer than what it stands over. */
export function onSlant(prop: Prop, x: number): number {
  const over = x - prop.fromXMm;
  return prop.fromXMm + Math.sign(over) * Math.hypot(over, over * prop.tangent);
}

/** Shares of a straight way, each short enough to be at one height. */
export function shortPieces(lengthMm: number): [from: number, to: number][] {
  const count = Math.max(1, Math.ceil(lengthMm / PIECE_MM));
  return Array.from({ length: count }, (_, i) => [i / count, (i + 1) / count]);
}

/** Rise and run are measured by hand: the slope is off by this share, SD. */
const SLOPE_SD = 0.004;

/** As the technician props it, in machine coordinates. @param stockXMm where the stock lies */
export function propped({ fromXMm, tangent }: Prop, stockXMm: number, seed: number): Prop {
  const off = seeded(seedOf(seed, "prop")).normal();
  return { fromXMm: fromXMm + stockXMm, tangent: tangent * (1 + SLOPE_SD * off) };
}
