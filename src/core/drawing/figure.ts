/** Charts as data: the screen draws them with whatever library it has. */
import { z } from "zod";

const axisSchema = z.object({ label: z.string(), unit: z.string() });

const responseAxisSchema = z.object({
  label: z.string(),
  unit: z.string(),
  /** Places along the axis of its values, with their texts. */
  ticks: z.array(z.object({ at: z.number(), text: z.string() })),
  low: z.number(),
  high: z.number(),
});

export const figureSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("xy"),
    id: z.string(),
    title: z.string(),
    x: axisSchema,
    y: axisSchema,
    points: z.array(
      z.object({
        x: z.number(),
        y: z.number(),
        /** Half width of the 95 % interval. */
        expanded: z.number().nonnegative(),
        state: z.enum(["good", "suspect", "before"]),
      }),
    ),
    /** Fitted curve with its 95 % band; empty where nothing was fitted. */
    line: z.array(z.object({ x: z.number(), y: z.number(), low: z.number(), high: z.number() })),
    /** A stretch of x worth pointing at; `null` = none. */
    span: z.object({ from: z.number(), to: z.number(), label: z.string() }).nullable().default(null),
    /** Places at which there was nothing to read. */
    absent: z
      .object({ label: z.string(), xs: z.array(z.number()) })
      .nullable()
      .default(null),
  }),
  z.object({
    kind: z.literal("heat"),
    id: z.string(),
    title: z.string(),
    x: axisSchema,
    y: axisSchema,
    cells: z.array(z.object({ x: z.number(), y: z.number(), value: z.number() })),
    unit: z.string(),
  }),
  /** A response over two settings, drawn over the cells that showed it. Places along an axis are as `scale` has them. */
  z.object({
    kind: z.literal("response"),
    id: z.string(),
    title: z.string(),
    x: responseAxisSchema,
    y: responseAxisSchema,
    /** Expected values as shares of the best, row by row from low y; `null` where none is looked for. */
    map: z.object({ columns: z.number().int(), rows: z.number().int(), values: z.array(z.number().nullable()) }),
    cells: z.array(
      z.object({
        x: z.number(),
        y: z.number(),
        label: z.string(),
        /** As a share of the best; `null` = not read. */
        score: z.number().nullable(),
        state: z.enum(["chosen", "as good", "read", "odd", "no good", "left out"]),
        lines: z.array(z.string()),
        /** Its colour as it was read, `#3b5fa3`. */
        colour: z.string().optional(),
        /** Where its picture is: number of its burn, index among the cells of this burn, and how many it has. Left out: no picture shows it. */
        picture: z.object({ burn: z.number(), index: z.number(), of: z.number() }).optional(),
      }),
    ),
    caption: z.string(),
    /** What is said of a cell that is as good. */
    asGood: z.string(),
    /** Where the best of the map lies, and where it may lie (95 %). */
    best: z.object({ x: z.number(), y: z.number(), x0: z.number(), x1: z.number(), y0: z.number(), y1: z.number() }),
    /** Lines of equal energy per area. */
    energy: z.array(z.object({ text: z.string(), points: z.array(z.object({ x: z.number(), y: z.number() })) })),
  }),
  z.object({
    kind: z.literal("vectors"),
    id: z.string(),
    title: z.string(),
    unit: z.string(),
    magnification: z.number().positive(),
    arrows: z.array(z.object({ x: z.number(), y: z.number(), dx: z.number(), dy: z.number() })),
  }),
  z.object({
    kind: z.literal("control chart"),
    id: z.string(),
    title: z.string(),
    unit: z.string(),
    points: z.array(z.object({ label: z.string(), value: z.number() })),
    centre: z.number(),
    low: z.number(),
    high: z.number(),
  }),
  /** Values that hold until the next one; `null` = there was none. Times in milliseconds. */
  z.object({
    kind: z.literal("history"),
    id: z.string(),
    title: z.string(),
    unit: z.string(),
    series: z.array(
      z.object({ label: z.string(), points: z.array(z.object({ at: z.number(), value: z.number().nullable() })) }),
    ),
  }),
]);
export type Figure = z.infer<typeof figureSchema>;
export type ResponseFigure = Extract<Figure, { kind: "response" }>;
export type XyFigure = Extract<Figure, { kind: "xy" }>;
export type HistoryFigure = Extract<Figure, { kind: "history" }>;
export type ControlChartFigure = Extract<Figure, { kind: "control chart" }>;
