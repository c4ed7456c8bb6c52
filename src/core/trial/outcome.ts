/** What a procedure works out from its readings: numbers with their uncertainty, corrections with their sums, and what it noticed. */
import { z } from "zod";
import { pieceSchema } from "../coupon/piece";
import { figureSchema } from "../drawing/figure";
import { detailSchema } from "../drawing/scene";
import { rectSchema } from "../geometry/rect";
import { budgetPartSchema } from "../metrology/budget";
import { measuredSchema } from "../metrology/measured-schema";
import { unitIdSchema } from "../metrology/unit-schema";
import { settingValueSchema } from "../settings/setting";

export const findingSchema = z.object({
  id: z.string(),
  tone: z.enum(["needs you", "note", "good"]),
  headline: z.string(),
  /** What it means and what to do. */
  text: z.string(),
  site: z.string().nullable(),
  /** It says that a reading contradicts the others: the decision that accepts it with a reason, and those that leave its readings out. */
  suspect: z.object({ accept: z.string(), leaveOut: z.array(z.string()) }).optional(),
});
export type Finding = z.infer<typeof findingSchema>;

export const estimateSchema = z.object({
  id: z.string(),
  label: z.string(),
  /** Internal unit. */
  quantity: measuredSchema,
  /** In which it is shown; a length goes by the unit chosen on screen. */
  unit: unitIdSchema,
  /** Shown in the verdict line. */
  headline: z.boolean(),
  /** Where its uncertainty comes from, largest part first. */
  budget: z.array(budgetPartSchema),
  /** What would make it smaller most, with how much; `null` where nothing simple would. */
  helps: z.string().nullable(),
});
export type Estimate = z.infer<typeof estimateSchema>;

/** What a wrong reading could do to a result without being seen. */
export const visibleSchema = z.object({
  /** Id and label of the estimate. */
  estimate: z.string(),
  label: z.string(),
  /** The smallest error of one reading that is seen 80 of 100 times, and by how much it moves the result, with units. */
  seen: z.object({ reading: z.string(), smallest: z.string(), moves: z.string() }).nullable(),
  /** Readings that no other reading checks. */
  unchecked: z.array(z.string()),
  /** Points that no other point checks. */
  alone: z.array(z.string()).default([]),
  /** Where one more reading would check the first of them. */
  site: z.string().nullable(),
});
export type Visible = z.infer<typeof visibleSchema>;

export const correctionRowSchema = z.object({
  /** Stable within the correction, for example `300`. */
  key: z.string(),
  label: z.string(),
  /** Id of the estimate that it stands on: its budget is shown there. */
  estimate: z.string(),
  /** Place in a table, internal unit; `null` for a scalar. */
  at: z.number().nullable(),
  /** What was in force; `null` where that is not known and not needed. */
  old: z.number().nullable(),
  change: measuredSchema,
  /** The change as the sum shows it, for example `+0.295 ÷ 2`. */
  changeText: z.string(),
  /** Rounded as the controller takes it. */
  enter: z.number(),
  /** What rounding leaves, enter minus exact. */
  rounding: z.number(),
  /** The sum in words and figures, one line each. */
  arithmetic: z.array(z.string()),
  worth: z.enum(["yes", "no", "cannot tell"]),
  /** Why it is held back, where to read again, and the decision that accepts it; `null` when it may be entered. */
  heldBack: z.object({ why: z.string(), site: z.string().nullable(), accept: z.string().nullable() }).nullable(),
});
export type CorrectionRow = z.infer<typeof correctionRowSchema>;

export const correctionSchema = z.object({
  setting: z.string(),
  label: z.string(),
  /** As its controller shows and takes it; the values of the rows are internal. */
  unit: unitIdSchema,
  decimals: z.number().int().nonnegative(),
  rows: z.array(correctionRowSchema),
  /** The whole setting with every row that is not held back. */
  newValue: settingValueSchema,
  /** Ways to take it that the person may choose between: decision key, options. */
  choice: z
    .object({
      decision: z.string(),
      chosen: z.string(),
      options: z.array(z.object({ value: z.string(), label: z.string() })),
    })
    .nullable(),
});
export type Correction = z.infer<typeof correctionSchema>;

/** Something that is turned, laid or shifted at the machine by hand: it has no number that a controller holds. */
export const adjustmentSchema = z.object({
  id: z.string(),
  label: z.string(),
  /** By how much, internal unit. */
  quantity: measuredSchema,
  unit: unitIdSchema,
  /** What to do, for example `0.75 turns clockwise`. */
  text: z.string(),
  /** The sum in words and figures, one line each. */
  arithmetic: z.array(z.string()),
  worth: z.enum(["yes", "no", "cannot tell"]),
  /** Where, from the front left corner of the working area, mm; `null` where it has no place. */
  at: z.object({ x: z.number(), y: z.number() }).nullable(),
  /** By how much it turns Y toward X, rad; left out where it does not. */
  turns: z.object({ byRad: z.number() }).optional(),
});
export type Adjustment = z.infer<typeof adjustmentSchema>;

