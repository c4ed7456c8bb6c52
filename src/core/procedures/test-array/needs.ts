/** What makes marking settings of a stock out of date, or due for a check. */
import type { Need } from "../../machine/need";
import { FOCUS_HEIGHT } from "../focus/plan";

export const MARKING_NEEDS: readonly Need[] = [
  { on: "optic", effect: "stale" },
  { on: "setting", what: FOCUS_HEIGHT, effect: "check", why: "the focus height was changed" },
  { on: "change", what: "tube", effect: "stale" },
  { on: "change", what: "mirrors", effect: "check" },
  { on: "change", what: "supply", effect: "check" },
];

export const MARKING_RECHECK = { defaultDays: 180, why: "Sources age, and stock differs from batch to batch." };
