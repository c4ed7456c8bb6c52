/** A rough surface: waves of all directions, about as long as is asked for, mean 0 and sd 1. */
import { seeded } from "./random";

const WAVES = 40;

/** @param reach over how far it keeps its sign, in the unit of the places */
export function textureFromSeed(seed: number, reach: number): (place: { x: number; y: number }) => number {
  const random = seeded(seed);
  const waves = Array.from({ length: WAVES }, () => ({
    kx: random.normal() / reach,
    ky: random.normal() / reach,
    phase: 2 * Math.PI * random.even(),
  }));
  const size = Math.sqrt(2 / WAVES);
  return ({ x, y }) => size * waves.reduce((sum, w) => sum + Math.cos(w.kx * x + w.ky * y + w.phase), 0);
}
