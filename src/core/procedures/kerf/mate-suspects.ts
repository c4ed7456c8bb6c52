/** Pairs whose fit contradicts the others: each judgement by how likely it is by all others, two by their order, all by being reversed. */
import { evidenceOf, likelihoods } from "../../fitting/ordered-thresholds";
import { notAccepted, type OrderedSuspect } from "../../measuring/ordered-suspects";
import type { History, RoundRecord } from "../../trial/history";
import { isMateWay, type KerfPlan } from "./plan";
import { fitModel, type JudgedMate, judgedMates, readMates } from "./read-mates";
import { FITS } from "./sites";

/** All judgements of a ladder together are less likely than the limit in one of a hundred clean ones: a word off is part of the uncertainty. */
const FALSE_ALARMS = 0.01;
/** From so few none stands out. */
const FEW = 3;
/** Reversed words must be so much likelier than the words as they are. */
const REVERSED_FROM = 100;

export function mateSuspects(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): OrderedSuspect[] {
  const { plan } = round;
  if (!isMateWay(plan.way)) return [];
  const judged = judgedMates(history.decisions, round);
  if (judged.length <= FEW) return [];
  const reversed = reversedWords(plan, judged);
  if (reversed) return [reversed];
  const odd = byPair(unlikely(plan, judged));
  const open = notAccepted(odd, history.decisions);
  if (open.length < odd.length) {
    // What is accepted may be all that another pair contradicts.
    const accepted = odd.filter((s) => !open.includes(s)).flatMap((s) => s.judgements);
    const others = judged.filter((m) => !accepted.includes(m.id));
    return others.length > FEW ? byPair(unlikely(plan, others)) : [];
  }
  if (odd.length > 0) return odd;
  const contradiction = readMates(history.decisions, round)?.contradiction;
  return contradiction ? [orderOf(contradiction)] : [];
}

function unlikely(plan: KerfPlan, judged: readonly JudgedMate[]): JudgedMate[] {
  const likely = likelihoods(judged, fitModel(plan, judged));
  return judged.filter((_, i) => (likely[i] ?? 1) < FALSE_ALARMS / judged.length);
}

/** One for each pair, with all its judgements that do not match. */
function byPair(odd: readonly JudgedMate[]): OrderedSuspect[] {
  return [...new Set(odd.map((m) => m.index))].map((index) => {
    const here = odd.filter((m) => m.index === index);
    return {
      id: `pair ${index + 1} ${here.map((m) => m.id).join(" ")}`,
      headline: `Pair ${index + 1} does not match the other pairs.`,
      text: "Check that tongue and slot have the same value. Remove burrs and judge the pair again.",
      site: here[0]?.site ?? null,
      judgements: here.map((m) => m.id),
    };
  });
}

function orderOf({ first, second }: { first: JudgedMate; second: JudgedMate }): OrderedSuspect {
  return {
    id: `order ${first.id} ${second.id}`,
    headline: `Pair ${first.index + 1} is tighter than pair ${second.index + 1}, whose offset is larger.`,
    text: "Check that tongue and slot of both pairs have the same value. Judge both pairs again.",
    site: first.site,
    judgements: [first.id, second.id],
  };
}

/** Loose said for tight: with the words turned round the order is right. */
function reversedWords(plan: KerfPlan, judged: readonly JudgedMate[]): OrderedSuspect | null {
  const model = fitModel(plan, judged);
  const turned = judged.map((m) => ({ ...m, rank: FITS.length - 1 - m.rank }));
  const asSaid = evidenceOf(judged, model);
  if (!(evidenceOf(turned, model) > REVERSED_FROM * asSaid)) return null;
  return {
    id: "reversed fits",
    headline: "The fits look reversed.",
    text: "Pairs with a larger offset must be tighter. Check the order of the pairs and the words. Judge all pairs again.",
    site: judged[0]?.site ?? null,
    judgements: [],
  };
}
