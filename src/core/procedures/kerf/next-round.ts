/** What comes next: more mates where snug lies beyond them, finer ones where that is worth it, then the proof. */

import { plainNext } from "../../measuring/plain-course";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { kerfIn } from "./found";
import { clearanceOf, isMateWay, type KerfPlan } from "./plan";
import { readMates } from "./read-mates";

/** A finer ladder has so many steps in one of the one before. */
const FINER = 4;
/** A gap that differs by less nobody feels, mm. (common practice, no source) */
const FELT_MM = 0.02;
/** Mates of a proof: enough for an easier and a harder one beside the snug ones. */
const PROOF_MATES = 9;
/** Offsets are drawn to this, mm. */
const DRAWN_STEP_MM = 0.001;

const WORDS = {
  read: "Read the sizes or judge the pairs first.",
  prove: "Cut the coupon again with the offset. Its sizes should be as drawn.",
  proved: "Proved: sizes cut with this offset are as drawn.",
  holding: "Still valid. Change nothing.",
};

export function nextKerf(history: History<KerfPlan>, outcome: Outcome, verdict: Verdict | null): Next<KerfPlan> {
  const last = history.rounds.at(-1);
  const more = last && isMateWay(last.plan.way) ? moreMates(history, last) : null;
  return more ?? plainNext(history, outcome, verdict, WORDS, last ? proofOf(history, last) : { why: WORDS.read });
}

/** Another ladder before there can be a proof; `null` where this one will do. */
function moreMates(history: History<KerfPlan>, last: RoundRecord<KerfPlan>): Next<KerfPlan> | null {
  if (sitesLeft(last.spec.sites, last.answers).length > 0) return null;
  const read = readMates(history.decisions, last);
  if (!read || read.contradiction) return null;
  const { plan } = last;
  if (read.open) {
    const shift = (plan.mates - 2) * plan.stepMm * (read.open === "smaller" ? -1 : 1);
    return {
      do: "round",
      purpose: "refine",
      set: [],
      plan: { ...plan, firstMm: rounded(plan.firstMm + shift) },
      why: `Snug is beyond the ${read.open === "smaller" ? "first" : "last"} pair. Lay out more pairs on that side.`,
    };
  }
  const { snug } = read;
  if (!snug || last.purpose === "proof" || expandedUncertainty(snug) <= history.tolerance) return null;
  const finer = finerAround(plan, snug.value, plan.mates);
  if (finer.stepMm >= plan.stepMm) return null;
  return {
    do: "round",
    purpose: "refine",
    set: [],
    plan: finer,
    why: `The uncertainty is ± ${plain(expandedUncertainty(snug), 3)} mm, more than the tolerance of ${plain(history.tolerance, 3)} mm. Cut pairs in smaller steps.`,
  };
}

function proofOf(
  history: History<KerfPlan>,
  last: RoundRecord<KerfPlan>,
): { plan: KerfPlan; set: string[] } | { why: string } {
  const found = kerfIn(history, last);
  if (!found) return { why: WORDS.read };
  const { plan } = last;
  if (found.snug) return { plan: finerAround(plan, found.snug.value, PROOF_MATES), set: [] };
  return {
    set: [],
    plan: {
      ...plan,
      way: plan.way === "comb" ? "part and hole" : plan.way,
      grownMm: rounded(found.kerf.quantity.value / 2),
    },
  };
}

/** Around an offset, a quarter as far apart, and as many as reach a step of before either way. */
function finerAround(plan: KerfPlan, offset: number, mates: number): KerfPlan {
  const stepMm = Math.max(rounded(FELT_MM / clearanceOf(plan).perOffset), rounded(plan.stepMm / FINER));
  return { ...plan, stepMm, mates, firstMm: rounded(offset - ((mates - 1) / 2) * stepMm) };
}

function rounded(mm: number): number {
  return Math.round(mm / DRAWN_STEP_MM) * DRAWN_STEP_MM;
}
