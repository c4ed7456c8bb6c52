/** The ways of burning for the focus, and the rounds that were burned one way. */
import type { History, RoundRecord } from "../../trial/history";
import type { BurnWay } from "./burn-way";
import type { Found } from "./found";
import { heightLadder } from "./ladder/way";
import type { FocusPlan, FocusWay } from "./plan";
import { ramp } from "./ramp/way";
import { liveSweep } from "./sweep/way";

// biome-ignore lint/suspicious/noExplicitAny: each is only given plans of its own way
const WAYS: Readonly<Record<FocusWay, BurnWay<any>>> = { ladder: heightLadder, ramp, sweep: liveSweep };

/** Rounds that were burned before there were three ways say none: they are ladders. */
type MaybeWay = { way?: FocusWay };

function wayIn({ way = "ladder" }: MaybeWay): FocusWay {
  return way;
}

export function burnWayOf(plan: MaybeWay): BurnWay<FocusPlan> {
  return WAYS[wayIn(plan)];
}

/** With the rounds of one way only: others tell nothing of it. */
export function historyOfWay(history: History<FocusPlan>, plan: MaybeWay): History<FocusPlan> {
  return { ...history, rounds: history.rounds.filter((r) => wayIn(r.plan) === wayIn(plan)) };
}

export function foundIn(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): Found {
  return burnWayOf(round.plan).found(historyOfWay(history, round.plan), round);
}
