/**
 * Readings that no law fits, each point by itself: a reading that contradicts its repeats or what is drawn there can still be named.
 *
 *   y_i = m_point + e_i,   m_point = what is drawn there, within what is usual before anything is read
 */
import { type Model, usual } from "../estimate/model";
import { withinSentence } from "../metrology/sentence-case";
import type { History, RoundRecord } from "../trial/history";
import { lengthReadings, modelOf } from "./length-readings";

/** What a point should read by all readings of a history; `null` where they say nothing. */
export type Expected<P> = (history: History<P>, site: string) => { value: number; standardUncertainty: number } | null;

/** @returns `null` where no length is read */
export function observePoints<P>(history: History<P>, round: RoundRecord<P>, expected: Expected<P>): Model | null {
  // What a readout of the machine scatters, no gauge says.
  const sites = round.spec.sites.filter((s) => s.ask.kind === "quantity" && !s.ask.atMachine);
  const readings = lengthReadings(
    round.answers,
    sites.map((s) => s.id),
    history.gauges,
    history.decisions,
  );
  if (readings.length === 0) return null;
  const unread = { ...history, rounds: history.rounds.map((r) => (r === round ? { ...round, answers: [] } : r)) };
  const drawn = new Map(
    sites.flatMap((s) => {
      const before = expected(unread, s.id);
      return before ? [[s.id, before] as const] : [];
    }),
  );
  const label = (id: string) => withinSentence(sites.find((s) => s.id === id)?.label ?? id);
  return modelOf(readings, {
    row: (r) => ({ [r.site]: 1 }),
    y: (r) => r.value - (drawn.get(r.site)?.value ?? 0),
    terms: [],
    facts: (r) => ({ pointLabel: label(r.site), signedByWords: false }),
    known: [...drawn].flatMap(([id, { standardUncertainty }]) =>
      readings.some((r) => r.site === id) ? [usual(id, `usual size of ${label(id)}`, standardUncertainty)] : [],
    ),
    wanted: [],
  });
}
