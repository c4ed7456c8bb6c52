/** How often a clean coupon is asked about while its readings are typed, one after the other. */

import { questionAbout } from "../../core/course/plausibility";
import type { AnyProcedure } from "../../core/procedures/contract";
import type { History } from "../../core/trial/history";

export type Asked = { site: string; nth: number; question: string };

/** Every question about a coupon, in the order in which its readings were typed. */
export function questionsOf(procedure: AnyProcedure, history: History): Asked[] {
  const round = history.rounds.at(-1);
  if (!round) return [];
  return round.answers.flatMap(({ site: id, content }, nth): Asked[] => {
    const site = round.spec.sites.find((s) => s.id === id);
    if (!site || content.status !== "read") return [];
    const before = { ...round, answers: round.answers.slice(0, nth) };
    const rounds = history.rounds.map((r) => (r === round ? before : r));
    const question = questionAbout(procedure, { ...history, rounds }, site, content.value);
    return question ? [{ site: id, nth, question }] : [];
  });
}
