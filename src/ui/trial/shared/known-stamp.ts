import type { TakenReading, TrialStamp, TrialView } from "../../../server/trial/trial-view";

/**
 * Whether a page has everything that a stamp stands for.
 *
 * @param n round in hand, of which the page may know newer readings than its view
 */
export function isKnown(
  stamp: TrialStamp,
  view: Pick<TrialView, "stamp">,
  n?: number,
  readings: readonly Pick<TakenReading, "id">[] = [],
): boolean {
  if (stamp.rest !== view.stamp.rest) return false;
  return Object.entries(stamp.readings).every(([round, there]) => {
    const here =
      Number(round) === n
        ? { count: readings.length, newest: Math.max(0, ...readings.map((r) => r.id)) }
        : view.stamp.readings[Number(round)];
    return here?.count === there.count && here.newest === there.newest;
  });
}
