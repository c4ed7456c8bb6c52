/** What a person puts in at a site, for every kind of ask, turned into an answer or a message at its field. */
import { z } from "zod";
import type { Ask, Site } from "../coupon/site";
import { type Jaws, readingUncertaintyMm } from "../metrology/gauge";
import { inUnit } from "../metrology/quantity-text";
import { parseReading, parseSignedReading } from "../metrology/reading-text";
import { type Sitting, sharesOf, zeroOf } from "../metrology/sitting";
import { unitIdSchema } from "../metrology/unit-schema";
import type { Dimension, UnitId } from "../metrology/units";
import { type Answer, type AnswerValue, PLAIN_SHARES } from "./answer";

export const answerInputSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("quantity"),
    text: z.string(),
    /** Which of the two phrases was chosen, where words choose the sign. */
    words: z.enum(["positive", "negative"]).nullable(),
    unit: unitIdSchema,
  }),
  z.object({ kind: z.literal("count"), text: z.string() }),
  z.object({ kind: z.literal("ordinal"), category: z.string() }),
  z.object({ kind: z.literal("choice"), option: z.string() }),
  z.object({ kind: z.literal("cells"), cells: z.array(z.string()) }),
  z.object({ kind: z.literal("pair"), first: z.string(), second: z.string(), unit: unitIdSchema }),
  z.object({
    kind: z.literal("points"),
    points: z.array(z.object({ x: z.string(), y: z.string() })),
    unit: unitIdSchema,
  }),
  z.object({ kind: z.literal("vector"), x: z.string(), y: z.string(), unit: unitIdSchema }),
  z.object({ kind: z.literal("comparison"), better: z.string(), worse: z.string(), alike: z.boolean() }),
  /** In the order of the cells; empty or a question mark where there is none. */
  z.object({ kind: z.literal("scores"), scores: z.array(z.string()) }),
  z.object({ kind: z.literal("cannot read"), why: z.string() }),
]);
export type AnswerInput = z.infer<typeof answerInputSchema>;

export type InputIssue = { field: string; message: string; at: number | null };
export type ReadInput = { ok: true; value: AnswerValue; shares: Answer["shares"] } | { ok: false; issue: InputIssue };

/**
 * @param sitting the gauge, and what its closed jaws read: taken off each measured term
 */
export function readAnswerInput(site: Site, input: AnswerInput, sitting: Sitting): ReadInput {
  const { ask } = site;
  switch (input.kind) {
    case "quantity":
      return ask.kind === "quantity" ? quantity(ask, input, sitting) : wrongKind();
    case "count":
      return ask.kind === "count" ? count(ask, input.text) : wrongKind();
    case "ordinal":
      return ask.kind === "ordinal" && ask.categories.includes(input.category)
        ? plainly(input)
        : refused("category", "Choose one of the words.");
    case "choice":
      return ask.kind === "choice" && ask.options.some((o) => o.id === input.option)
        ? plainly(input)
        : refused("option", "Choose one of the drawings.");
    case "cells":
      return ask.kind === "cells" ? cells(ask, input.cells) : wrongKind();
    case "pair": {
      if (ask.kind !== "pair") return wrongKind();
      return joined(
        [
          size(input.first, "first", ask.dimension, input.unit, ask.firstJaws, sitting),
          size(input.second, "second", ask.dimension, input.unit, ask.secondJaws, sitting),
        ],
        ([first = 0, second = 0]) => ({ kind: "pair", first, second }),
      );
    }
    case "vector": {
      if (ask.kind !== "vector") return wrongKind();
      return joined(
        [length(input.x, "x", ask.dimension, input.unit), length(input.y, "y", ask.dimension, input.unit)],
        ([x = 0, y = 0]) => ({ kind: "vector", x, y }),
      );
    }
    case "points": {
      if (ask.kind !== "points") return wrongKind();
      // Where both are empty, or a question mark, nothing was seen.
      const isSeen = (i: number) => ![input.points[i]?.x, input.points[i]?.y].every((t) => NOT_SEEN.test(t ?? ""));
      const seen = ask.nominal.flatMap((_, i) => (isSeen(i) ? [i] : []));
      if (seen.length === 0) return refused("x0", "Enter at least one point.");
      return joined(
        seen.flatMap((i) => [
          length(input.points[i]?.x ?? "", `x${i}`, "length", input.unit),
          length(input.points[i]?.y ?? "", `y${i}`, "length", input.unit),
        ]),
        (all) => ({
          kind: "points",
          points: ask.nominal.map((_, i) => {
            const at = seen.indexOf(i);
            return at < 0 ? null : { x: all[2 * at] ?? 0, y: all[2 * at + 1] ?? 0 };
          }),
        }),
      );
    }
    case "comparison":
      return ask.kind === "comparison" ? comparison(ask, input) : wrongKind();
    case "scores":
      return ask.kind === "scores" ? scores(ask, input.scores) : wrongKind();
    case "cannot read":
      return wrongKind();
  }
}

