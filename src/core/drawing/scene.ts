/**
 * What is drawn, in mm, without knowing who draws it: an engineering drawing of coupon and details.
 *
 * Tone is meaning, weight is the pen; the screen and the paper choose the ink.
 */
import { z } from "zod";

const pointSchema = z.object({ x: z.number(), y: z.number() });
export const toneSchema = z.enum(["ink", "faint", "needs you", "proved", "data"]);
export type Tone = z.infer<typeof toneSchema>;

export const primitiveSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("stroke"),
    points: z.array(pointSchema).min(2),
    closed: z.boolean(),
    /** `mark` is as wide as `widthMm`; the others are pens. */
    weight: z.enum(["hair", "thin", "heavy", "mark"]),
    widthMm: z.number().nonnegative(),
    dashed: z.boolean(),
    tone: toneSchema,
  }),
  z.object({
    kind: z.literal("dimension"),
    from: pointSchema,
    to: pointSchema,
    /** Where the dimension line lies: the other coordinate. */
    along: z.enum(["x", "y"]),
    at: z.number(),
    text: z.string(),
    tone: toneSchema,
  }),
  z.object({
    kind: z.literal("arrow"),
    from: pointSchema,
    to: pointSchema,
    text: z.string(),
    tone: toneSchema,
  }),
  z.object({
    kind: z.literal("text"),
    at: pointSchema,
    text: z.string(),
    anchor: z.enum(["start", "middle", "end"]),
    /** Height of the letters as a share of the drawing's own text size. */
    size: z.number().positive(),
    tone: toneSchema,
  }),
  z.object({
    kind: z.literal("cell"),
    x0: z.number(),
    y0: z.number(),
    x1: z.number(),
    y1: z.number(),
    label: z.string(),
    tone: toneSchema,
  }),
  /** A tick or a ring at a site. */
  z.object({
    kind: z.literal("highlight"),
    at: pointSchema,
    radiusMm: z.number().positive(),
    sign: z.enum(["ring", "tick"]),
    tone: toneSchema,
  }),
]);
export type Primitive = z.infer<typeof primitiveSchema>;

/** A round close-up: its own little drawing, in its own mm. */
export const detailSchema = z.object({
  title: z.string(),
  /** What is drawn out of scale, or how large it is drawn. */
  note: z.string(),
  /** Half the width of what is shown, mm. */
  radius: z.number().positive(),
  primitives: z.array(primitiveSchema),
  /** Between which heights nothing may be cut where there is room for a strip alone, mm; else it is cut below the dimension. */
  strip: z.object({ low: z.number(), high: z.number() }).optional(),
});
export type Detail = z.infer<typeof detailSchema>;
