/**
 * The time of the bench. A computer whose clock was set back would date what is new before what is old, and an older value
 * would seem to be in force; so no moment is given out that is not after all that is written already.
 */
import type { Database } from "../../data/database";
import { newestMoment } from "../../data/newest-moment";
import { database } from "../../data/server-database";

/** Clocks are put right by so much without anybody minding. */
const PUT_RIGHT_MS = 120_000;

/** By connection, as of so many changes through it: what is only looked at moves no time. */
const known = new WeakMap<Database, { changes: number; newest: number }>();

/**
 * The moment of what happens now.
 *
 * @param clock what the computer says, ms
 */
export function momentNow(db: Database = database(), clock = Date.now()): number {
  return Math.max(clock, newestOf(db) + 1);
}

/** The computer's clock and the newest moment of the bench, where the clock is behind it; `null` = it is right. */
export function clockSetBack(db: Database, clock: number): { clock: number; newest: number } | null {
  const newest = newestOf(db);
  return clock < newest - PUT_RIGHT_MS ? { clock, newest } : null;
}

function newestOf(db: Database): number {
  const { changes } = db.$client.prepare("select total_changes() as changes").get() as { changes: number };
  const before = known.get(db);
  if (before?.changes === changes) return before.newest;
  const newest = newestMoment(db);
  known.set(db, { changes, newest });
  return newest;
}
