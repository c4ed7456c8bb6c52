/** An answer as a test gives it: read with one gauge in one session. */
import type { Gauge } from "../core/metrology/gauge";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";

type Value = Extract<Answer["content"], { status: "read" }>["value"];

export function readAnswer(site: string, value: Value, { id }: Pick<Gauge, "id">, from: Answer["from"]): Answer {
  return { site, content: { status: "read", value }, u: null, gauge: id, session: "1", shares: PLAIN_SHARES, from };
}
