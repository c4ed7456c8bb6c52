/** Where to measure, what is asked there, and what physical quantity answers it. */
import { z } from "zod";
import { couponPointSchema } from "../geometry/frames";
import { rectSchema } from "../geometry/rect";
import { jawsSchema } from "../metrology/gauge";

/** With which jaws it is measured, where calipers are used. */
const usedJawsSchema = jawsSchema.default("outside");

const dimensionSchema = z.enum(["length", "speed", "time", "angle", "ratio"]);

/** What the person is asked for. The screens know these ten and no procedure. */
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
    /** Read at the machine's own scale, readout or at an engraved one, in these steps (internal unit): no gauge, no jaws, and it may lie below 0. */
    atMachine: z.object({ step: z.number().positive() }).optional(),
    /** Beyond this size (internal unit) the person is asked once whether it is right. */
    plausibleUpTo: z.number().positive(),
  }),
  z.object({ kind: z.literal("count"), most: z.number().int().positive() }),
  z.object({ kind: z.literal("ordinal"), categories: z.array(z.string()).min(2) }),
  z.object({
    kind: z.literal("choice"),
    /** `at` where it is chosen by a place on the coupon, as it lies in front of the operator. */
    options: z.array(z.object({ id: z.string(), label: z.string(), at: couponPointSchema.optional() })).min(2),
  }),
  z.object({
    kind: z.literal("cells"),
    mode: z.enum(["one", "range", "tied", "rank"]),
    cells: z.array(z.object({ id: z.string(), label: z.string() })).min(1),
    /** No cell is an answer too. */
    noneToo: z.literal(true).optional(),
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
  /** The better of two cells, for many pairs of cells. `u`, `v`: position of a cell along both settings, from −1 to 1. */
  z.object({
    kind: z.literal("comparison"),
    cells: z.array(z.object({ id: z.string(), label: z.string(), u: z.number(), v: z.number() })).min(2),
  }),
  /** A score of each cell, as a picture shows it. */
  z.object({ kind: z.literal("scores"), cells: z.array(z.object({ id: z.string(), label: z.string() })).min(1) }),
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
  /** Any one of the single lines in a rectangle; `along` where it runs along Y and its width is asked for. */
  z.object({ kind: z.literal("line"), within: rectSchema, along: z.literal("y").optional() }),
  /** Where two single lines cross or meet. */
  z.object({ kind: z.literal("cross"), near: couponPointSchema }),
]);
export type Feature = z.infer<typeof featureSchema>;

/** Two cuts that face each other. */
const touchingSidesSchema = z.object({ from: featureSchema, to: featureSchema, along: z.enum(["x", "y"]) });
export type TouchingSides = z.infer<typeof touchingSidesSchema>;

const stripPointSchema = z.enum(["start of good", "best", "end of good"]);
export type StripPoint = z.infer<typeof stripPointSchema>;