/** Live results by group of sites: the table beside the reading field. */
export const resultRowSchema = z.object({
  label: z.string(),
  sites: z.array(z.string()),
  cells: z.array(z.string()),
  result: z.string(),
  state: z.enum(["read", "part", "from the fit", "none"]),
});
export const resultTableSchema = z.object({
  title: z.string(),
  columns: z.array(z.string()),
  resultLabel: z.string(),
  rows: z.array(resultRowSchema),
});
export type ResultRow = z.infer<typeof resultRowSchema>;
export type ResultTable = z.infer<typeof resultTableSchema>;

/** What else can be worked out once some numbers are typed, and what follows from them. */
export const wishSchema = z.object({
  id: z.string(),
  title: z.string(),
  why: z.string(),
  /** Each kept as a decision; empty before it is typed. */
  fields: z.array(z.object({ decision: z.string(), label: z.string(), text: z.string() })),
  checks: z.array(z.object({ decision: z.string(), label: z.string(), on: z.boolean() })),
  /** Each kept as a decision; left out where there are none. */
  choices: z
    .array(
      z.object({
        decision: z.string(),
        label: z.string(),
        chosen: z.string(),
        options: z.array(z.object({ value: z.string(), label: z.string() })),
      }),
    )
    .optional(),
  /** A drawing of the choice; optional. */
  drawing: detailSchema.optional(),
  /** What follows, one line each. */
  lines: z.array(z.string()),
  /** Why nothing follows. */
  fault: z.string().nullable(),
  /** Files made of an artefact. */
  files: z.array(z.object({ file: z.string(), of: z.string(), label: z.string() })),
});
export type Wish = z.infer<typeof wishSchema>;

/** What is kept on the card of the stock that it was cut from: for this batch, this machine and these conditions alone. */
export const stockResultSchema = z.object({
  kind: z.enum(["kerf", "marking"]),
  /** Key of the batch. */
  stock: z.string(),
  /** Of marking settings, for example `Engrave dark`. */
  purpose: z.string().optional(),
  values: z.array(z.object({ id: z.string(), label: z.string(), quantity: measuredSchema, unit: unitIdSchema })),
  /** Speed, power, passes and so on, in words. */
  conditions: z.array(z.object({ label: z.string(), text: z.string() })),
  arithmetic: z.array(z.string()),
  /** Colours that were found on this stock, with the settings of each. */
  palette: z
    .array(z.object({ hex: z.string(), l: z.number(), a: z.number(), b: z.number(), settings: z.string() }))
    .optional(),
});
export type StockResult = z.infer<typeof stockResultSchema>;

/** What a solution makes, to be taken away as a file. */
export const artefactSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("text"), name: z.string(), mime: z.string(), text: z.string() }),
  z.object({
    kind: z.literal("drawing"),
    name: z.string(),
    piece: pieceSchema,
    /** Where machine, optic and date may be engraved, by which settings, in letters of this height at most. */
    signed: z.object({
      settings: z.string(),
      areas: z.array(rectSchema).min(1),
      heightMm: z.number().positive(),
    }),
  }),
]);
export type Artefact = z.infer<typeof artefactSchema>;

export const outcomeSchema = z.discriminatedUnion("status", [
  z.object({
    status: z.literal("open"),
    missing: z.string(),
    table: resultTableSchema.nullable(),
    findings: z.array(findingSchema),
  }),
  z.object({
    status: z.literal("unsolvable"),
    reason: z.string(),
    table: resultTableSchema.nullable(),
    findings: z.array(findingSchema),
  }),
  z.object({
    status: z.literal("solved"),
    /** Whether every site is done. */
    complete: z.boolean(),
    estimates: z.array(estimateSchema),
    /** Left out where the readings are not examined. */
    visible: z.array(visibleSchema).optional(),
    corrections: z.array(correctionSchema),
    adjustments: z.array(adjustmentSchema).default([]),
    /** Left out where nothing is kept of a stock. */
    forStock: stockResultSchema.optional(),
    findings: z.array(findingSchema),
    table: resultTableSchema.nullable(),
    figures: z.array(figureSchema),
    /** What the next burn should show once the corrections are in force. */
    predicted: z.string(),
    /** Kept for next time, by key. */
    learned: z.record(z.string(), z.number()),
    /** What else can be worked out from it for a number that the person types, kept as a decision. */
    wishes: z.array(wishSchema),
    /** Files made by the solution, such as a table. */
    artefacts: z.array(artefactSchema),
  }),
]);
export type Outcome = z.infer<typeof outcomeSchema>;
