/** What stands on the head of a card. */
import { z } from "zod";

export const stockSpecSchema = z.object({
  name: z.string().min(1).max(80),
  /** As it is sold, mm. */
  nominalMm: z.number().positive(),
  /** More energy per area chars or ignites it, J/mm^2; left out where no limit is known. */
  mostJPerMm2: z.number().positive().optional(),
  /** Where it comes from, what it is used for. */
  note: z.string().max(500),
});
export type StockSpec = z.infer<typeof stockSpecSchema>;
