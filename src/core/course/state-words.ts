/** The word that a person reads for the state of a procedure. */
import type { State } from "./state";

export const STATE_WORDS: Record<State, string> = {
  "not done": "not done",
  open: "open",
  "to prove": "to prove",
  holding: "valid",
  "check due": "check due",
  drifting: "drifting",
  stale: "out of date",
};
