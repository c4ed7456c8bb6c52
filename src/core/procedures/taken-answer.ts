/** What was put in at a site, as the answer that is kept: the same on the page, while the server is away, as on disk. */
import type { Site } from "../coupon/site";
import type { Sitting } from "../metrology/sitting";
import { type Answer, PLAIN_SHARES } from "./answer";
import { type AnswerInput, readAnswerInput } from "./answer-input";

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
