/** Where to measure, what is asked there, and what physical quantity answers it. */
import { z } from "zod";
import { couponPointSchema } from "../geometry/frames";
import { rectSchema } from "../geometry/rect";
import { jawsSchema } from "../metrology/gauge";

/** With which jaws it is measured, where calipers are used. */
const usedJawsSchema = jawsSchema.default("outside");

const dimensionSchema = z.enum(["length", "speed", "time", "angle", "ratio"]);

/** What the person is asked for. The screens know these eight and no procedure. */
export const askSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("quantity"),
    dimension: dimensionSchema,
    /** The sign is asked in words: the size is typed, the words choose its sign. */
    signedBy: z
      .object({
        question: z.string(),
        positive: z.string(),
        negative: z.string(),
      })
      .nullable(),
    jaws: usedJawsSchema,
    /** Beyond this size (internal unit) the person is asked once whether it is right. */
    plausibleUpTo: z.number().positive(),
  }),
  z.object({ kind: z.literal("count"), most: z.number().int().positive() }),
  z.object({ kind: z.literal("ordinal"), categories: z.array(z.string()).min(2) }),
  z.object({
    kind: z.literal("choice"),
    options: z.array(z.object({ id: z.string(), label: z.string() })).min(2),
  }),
  z.object({
    kind: z.literal("cells"),
    mode: z.enum(["one", "range", "tied", "rank"]),
    cells: z.array(z.object({ id: z.string(), label: z.string() })).min(1),
  }),
  z.object({
    kind: z.literal("pair"),
    first: z.string(),
    second: z.string(),
    dimension: dimensionSchema,
    firstJaws: usedJawsSchema,
    secondJaws: usedJawsSchema,
  }),
  z.object({
    kind: z.literal("points"),
    nominal: z.array(couponPointSchema).min(1),
  }),
  z.object({ kind: z.literal("vector"), dimension: dimensionSchema }),
]);
export type Ask = z.infer<typeof askSchema>;

/** A part of the marks that can be pointed at. */
export const featureSchema = z.discriminatedUnion("kind", [
  /** Mean end of the rows whose middle lies in a rectangle. */
  z.object({
    kind: z.literal("row ends"),
    within: rectSchema,
    end: z.enum(["left", "right"]),
    going: z.enum(["right", "left"]),
  }),
  z.object({ kind: z.literal("spot"), near: couponPointSchema }),
]);
export type Feature = z.infer<typeof featureSchema>;

/** The physical quantity: what a practice machine or a picture reader answers. */
export const measurandSchema = z.discriminatedUnion("kind", [
  /** Coordinate of `to` minus coordinate of `from`. */
  z.object({
    kind: z.literal("distance"),
    from: featureSchema,
    to: featureSchema,
    along: z.enum(["x", "y"]),
  }),
  z.object({ kind: z.literal("width"), of: featureSchema }),
  z.object({ kind: z.literal("marked"), cells: z.array(rectSchema) }),
  z.object({ kind: z.literal("ticks visible"), within: rectSchema }),
  z.object({ kind: z.literal("darkness"), within: rectSchema }),
  z.object({ kind: z.literal("clearance"), mate: z.string() }),
  z.object({ kind: z.literal("depth"), within: rectSchema }),
  z.object({ kind: z.literal("height of peak") }),
  z.object({ kind: z.literal("spot centre"), near: couponPointSchema }),
]);
export type Measurand = z.infer<typeof measurandSchema>;

export const siteSchema = z.object({
  id: z.string().min(1),
  /** `300 mm/s, right end`. */
  label: z.string(),
  /** The question in full. */
  question: z.string(),
  ask: askSchema,
  measurand: measurandSchema,
  place: z
    .object({
      piece: z.string(),
      at: couponPointSchema,
      radiusMm: z.number().positive(),
    })
    .nullable(),
  repeats: z.number().int().positive(),
  /** Takes as many readings as the person likes. */
  openEnded: z.boolean(),
});
export type Site = z.infer<typeof siteSchema>;
