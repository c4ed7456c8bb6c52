/** Charts as data: the screen draws them with whatever library it has. */
import { z } from "zod";

const axisSchema = z.object({ label: z.string(), unit: z.string() });

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
export type XyFigure = Extract<Figure, { kind: "xy" }>;
export type HistoryFigure = Extract<Figure, { kind: "history" }>;
export type ControlChartFigure = Extract<Figure, { kind: "control chart" }>;
