/** One round as it is burned and read. */
import { z } from "zod";
import { placementSchema } from "../geometry/frames";
import { pieceSchema } from "./piece";
import { opSchema } from "./program";
import { siteSchema } from "./site";

/** A round part that turns under the beam: along one axis of the drawing its surface goes by. */
export const turnedSchema = z.object({
  /** The axis in whose place it turns. */
  axis: z.enum(["x", "y"]),
  drive: z.enum(["roller", "chuck"]),
  /** Name of the rotary. */
  rotary: z.string(),
  /** Across, where it is marked, as the machine was told or the layout was made for, mm. */
  diameterMm: z.number().positive(),
  /** Across, where it lies on the rollers, mm. */
  restsOnMm: z.number().positive(),
  /** Steps in one revolution by its motor, driver and gear; left out where they are not known. */
  describedSteps: z.number().positive().optional(),
});
export type Turned = z.infer<typeof turnedSchema>;

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
  /** Left out where the stock lies flat. */
  turned: turnedSchema.optional(),
  /**
   * Temporary changes for this burn. The bench lists each one until it is restored.
   *
   * `what` names the changed state, `act` is the line of the checklist, `setting` the key of a changed setting.
   */
  setAside: z
    .array(z.object({ what: z.string(), act: z.string().optional(), setting: z.string().optional() }))
    .optional(),
});
export type RoundSpec = z.infer<typeof roundSpecSchema>;
