/**
 * What a stock bears from place to place: no card and no metal is the same all over.
 *
 * Normal numbers on a grid, joined smoothly so that the scatter is the same everywhere; hidden like everything of a practice machine.
 */
import { z } from "zod";
import { seeded, seedOf } from "./random";

export const grainSchema = z.object({
  seed: z.number().int(),
  /** Of the threshold, as a share of it. */
  sd: z.number().nonnegative(),
  /** From one place to another that has nothing to do with it, mm. */
  sizeMm: z.number().positive(),
});
export type Grain = z.infer<typeof grainSchema>;

/** No place takes less than this share of the usual. */
const LEAST = 0.2;

/** The threshold at a place of the bed, as a multiple of the usual one. */
export function thresholdShare({ seed, sd, sizeMm }: Grain, at: { x: number; y: number }): number {
  const [u, v] = [at.x / sizeMm, at.y / sizeMm];
  const [column, row] = [Math.floor(u), Math.floor(v)];
  let [sum, squares] = [0, 0];
  for (const [dx, dy] of CORNERS) {
    const weight = (1 - Math.abs(u - column - dx)) * (1 - Math.abs(v - row - dy));
    sum += weight * seeded(seedOf(seed, column + dx, row + dy)).normal();
    squares += weight * weight;
  }
  return Math.max(LEAST, 1 + (sd * sum) / Math.sqrt(squares));
}

const CORNERS = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
] as const;
