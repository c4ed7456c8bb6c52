/** Focus height: what is burned at several heights shows at which of them the beam is narrowest. */

import type { Model } from "../../estimate/model";
import type { OrderedSuspect } from "../../measuring/ordered-suspects";
import { isUndecided, UNDECIDED } from "../../measuring/plain-course";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { defineProcedure } from "../contract";
import type { BurnWay } from "./burn-way";
import { burnWayOf, foundIn, historyOfWay } from "./burn-ways";
import { GO_BY } from "./found";
import { judgeFocus } from "./judge";
import { type FocusPlan, STORED_HEIGHT, settingOf } from "./plan";
import { focusPlan } from "./plan-faults";
import { FOCUS_SETTING, STORED_SETTING } from "./setting";
import { solveFocus } from "./solve";

export const focus = defineProcedure<FocusPlan>({
  id: "focus",
  title: "Focus height",
  summary: "Find the height at which the beam is narrowest on the work",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [FOCUS_SETTING, STORED_SETTING],
  needs: [
    { on: "optic", effect: "stale" },
    { on: "change", what: "mirrors", effect: "stale" },
    { on: "change", what: "tube", effect: "stale" },
    { on: "change", what: "supply", effect: "check" },
    { on: "change", what: "home", effect: "stale" },
    { on: "change", what: "bed", effect: "stale" },
  ],
  tolerance: { default: 1, unit: "mm", label: "Largest distance from focus" },
  recheck: { defaultDays: 90, why: "Screws and tables settle." },
  plan: focusPlan,
  sets: ({ setIn }) => [settingOf(setIn)],
  warnings: (plan, context) => burnWayOf(plan).warnings(plan, context),
  round: (plan, context, purpose) => burnWayOf(plan).round(plan, context, purpose),
  checkPlan: (last) => ({ ...last, homedMm: undefined }),
  observe: observeFocus,
  solve: solveFocus,
  judged: (history, round) => {
    const { chosen } = foundIn(history, round);
    return chosen && { label: "the focus height", quantity: chosen.found.quantity };
  },
  contradicting: contradicting,
  next: nextRound,
  judge: judgeFocus,
  overlay: (history) => ofLast(history, (way, own) => way.overlay(own)) ?? [],
  detail: (history, focus) => ofLast(history, (way, own) => way.detail(own, focus)) ?? null,
});

function contradicting(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): OrderedSuspect[] {
  return burnWayOf(round.plan).contradicting?.(historyOfWay(history, round.plan), round) ?? [];
}

/** The readings of a burn as a model, together with those of other burns of its way that are one with it. */
function observeFocus(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): Model | null {
  return burnWayOf(round.plan).observe?.(historyOfWay(history, round.plan), round) ?? null;
}

/** Asks the way of the newest round, which knows rounds of its own only. */
function ofLast<T>(
  history: History<FocusPlan>,
  ask: (way: BurnWay<FocusPlan>, own: History<FocusPlan>) => T,
): T | undefined {
  const last = history.rounds.at(-1);
  return last && ask(burnWayOf(last.plan), historyOfWay(history, last.plan));
}

function nextRound(history: History<FocusPlan>, outcome: Outcome, verdict: Verdict | null): Next<FocusPlan> {
  const last = history.rounds.at(-1);
  if (!last) return { do: "stop", why: "Nothing is laid out yet." };
  const unread = sitesLeft(last.spec.sites, last.answers).map((s) => s.id);
  const told = foundIn(history, last);
  if (told.judged && told.beyond && GO_BY.of(history.decisions) !== "sharpest")
    return { do: "round", purpose: "refine", set: [], ...told.beyond };
  if (outcome.status !== "solved" || (last.purpose !== "proof" && unread.length === last.spec.sites.length))
    return {
      do: "read",
      sites: unread,
      why: outcome.status === "unsolvable" ? outcome.reason : burnWayOf(last.plan).nothingRead,
    };
  if (verdict && unread.length > 0)
    return { do: "read", sites: unread, why: `Read the remaining points of the ${last.purpose}.` };
  if (verdict?.result === "proved")
    return {
      do: "stop",
      why: last.purpose === "check" ? "Still valid. Change nothing." : "Proved: the focus is at the set height.",
    };
  if (verdict && isUndecided(verdict, last)) return { do: "read", sites: verdict.ways[0]?.sites ?? [], why: UNDECIDED };
  const [correction] = outcome.corrections;
  const { chosen } = told;
  if (!correction || !chosen)
    return { do: "read", sites: [], why: "Confirm the stored value first. The new value builds on it." };
  const middle = correction.setting === STORED_HEIGHT ? chosen.found.quantity.value : (correction.rows[0]?.enter ?? 0);
  return {
    do: "round",
    purpose: "proof",
    set: [correction.setting],
    plan: burnWayOf(last.plan).proofPlan(historyOfWay(history, last.plan), last, middle),
    why: verdict
      ? "Set the height from this burn, then burn another proof around it."
      : "Burn a short proof around the new height. Cells above and below should look alike.",
  };
}
