/** What was read at a site, and where it came from. */
import { z } from "zod";
import type { Site } from "../coupon/site";
import { couponPointSchema } from "../geometry/frames";

export const answerValueSchema = z.discriminatedUnion("kind", [
  /** Internal unit; signed by the words chosen. */
  z.object({ kind: z.literal("quantity"), value: z.number() }),
  z.object({ kind: z.literal("count"), value: z.number().int().nonnegative() }),
  z.object({ kind: z.literal("ordinal"), category: z.string() }),
  z.object({ kind: z.literal("choice"), option: z.string() }),
  z.object({ kind: z.literal("cells"), cells: z.array(z.string()) }),
  z.object({ kind: z.literal("pair"), first: z.number(), second: z.number() }),
  z.object({ kind: z.literal("points"), points: z.array(couponPointSchema.nullable()) }),
  z.object({ kind: z.literal("vector"), x: z.number(), y: z.number() }),
  /** Ids of two cells. Where they look alike, their order means nothing. */
  z.object({ kind: z.literal("comparison"), better: z.string(), worse: z.string(), alike: z.boolean() }),
  /** In the order of the cells of the ask; `null` = cannot be read. */
  z.object({ kind: z.literal("scores"), scores: z.array(z.number().nullable()) }),
]);
export type AnswerValue = z.infer<typeof answerValueSchema>;

export const answerSchema = z.object({
  site: z.string(),
  content: z.discriminatedUnion("status", [
    z.object({ status: z.literal("read"), value: answerValueSchema }),
    z.object({ status: z.literal("cannot read"), why: z.string() }),
  ]),
  /** Standard uncertainty where the source states one of its own, internal unit. */
  u: z.number().positive().nullable(),
  /** Id of the gauge; readings of one gauge share its limit of error. */
  gauge: z.string(),
  /** The sitting it was taken in; readings of one session share the zero of the jaws. */
  session: z.string(),
  /** How often what the gauge always reads wrong, and its scatter, are in the value: 1 and 1 for a plain reading. */
  shares: z.object({ common: z.number(), scatter: z.number().positive() }),
  from: z.enum(["typed", "wedge", "practice", "picture"]),
  /** Not taken: it stands in a forecast or a prediction, and is never kept. */
  imagined: z.literal(true).optional(),
  /** The picture, the version of the reader, whether the marks were moved by hand, and the degrees of freedom of `u`. */
  picture: z
    .object({
      sha256: z.string(),
      reader: z.number().int(),
      edited: z.boolean(),
      degreesOfFreedom: z.number().positive().optional(),
    })
    .optional(),
});
export type Answer = z.infer<typeof answerSchema>;

export const PLAIN_SHARES: Answer["shares"] = { common: 1, scatter: 1 };

/** A reading that is not taken yet: forecasts and predictions need its point, gauge and session. */
export function imaginedReading({
  site,
  value,
  gauge,
  session,
}: Pick<Answer, "site" | "gauge" | "session"> & { value: number }): Answer {
  return {
    site,
    content: { status: "read", value: { kind: "quantity", value } },
    u: null,
    gauge,
    session,
    shares: PLAIN_SHARES,
    from: "typed",
    imagined: true,
  };
}

/** Values of the plain quantities read at a site, in order. */
export function quantitiesAt(answers: readonly Answer[], site: string): number[] {
  return answers.flatMap((a) =>
    a.site === site && a.content.status === "read" && a.content.value.kind === "quantity"
      ? [a.content.value.value]
      : [],
  );
}

/** What was read at a site, in order. */
export function valuesAt(answers: readonly Answer[], site: string): AnswerValue[] {
  return answers.flatMap((a) => (a.site === site && a.content.status === "read" ? [a.content.value] : []));
}

/** Sites that need something still, in their order: not read often enough, and not made needless by what was read elsewhere. */
export function sitesLeft(sites: readonly Site[], answers: readonly Answer[]): Site[] {
  return sites.filter((site) => !siteIsDone(site, answers) && !isNeedless(site, sites, answers));
}

function isNeedless({ onlyWithin }: Site, sites: readonly Site[], answers: readonly Answer[]): boolean {
  const asked = onlyWithin && sites.find((s) => s.id === onlyWithin.site)?.ask;
  const said = answers.findLast((a) => a.site === onlyWithin?.site)?.content;
  if (!onlyWithin || asked?.kind !== "cells" || said?.status !== "read" || said.value.kind !== "cells") return false;
  const order = asked.cells.map((c) => c.id);
  const at = order.indexOf(onlyWithin.cell);
  const range = said.value.cells.map((id) => order.indexOf(id));
  return at < Math.min(...range) || at > Math.max(...range);
}

/** Whether a site needs nothing more: read as often as asked, once in a picture that shows all of it, or given up. */
export function siteIsDone(site: Pick<Site, "id" | "repeats" | "more">, answers: readonly Answer[]): boolean {
  const here = answers.filter((a) => a.site === site.id);
  if (here.some((a) => a.content.status === "cannot read")) return true;
  const needed = here.some((a) => a.picture !== undefined) ? 1 + (site.more ?? 0) : site.repeats;
  return here.length >= needed;
}
