/** When something happened, as a page sends it: the moment of a date and time field, or nothing for now. */
import { Refusal } from "./refusal";

/** Clocks of two computers differ by so much without anybody minding. */
const CLOCKS_DIFFER_MS = 60_000;
/** Before this no workshop wrote anything down here. */
const EARLIEST = Date.UTC(1990, 0, 1);

/**
 * @param at milliseconds; `null` = now
 * @throws Refusal at `at` for the future and for times nobody means
 */
export function happenedAt(at: number | null, now: number): number {
  if (at === null) return now;
  if (!Number.isFinite(at) || at < EARLIEST) throw new Refusal("at", "Give the day and the time it happened.");
  if (isAhead(at, now)) throw new Refusal("at", "That is in the future: note it when it has happened.");
  return Math.min(at, now);
}

/** Still to come, by more than clocks differ. */
export function isAhead(at: number | null, now: number): boolean {
  return at !== null && at > now + CLOCKS_DIFFER_MS;
}
