/**
 * How a procedure stands on a machine: derived each time from trials, ledger, events and fittings, never stored.
 *
 *   open, to prove   a trial is under way
 *   not done         never proved
 *   stale            something changed since that makes the result invalid
 *   drifting         the last check found it outside its tolerance, or the as-found errors leave their chart
 *   check due        something changed that may matter, or the recheck interval is over
 *   holding          none of these
 */
import type { Ruling } from "../metrology/tolerance";
import type { AnyProcedure } from "../procedures/contract";

export const STATES = ["not done", "open", "to prove", "holding", "check due", "drifting", "stale"] as const;
export type State = (typeof STATES)[number];

/** The word that a person reads. */
export const STATE_WORDS: Record<State, string> = {
  "not done": "not done",
  open: "open",
  "to prove": "to prove",
  holding: "valid",
  "check due": "check due",
  drifting: "drifting",
  stale: "out of date",
};

/** Whether a trial is under way. */
export function isOpen(state: State): state is "open" | "to prove" {
  return state === "open" || state === "to prove";
}

/** Times are milliseconds. */
export type Standing = {
  open: { since: number; toProve: boolean } | null;
  /** The newest proof. */
  proved: { at: number } | null;
  /** The newest check since, whatever it found. */
  check: { at: number; result: Ruling } | null;
  /** What the procedure needs and what changed there, at any time. */
  changes: readonly { at: number; effect: "stale" | "check"; why: string }[];
  /** What the chart of as-found errors shows; `null` while it is in order or too short. */
  drift: string | null;
  recheckDays: number;
};

export type Derived = {
  state: State;
  /** Since when; `null` where never. */
  since: number | null;
  /** Why, in words: newest first. */
  reasons: string[];
};

export const DAY_MS = 86_400_000;

export function stateOf(standing: Standing, now: number): Derived {
  const { open, proved, check } = standing;
  if (open) return { state: open.toProve ? "to prove" : "open", since: open.since, reasons: [] };
  if (!proved) return { state: "not done", since: null, reasons: [] };
  const held = check && check.at > proved.at && check.result === "proved" ? check.at : proved.at;
  const since = standing.changes.filter((c) => c.at > held).sort((a, b) => b.at - a.at);
  const stale = since.filter((c) => c.effect === "stale");
  const first = stale[0];
  if (first) return { state: "stale", since: first.at, reasons: unique(stale) };
  if (check && check.at > proved.at && check.result === "not proved")
    return { state: "drifting", since: check.at, reasons: ["the last check found it outside its tolerance"] };
  if (standing.drift) return { state: "drifting", since: check?.at ?? proved.at, reasons: [standing.drift] };
  const due = held + standing.recheckDays * DAY_MS;
  const reasons = [
    ...unique(since),
    ...(check && check.at > held && check.result === "cannot tell" ? ["the last check was undecided"] : []),
    ...(now > due ? [`a check is due every ${standing.recheckDays} days`] : []),
  ];
  if (reasons.length > 0) return { state: "check due", since: since[0]?.at ?? (now > due ? due : held), reasons };
  return { state: "holding", since: held, reasons: [] };
}

function unique(changes: readonly { why: string }[]): string[] {
  return [...new Set(changes.map((c) => c.why))];
}

/** What to do first on a machine, from how its procedures stand. */

export type Stands = { procedure: Pick<AnyProcedure, "id" | "settings" | "needs" | "occasional">; state: State };

/** What is known to be wrong comes first, then what is under way, then what is due, then what was never done. */
const FIRST: readonly State[] = ["stale", "open", "to prove", "drifting", "check due", "not done"];

/**
 * @param stands in practice order
 * @returns the first to do, `null` where everything holds
 *
 * Among stale ones those come first that need no setting of another stale one: its correction would make them stale again.
 */
export function firstToDo<S extends Stands>(stands: readonly S[]): S | null {
  for (const state of FIRST) {
    const those = stands.filter((s) => s.state === state && !(state === "not done" && s.procedure.occasional));
    const first = those.find((s) => !those.some((other) => other !== s && needsOf(s, other))) ?? those[0];
    if (first) return first;
  }
  return null;
}

/** Whether one needs a setting that the other corrects. */
function needsOf({ procedure }: Stands, other: Stands): boolean {
  const corrected = other.procedure.settings.map((s) => s.key);
  return procedure.needs.some((need) => need.on === "setting" && corrected.includes(need.what));
}
