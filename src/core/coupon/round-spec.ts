/** One round as it is burned and read. */
import { z } from "zod";
import { placementSchema } from "../geometry/frames";
import { pieceSchema } from "./piece";
import { opSchema } from "./program";
import { siteSchema } from "./site";

/** Everything about a round that is frozen when it is burned. */
export const roundSpecSchema = z.object({
  pieces: z.array(pieceSchema),
  placement: placementSchema,
  program: z.array(opSchema),
  sites: z.array(siteSchema),
  /** How the marks reach the machine, in a sentence: it decides what a table does to them. */
  delivery: z.string(),
  /** What to look after before this burn. */
  checklist: z.array(z.string()),
});
export type RoundSpec = z.infer<typeof roundSpecSchema>;

/** What a person looks after or does in a burn, in the order in which it comes. */
export function byHand({ checklist, program }: RoundSpec): string[] {
  return [...checklist, ...program.flatMap((op) => ("text" in op ? [op.text] : []))];
}
