/** What a practice galvo really is: hidden from everything that computes corrections. */
import { z } from "zod";
import { bedTruthSchema } from "./bed";
import { headTruthSchema } from "./galvo-head";
import { focusFromSeed, focusTruthSchema, grained } from "./head-height";
import type { LaserSource } from "./laser-source";
import { seeded, seedOf } from "./random";
import { rotariesSchema } from "./rotary-truth";

export const galvoTruthSchema = z.object({
  kind: z.literal("galvo"),
  seed: z.number().int(),
  /** True mm per mm of the field, about its middle. */
  scaleX: z.number().positive(),
  scaleY: z.number().positive(),
  /** Mirrors, lens and mount. Left out in machines of before there were heads: theirs differ by the scale alone. */
  head: headTruthSchema.optional(),
  focus: focusTruthSchema,
  /** Left out in machines of before there were beds: theirs comes from the seed. */
  bed: bedTruthSchema.optional(),
  /** Rotaries by their name; what is left out comes from the seed. */
  rotaries: rotariesSchema.optional(),
});
export type GalvoTruth = z.infer<typeof galvoTruthSchema>;

/** A galvo drawn by chance: a field within 0.4 % of its size, heights moved by a column with a screw. */
export function galvoFromSeed(seed: number, source: LaserSource): GalvoTruth {
  const random = seeded(seedOf(seed, "field"));
  return {
    kind: "galvo",
    seed,
    scaleX: 1 + random.between(-0.004, 0.004),
    scaleY: 1 + random.between(-0.004, 0.004),
    focus: grained(focusFromSeed(seed, source), seed),
  };
}
