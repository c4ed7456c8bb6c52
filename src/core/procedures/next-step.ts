/** What to do first on a machine, from how its procedures stand. */
import type { AnyProcedure } from "./contract";
import type { State } from "./state";

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
