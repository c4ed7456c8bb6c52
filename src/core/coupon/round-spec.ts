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

/** What is looked after and done before anything is marked. */
export function beforeBurn({ checklist, program }: RoundSpec): string[] {
  return [...checklist, ...program.flatMap((op) => ("text" in op && op.kind !== "set height" ? [op.text] : []))];
}

/** Heights that a hand sets, one after the other. */
export function duringBurn({ program }: RoundSpec): string[] {
  return program.flatMap((op) => (op.kind === "set height" && op.by === "hand" ? [op.text] : []));
}
