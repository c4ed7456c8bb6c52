/**
 * What a procedure stands on: when that changes after a proof, the result is invalid or due for a check.
 *
 * Each procedure names its own needs; what holds for all of them stands here.
 */
import { CHANGES, type ChangeKind } from "./change";

export type Effect = "stale" | "check";

export type Need =
  /** A setting corrected by another procedure, by its key. */
  | { on: "setting"; what: string; effect: Effect; why: string }
  | { on: "change"; what: ChangeKind; effect: Effect }
  /** Any other optic than the one of the proof. */
  | { on: "optic"; effect: Effect }
  | { on: "rotary"; effect: Effect };

/** What makes any proof invalid, or due for a check. */
export const WHY = {
  gauge: "a gauge that it was read with was found wrong",
  ownEntry: "its own entry was changed",
  otherOptic: "another optic was fitted",
  otherRotary: "another rotary was fitted",
  /** Fitted before, and fitted again. */
  knownOptic: "an optic that was fitted before was fitted again",
  knownRotary: "a rotary that was fitted before was fitted again",
  newBatch: "a new batch of the stock was begun",
  elsewhere: "it was proved on another bench: read back here what the controller holds",
} as const;

/** The reason as the bench says it. */
export function reasonOf(need: Need): string {
  if (need.on === "setting") return need.why;
  if (need.on === "change") return CHANGES[need.what].happened;
  return need.on === "optic" ? WHY.otherOptic : WHY.otherRotary;
}

/** What fitting does to a result that needs it: a part that was fitted before is only due for a check. */
export function effectOfFitting(
  need: Need & { on: "optic" | "rotary" },
  known: boolean,
): { effect: Effect; why: string } {
  if (!known) return { effect: need.effect, why: reasonOf(need) };
  return { effect: "check", why: need.on === "optic" ? WHY.knownOptic : WHY.knownRotary };
}

/** What makes a result stale and what makes it due for a check, in words; what holds for every procedure last. */
export function needsText(needs: readonly Need[]): Record<Effect, string[]> {
  const fitted = (["optic", "rotary"] as const).filter((kind) => needs.some((n) => n.on === kind));
  const known = fitted.map((kind) => (kind === "optic" ? WHY.knownOptic : WHY.knownRotary));
  const of = (effect: Effect) => needs.filter((n) => n.effect === effect).map(reasonOf);
  return { stale: [...of("stale"), WHY.ownEntry, WHY.gauge], check: [...of("check"), ...known] };
}
