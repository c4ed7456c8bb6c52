/** What stands on the head of a card. */
import { z } from "zod";

export const stockSpecSchema = z.object({
  name: z.string().min(1).max(80),
  /** As it is sold, mm. */
  nominalMm: z.number().positive(),
  /** Where it comes from, what it is used for. */
  note: z.string().max(500),
});
export type StockSpec = z.infer<typeof stockSpecSchema>;
