/** Is it good enough here, and what to do where that cannot be told. */
import { z } from "zod";
import { measuredSchema } from "../metrology/measured-schema";
import { unitIdSchema } from "../metrology/unit-schema";
import { findingSchema } from "./outcome";

/** More reading that is expected to settle it. */
export const wayOutSchema = z.object({
  text: z.string(),
  /** Where to read more. */
  sites: z.array(z.string()).min(1),
  /** How many more readings at each of them. */
  more: z.number().int().positive(),
  /** Another gauge to read with; `null` = the one in hand. */
  gauge: z.string().nullable(),
});
export type WayOut = z.infer<typeof wayOutSchema>;

export const verdictSchema = z.object({
  result: z.enum(["proved", "not proved", "cannot tell"]),
  headline: z.string(),
  /** What to do about it. */
  advice: z.string(),
  /** Before and after, line by line. */
  lines: z.array(
    z.object({
      label: z.string(),
      before: measuredSchema.nullable(),
      after: measuredSchema,
      result: z.enum(["proved", "not proved", "cannot tell"]),
    }),
  ),
  tolerance: z.number().positive(),
  unit: unitIdSchema,
  /** Ways to a verdict where there is none yet, cheapest first. */
  ways: z.array(wayOutSchema),
  /** What a check charts: found before anything was corrected. */
  asFound: z.object({ label: z.string(), quantity: measuredSchema }),
  findings: z.array(findingSchema),
});
export type Verdict = z.infer<typeof verdictSchema>;