/** The physical quantity: what a practice machine or a picture reader answers. */
export const measurandSchema = z.discriminatedUnion("kind", [
  /** Coordinate of `to` minus coordinate of `from`. */
  z.object({
    kind: z.literal("distance"),
    from: featureSchema,
    to: featureSchema,
    along: z.enum(["x", "y"]),
  }),
  /** The shortest way from one to the other. */
  z.object({ kind: z.literal("span"), from: featureSchema, to: featureSchema }),
  /** Between two cuts: of the part that they cut out, or of the hole that they leave. */
  z.object({
    kind: z.literal("cut size"),
    of: z.enum(["part", "hole"]),
    from: featureSchema,
    to: featureSchema,
    along: z.enum(["x", "y"]),
    /** Left out: the top one. */
    face: z.enum(["top", "bottom"]).optional(),
  }),
  /** What cuts beside each other have taken together: the strips between them are pushed to one side of their frame. */
  z.object({ kind: z.literal("pushed gap"), cuts: z.array(featureSchema).min(2), along: z.enum(["x", "y"]) }),
  /** From an edge of the stock, where it lies against the bed's own stops or a fixture, so far along the edge from the corner of the two edges. */
  z.object({
    kind: z.literal("edge distance"),
    side: z.enum(["left", "right", "front", "back"]),
    against: z.enum(["bed", "fixture"]),
    alongMm: z.number(),
    of: featureSchema,
    to: z.enum(["centre", "near"]),
    /** The edge across, that it meets in the corner. */
    corner: z.enum(["left", "right", "front", "back"]),
  }),
  /** Of something that lies beside the piece, such as a gauge block. */
  z.object({ kind: z.literal("known length"), mm: z.number().positive() }),
  /** What the machine showed where a single pulse was given by hand. */
  z.object({ kind: z.literal("readout"), of: featureSchema, along: z.enum(["x", "y"]) }),
  /** Between the tips of rows and a line beside them, from edge to edge along X, at least 0. */
  z.object({ kind: z.literal("row gap"), rows: featureSchema, line: featureSchema }),
  z.object({ kind: z.literal("width"), of: featureSchema }),
  /** Four standard deviations of its energy across, by an instrument that looks at the beam itself. [ISO 11146-1] */
  z.object({ kind: z.literal("beam width"), heightMm: z.number() }),
  z.object({ kind: z.literal("marked"), cells: z.array(rectSchema) }),
  z.object({ kind: z.literal("sharpest"), cells: z.array(rectSchema) }),
  /** How each filled cell looks beside the blank stock around it. Dots: four corners from the front left counter-clockwise, and one more. */
  z.object({
    kind: z.literal("cell look"),
    of: z.enum(["darkness", "contrast", "evenness", "sharpness"]),
    cells: z.array(rectSchema).min(1),
    dots: z.array(couponPointSchema).length(5),
    /** Radius of a dot, and blank stock between cells, mm. */
    radiusMm: z.number().positive(),
    gapMm: z.number().positive(),
  }),
  /** Colour of each cell beside a white and a grey card: one of the three numbers of CIE L*a*b*. */
  z.object({
    kind: z.literal("cell colour"),
    of: z.enum(["L*", "a*", "b*"]),
    cells: z.array(rectSchema).min(1),
    dots: z.array(couponPointSchema).length(5),
    radiusMm: z.number().positive(),
    gapMm: z.number().positive(),
    /** Lightness L* of the cards. */
    white: z.number(),
    grey: z.number(),
  }),
  z.object({ kind: z.literal("best cells"), cells: z.array(rectSchema).min(1) }),
  /** The better of two cells. */
  z.object({ kind: z.literal("better of two"), cells: z.array(rectSchema).min(2) }),
  /** Which cells are marked well enough, or cut through. */
  z.object({
    kind: z.literal("passed"),
    how: z.enum(["marked", "cut through"]),
    cells: z.array(rectSchema).min(1),
  }),
  z.object({ kind: z.literal("charred"), cells: z.array(rectSchema).min(1) }),
  z.object({ kind: z.literal("ticks visible"), within: rectSchema }),
  z.object({ kind: z.literal("darkness"), within: rectSchema }),
  /** How one part goes into another. */
  z.object({
    kind: z.literal("clearance"),
    mate: z.string(),
    /** Cuts of what goes in, and of what it goes into; `thicknessMm` where a sheet goes in. Left out: nothing is cut. */
    touching: z
      .array(
        z.object({
          inner: z.union([touchingSidesSchema, z.object({ thicknessMm: z.number().positive() })]),
          outer: touchingSidesSchema,
        }),
      )
      .optional(),
  }),
  z.object({ kind: z.literal("depth"), within: rectSchema }),
  /** Height at which marking is brightest and loudest, with the number that is read rising or falling. */
  z.object({ kind: z.literal("height of peak"), going: z.enum(["up", "down"]) }),
  /** Number of the readout at which a place of the bed is in focus, seen from above, mm. */
  z.object({ kind: z.literal("focus readout"), xMm: z.number(), yMm: z.number() }),
  /** Where a mark up a propped stock begins, ends or is sharpest: a place along X, read as `at0 + perMm (x - fromXMm)`. */
  z.object({
    kind: z.literal("place on ramp"),
    which: z.enum(["first", "last", "sharpest"]),
    within: rectSchema,
    along: z.object({ fromXMm: z.number(), at0: z.number(), perMm: z.number() }),
  }),
  /** Start of the good range, best point or end of the good range on a filled strip: mm along the strip. `weak`: the end with the least energy. */
  z.object({
    kind: z.literal("place on strip"),
    which: stripPointSchema,
    within: rectSchema,
    along: z.enum(["x", "y"]),
    weak: z.enum(["start", "end"]),
  }),
  /** The way in which the arrow of an axis ends on the stock, seen from above by the operator. */
  z.object({ kind: z.literal("arrow end"), axis: z.enum(["x", "y"]) }),
  /** From a straight edge that the stock lies against to a line along it, at a place of the coupon. */
  z.object({ kind: z.literal("fence distance"), side: z.enum(["left", "front"]), near: couponPointSchema }),
  z.object({ kind: z.literal("spot centre"), near: couponPointSchema }),
  /** Every dot of a square grid, as a scanner shows it with the stock turned so far on its glass, degrees. */
  z.object({
    kind: z.literal("dots"),
    across: z.number().int().positive(),
    turnedDeg: z.number(),
    /** Number of an overlapping scan, from 1, and how many there are. Without it the scan shows the whole grid. */
    part: z.object({ n: z.number().int().min(1), of: z.union([z.literal(2), z.literal(4)]) }).optional(),
    /** By a camera instead of a scanner: places have no scale of their own. */
    photo: z.literal(true).optional(),
  }),
  /**
   * On a part that turns, along its surface from one line to another: `onward` the way on which it was turned, up to a whole turn; `gap` what is
   * left to a whole turn, between the edges that face each other, below 0 where it went past; `beside` from edge to same edge, positive
   * onward; the turns that were made too many, where less than one is meant, and where one is.
   */
  z.object({
    kind: z.literal("around"),
    from: featureSchema,
    to: featureSchema,
    as: z.enum(["onward", "gap", "beside", "turns too many", "turns beyond one"]),
    /** Thickness of the tape that the lines are on, and that is laid flat to be measured, mm; left out where they are on the part itself. */
    tapeMm: z.number().positive().optional(),
  }),
  /** Of a part that turns: across or around it, where it is marked or where it lies on the rollers. */
  z.object({
    kind: z.literal("part size"),
    of: z.enum(["diameter", "circumference"]),
    where: z.enum(["marked", "resting"]),
  }),
  /** Whether words on a part that turns stand as they are drawn, or mirrored. */
  z.object({ kind: z.literal("mirrored") }),
  /** Length of a line that lies along the way on which a part turns, as it was stuck or drawn on it. */
  z.object({
    kind: z.literal("line on part"),
    nominalMm: z.number().positive(),
    /** Of the tape on which it was drawn flat before it was stuck, mm. */
    tapeMm: z.number().positive().optional(),
  }),
  /** What the machine shows where the aiming dot stands on an end of such a line: at its first end, its second, and at its first again. */
  z.object({
    kind: z.literal("readout on line"),
    end: z.enum(["first", "second", "first again"]),
    nominalMm: z.number().positive(),
    tapeMm: z.number().positive().optional(),
  }),
  /** Which way the upper side went while the readout counted up. */
  z.object({ kind: z.literal("way turned") }),
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
  /** How many of these were asked for after the burn; left out where none were. */
  more: z.number().int().positive().optional(),
  /** Asked only where the range that was read at another site holds this cell. */
  onlyWithin: z.object({ site: z.string(), cell: z.string() }).optional(),
  /** Takes as many readings as the person likes. */
  openEnded: z.boolean(),
});
export type Site = z.infer<typeof siteSchema>;
