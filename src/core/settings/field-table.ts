/**
 * A correction of the whole field as it is stored: the maps of the burns that it undoes, one after the other.
 *
 *   c(w) = form(f_1^-1( ... f_n^-1(w)))     w a point of the drawing, from the middle of the field, mm
 *
 * A table of nodes for a controller is worked out of it, with as many nodes as the controller takes: nothing is interpolated twice.
 */
import { z } from "zod";
import { isInvertible } from "../fitting/plane-map";
import { countText } from "../metrology/count-text";

/** Where marks lie that are drawn at x, y: see `core/fitting/plane-map`. */
const planeMapSchema = z.object({
  degree: z.number().int().min(1).max(5),
  half: z.number().positive(),
  x: z.array(z.number()),
  y: z.array(z.number()),
});

export const fieldTableSchema = z.object({
  shape: z.literal("map"),
  /** Oldest first. */
  undone: z.array(
    z
      .object({
        map: planeMapSchema,
        /** Half a side of the square that was measured, mm. */
        reachMm: z.number().positive(),
      })
      .refine(({ map, reachMm }) => isInvertible(map, reachMm), "This map cannot be inverted."),
  ),
  /** Coefficients of the controller that the table replaces: mm at the corner by term, and half of the field that they are of. */
  form: z.object({ halfMm: z.number().positive(), mm: z.record(z.string(), z.number()) }).nullable(),
});
export type FieldTable = z.infer<typeof fieldTableSchema>;

export const NO_FIELD_TABLE: FieldTable = { shape: "map", undone: [], form: null };

/** What a form sends instead of a table, which nobody can type: there is none, the one of the ledger, the one that the trial made. */
export const MAP_WORDS = { none: "none", held: "held", made: "made" } as const;

/** In words for the screen: `none`, `made from 2 burns`. */
export function fieldTableText({ undone }: FieldTable): string {
  return undone.length === 0 ? "none" : `made from ${countText(undone.length, "burn")}`;
}
