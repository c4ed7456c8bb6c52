/** What more reading would do to the uncertainty: the same model over readings that are not taken yet, with the scatter that was found. */
import { type Adjustment, adjust } from "../estimate/adjustment";
import { ofReadings } from "../estimate/model";
import type { Gauge } from "../metrology/gauge";
import { type Answer, imaginedReading, quantitiesAt } from "../trial/answer";
import type { History, RoundRecord } from "../trial/history";
import type { Observe } from "./examined";

/** So many more readings at a point, with another gauge or with the one used last. */
export type MoreReading = { site: string; count: number; gauge: Gauge | null };

/** Session of a gauge that is not in hand yet. */
const NEW_SESSION = "not begun";

/**
 * The adjustment as it would be. Values stay as they are: only how well they are known changes.
 *
 * @param usualAt what is read at a point where nothing is read yet, internal unit
 * @returns `null` while too little is read
 */
export function foreseen<P>(
  history: History<P>,
  round: RoundRecord<P>,
  observe: Observe<P>,
  now: Adjustment,
  more: readonly MoreReading[],
  usualAt: (site: string) => number,
): Adjustment | null {
  const last = round.answers.findLast((a) => history.gauges.some((g) => g.id === a.gauge));
  const answers = more.flatMap(({ site, count, gauge }): Answer[] => {
    const read = quantitiesAt(round.answers, site);
    const value = read.length > 0 ? read.reduce((sum, v) => sum + v, 0) / read.length : usualAt(site);
    const reading = imaginedReading({
      site,
      value,
      gauge: gauge?.id ?? last?.gauge ?? "",
      session: gauge ? NEW_SESSION : (last?.session ?? NEW_SESSION),
    });
    return Array.from({ length: count }, () => reading);
  });
  const taken = more.flatMap((m) => (m.gauge ? [m.gauge] : []));
  const gauges = [...history.gauges, ...taken.filter((g) => !history.gauges.some((known) => known.id === g.id))];
  const grown = { ...round, answers: [...round.answers, ...answers] };
  const rounds = history.rounds.map((r) => (r === round ? grown : r));
  const model = observe({ ...history, gauges: [...new Map(gauges.map((g) => [g.id, g])).values()], rounds }, grown);
  return model && adjust(ofReadings(model), now.scatter);
}