function quantity(
  ask: Extract<Ask, { kind: "quantity" }>,
  input: Extract<AnswerInput, { kind: "quantity" }>,
  sitting: Sitting,
): ReadInput {
  const read = ask.atMachine
    ? length(input.text, "text", ask.dimension, input.unit)
    : size(input.text, "text", ask.dimension, input.unit, ask.jaws, sitting);
  if (!read.ok) return read;
  if (ask.signedBy && read.value !== 0 && input.words === null)
    return refused("words", "Say in words which it is: the sign comes from that.");
  const sign = ask.signedBy && input.words === "negative" ? -1 : 1;
  // Scatter around 0 does not change the direction that the words give.
  const least = ask.signedBy ? sitting.gauge.resolutionMm / 2 : -Infinity;
  const value = read.value < 0 ? Math.max(read.value, least) : read.value;
  return {
    ok: true,
    value: { kind: "quantity", value: value === 0 ? 0 : sign * value },
    shares: read.shares,
  };
}

function count(ask: Extract<Ask, { kind: "count" }>, text: string): ReadInput {
  if (!/^\d+$/.test(text.trim())) return refused("text", "Type a whole number, for example 3.");
  const value = Number(text.trim());
  return value > ask.most ? refused("text", `There are at most ${ask.most}.`) : plainly({ kind: "count", value });
}

function cells(ask: Extract<Ask, { kind: "cells" }>, chosen: string[]): ReadInput {
  const unknown = chosen.find((c) => !ask.cells.some((cell) => cell.id === c));
  if (unknown) return refused("cells", `There is no cell ${unknown}.`);
  if (chosen.length === 0 && !ask.noneToo) return refused("cells", "Choose at least one cell.");
  if (ask.mode === "one" && chosen.length > 1) return refused("cells", "Choose one cell only.");
  if (ask.mode === "range" && chosen.length !== 2 && chosen.length !== 1)
    return refused("cells", "Choose the first and the last cell.");
  return plainly({ kind: "cells", cells: chosen });
}

function comparison(
  ask: Extract<Ask, { kind: "comparison" }>,
  { better, worse, alike }: Extract<AnswerInput, { kind: "comparison" }>,
): ReadInput {
  const named = (text: string) => ask.cells.find((c) => c.id === text || c.label === text);
  const [a, b] = [named(better), named(worse)];
  if (!a) return refused("better", `There is no cell ${better}.`);
  if (!b) return refused("worse", `There is no cell ${worse}.`);
  if (a === b) return refused("worse", "Compare two different cells.");
  return plainly({ kind: "comparison", better: a.id, worse: b.id, alike });
}

