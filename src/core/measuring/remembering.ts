/** What was worked out of a round, once for all who ask: solving, judging and drawing ask for the same. */
import type { History, RoundRecord } from "../trial/history";

/** What of a history decides the result of a round. */
export type HistoryKnown<P> = Pick<History<P>, "decisions" | "gauges" | "machine" | "rounds">;

/** @param work whose result depends on the round and those parts of the history alone */
export function remembering<P, T, H extends HistoryKnown<P> = HistoryKnown<P>>(
  work: (history: H, round: RoundRecord<P>) => T,
): (history: H, round: RoundRecord<P>) => T {
  const byRound = new WeakMap<object, { history: HistoryKnown<P>; result: T }>();
  return (history, round) => {
    const before = byRound.get(round);
    if (before && isSame(before.history, history)) return before.result;
    const result = work(history, round);
    byRound.set(round, { history, result });
    return result;
  };
}

function isSame<P>(a: HistoryKnown<P>, b: HistoryKnown<P>): boolean {
  return (
    a.decisions === b.decisions && a.gauges === b.gauges && a.machine === b.machine && sameRounds(a.rounds, b.rounds)
  );
}

function sameRounds(a: readonly object[], b: readonly object[]): boolean {
  return a === b || (a.length === b.length && a.every((round, i) => round === b[i]));
}
