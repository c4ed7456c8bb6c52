/** A stock as a layout needs it: one batch of it, with the thickness that was measured. */
import { z } from "zod";

export const thicknessSchema = z.object({
  meanMm: z.number().positive(),
  leastMm: z.number().positive(),
  mostMm: z.number().positive(),
  /** How it differs from place to place, sd, mm; 0 where one place was measured. */
  sdMm: z.number().nonnegative(),
  /** How many places. */
  count: z.number().int().positive(),
  /** Standard uncertainty of the mean, mm. */
  uMm: z.number().nonnegative(),
});
export type Thickness = z.infer<typeof thicknessSchema>;

export const stockAtHandSchema = z.object({
  /** Of its card and batch, for example `birch-plywood/B2`. */
  key: z.string().min(1),
  name: z.string().min(1),
  batch: z.string(),
  /** As it is sold, mm. */
  nominalMm: z.number().positive(),
  /** `null` = never measured. */
  thickness: thicknessSchema.nullable(),
  /** Charring limit, J/mm^2; left out if unknown. */
  mostJPerMm2: z.number().positive().optional(),
  /** Marking settings on the card, the newest of each purpose and machine; left out if there are none. */
  marked: z
    .array(z.object({ purpose: z.string(), machine: z.string(), settings: z.record(z.string(), z.number()) }))
    .optional(),
});
export type StockAtHand = z.infer<typeof stockAtHandSchema>;

/** `Birch plywood, batch B2`. */
export function stockText({ name, batch }: Pick<StockAtHand, "name" | "batch">): string {
  return batch ? `${name}, batch ${batch}` : name;
}

/** The card of a batch: its key without the batch. */
export function cardOf(key: string): string {
  return key.split("/", 1)[0] ?? key;
}