function scores(ask: Extract<Ask, { kind: "scores" }>, texts: string[]): ReadInput {
  if (texts.length !== ask.cells.length)
    return refused("scores", `Enter ${ask.cells.length} scores, one for each cell.`);
  const values: (number | null)[] = [];
  for (const [i, text] of texts.entries()) {
    const read = NOT_SEEN.test(text) ? null : length(text, `score ${i}`, "ratio", "one");
    if (read && !read.ok) return read;
    values.push(read?.value ?? null);
  }
  return values.every((v) => v === null)
    ? refused("scores", "Enter the score of at least one cell.")
    : plainly({ kind: "scores", scores: values });
}

type Length = { ok: true; value: number; shares: Answer["shares"] } | { ok: false; issue: InputIssue };

/** How a point is written that was not seen. */
export const NOT_SEEN = /^\s*\??\s*$/;

/** A small size may be this many standard uncertainties below the zero of the jaws. */
const BELOW_ZERO = 3;

/**
 * A measured size, less the zero of the jaws for each measured term. Scatter may make a small size slightly negative. A typed 0 stays 0.
 */
function size(text: string, field: string, dimension: Dimension, unit: UnitId, jaws: Jaws, sitting: Sitting): Length {
  const read = parseReading(text, dimension, unit);
  if (!read.ok) return { ok: false, issue: { field, message: read.message, at: read.at } };
  if (read.value < 0) return refused(field, "This comes out below 0: put the larger number first.");
  if (dimension !== "length") return { ok: true, value: read.value, shares: PLAIN_SHARES };
  const shares = sharesOf(read.shares, sitting.gauge);
  const zeroMm = zeroOf(sitting, jaws);
  if (zeroMm === null)
    return refused(field, `This is measured with the ${jaws} jaws: close them and type first what they read.`);
  if (read.value === 0) return { ok: true, value: 0, shares };
  const value = read.value - zeroMm * shares.common;
  if (value < -BELOW_ZERO * readingUncertaintyMm(sitting.gauge) * shares.scatter)
    return refused(
      field,
      `${inUnit(read.value, sitting.gauge.unit, 4)} is less than the reading of the closed jaws (${inUnit(zeroMm, sitting.gauge.unit, 4)}). Measure again, or check the zero.`,
    );
  return { ok: true, value, shares };
}

/** Components and numbers of a readout may be negative: they have no words of their own for that. */
function length(text: string, field: string, dimension: Dimension, unit: UnitId): Length {
  const read = parseSignedReading(text, dimension, unit);
  if (!read.ok) return { ok: false, issue: { field, message: read.message, at: read.at } };
  return { ok: true, value: read.value, shares: PLAIN_SHARES };
}

function joined(parts: Length[], build: (values: number[]) => AnswerValue): ReadInput {
  const values: number[] = [];
  for (const part of parts) {
    if (!part.ok) return part;
    values.push(part.value);
  }
  return plainly(build(values));
}

function plainly(value: AnswerValue): ReadInput {
  return { ok: true, value, shares: PLAIN_SHARES };
}

function wrongKind(): ReadInput {
  return refused("text", "This site asks for something else.");
}

function refused(field: string, message: string): { ok: false; issue: InputIssue } {
  return { ok: false, issue: { field, message, at: null } };
}

/** What was put in at a site, as the answer that is kept: the same on the page, while the server is away, as on disk. */

export type TakenAnswer = { ok: true; answer: Answer } | { ok: false; issue: { field: string; message: string } };

/** @param sitting with its id, which the readings of one sitting share */
export function takenAnswer(
  site: Site,
  input: AnswerInput,
  sitting: Sitting & { id: number },
  from: Answer["from"],
): TakenAnswer {
  const common = { site: site.id, u: null, gauge: sitting.gauge.id, session: String(sitting.id), from };
  if (input.kind === "cannot read")
    return {
      ok: true,
      answer: { ...common, content: { status: "cannot read", why: input.why }, shares: PLAIN_SHARES },
    };
  const read = readAnswerInput(site, input, sitting);
  if (!read.ok) return read;
  return { ok: true, answer: { ...common, content: { status: "read", value: read.value }, shares: read.shares } };
}
