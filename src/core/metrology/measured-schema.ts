/** A quantity with its uncertainty as it is kept. Pages that only show it load no schemas. */
import { z } from "zod";
import type { Measured } from "./measured";

export const degreesOfFreedomSchema = z.union([z.number().positive(), z.literal("infinite")]);

export const measuredSchema = z.object({
  value: z.number(),
  standardUncertainty: z.number().nonnegative(),
  degreesOfFreedom: degreesOfFreedomSchema,
}) satisfies z.ZodType<Measured>;
