/**
 * Verdict on a scan offset: stagger before and after for each speed, and the cause that a wrong ratio points to.
 *
 *   r = S_after / S_before, only where |S_before| > 8 u: 0 good; 0.5 the controller halves again; 1 not in force;
 *   -1 whole stagger entered; 2 reversed; 3 reversed and whole; 1 - 1/25.4 an inch taken for mm; 1 - 25.4 mm taken for
 *   an inch; (S + 2 old)/S the old table was lost.
 */
import { chiSquaredUpperTail } from "../../fitting/chi-squared";
import type { MachineSpec } from "../../machine/machine-spec";
import { headlineOf } from "../../measuring/plain-course";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, shownLength, shownNumber } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import { ruling, worstRuling } from "../../metrology/tolerance";
import { MM_PER_INCH } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/whole-proof";
import { analyse, staggerUsed } from "./analysis";
import { isAtRows, siteId } from "./coupon";
import { entryInForce } from "./in-force";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan";
import { shiftCauses, shiftLines } from "./row-shift";
import { waysOut } from "./ways";

const SURE_OF_BEFORE = 8;
/** A cause is named when the readings fit it at least this well. */
const EXPLAINS_FROM = 0.001;

type Pair = { speedMmPerS: number; before: Measured; after: Measured; oldEntry: number };

type Cause = {
  id: string;
  expected: (pair: Pair) => number;
  headline: string;
  text: string;
  /** The text if the sense is only assumed. The next correction then has the right sign. */
  assumedText?: (machine: string) => string;
};

const otherSense = (machine: string) =>
  `A larger entry has the other effect than assumed. Enter the values from Correct, and enter the effect on the page of ${machine}.`;

/** In the order in which they are believed when several fit. */
const CAUSES: Cause[] = [
  {
    id: "not in force",
    expected: (p) => p.before.value,
    headline: "The stagger is the same as in the first burn.",
    text: "Check that the correction is switched on and that the table was sent to the controller.",
  },
  {
    id: "old table lost",
    expected: (p) => p.before.value + 2 * p.oldEntry,
    headline: "The rows show no correction at all.",
    text: "Check that the correction is switched on. Read the table back and enter the new values again.",
  },
  {
    id: "whole",
    expected: (p) => -p.before.value,
    headline: "The stagger is as large as in the first burn, with the opposite sign.",
    text: "The whole stagger was probably entered. Enter half the stagger.",
  },
  {
    id: "halved",
    expected: (p) => p.before.value / 2,
    headline: "Half of the stagger remains at every speed.",
    text: "The controller seems to halve its entries, or half of the value was entered. Enter twice the value, then burn another proof.",
  },
  {
    id: "reversed",
    expected: (p) => 2 * p.before.value,
    headline: "The stagger has doubled.",
    text: "The entries have the opposite effect. Enter them with the opposite sign.",
    assumedText: otherSense,
  },
  {
    id: "reversed whole",
    expected: (p) => 3 * p.before.value,
    headline: "The stagger is three times as large as before.",
    text: "The whole stagger was entered, and the entries have the opposite effect. Enter half the stagger with the opposite sign.",
    assumedText: otherSense,
  },
  {
    id: "mm as inch",
    expected: (p) => p.before.value * (1 - MM_PER_INCH),
    headline: "The stagger is about 24 times larger, with the opposite sign.",
    text: "The controller takes inches where mm were entered. Divide the values by 25.4.",
  },
  {
    id: "inch as mm",
    expected: (p) => p.before.value * (1 - 1 / MM_PER_INCH),
    headline: "The stagger is almost the same as before.",
    text: "The values seem 25.4 times too small. Check whether inches were entered where the controller takes mm.",
  },
];

/** The newest round, where it is a proof or a check and something is read. */
export function proofRound(history: History<ScanOffsetPlan>): RoundRecord<ScanOffsetPlan> | undefined {
  const last = history.rounds.at(-1);
  const judged = last?.purpose === "proof" || last?.purpose === "check";
  return judged && last.answers.some((a) => isAtRows(a.site) && a.content.status === "read") ? last : undefined;
}

export function judgeScanOffset(history: History<ScanOffsetPlan>): Verdict | null {
  const { tolerance } = history;
  const proof = proofRound(history);
  const analysis = proof ? analyse(history, proof) : null;
  if (!proof || !analysis) return null;
  const unit = lengthUnitOf(history);
  const pairs = pairsOf(history, proof);
  const staggers = analysis.speeds.map((s) => {
    const after = staggerUsed(analysis, s).quantity;
    const pair = pairs.find((p) => p.speedMmPerS === s.speedMmPerS);
    return {
      label: lineOf(s.speedMmPerS),
      before: pair ? pair.before : null,
      after,
      result: ruling(after, tolerance),
    };
  });
  const shifts = shiftLines(history, proof, earlierAnalysis(history, proof), analysis).map((line) => ({
    ...line,
    result: ruling(line.after, tolerance),
  }));
  const lines = [...staggers, ...shifts];
  const result = worstRuling(lines.map((l) => l.result));
  const worst = lines.reduce((a, b) => (Math.abs(b.after.value) > Math.abs(a.after.value) ? b : a));
  const worstText = `${shownNumber(Math.abs(worst.after.value), unit, 3)} ± ${shownLength(expandedUncertainty(worst.after), unit, 3)} at ${withinSentence(worst.label)}`;
  const ways = result === "cannot tell" ? waysOut(history, proof, analysis) : [];
  const fastest = staggers.at(-1) ?? worst;
  const verdict: Verdict = {
    result,
    headline: headlineOf(proof.purpose, result),
    advice: adviceFor(result, worstText, shownLength(tolerance, unit, 3), ways.length > 0),
    lines,
    tolerance,
    unit: "mm",
    ways,
    asFound: { label: `stagger at ${fastest.label}`, quantity: fastest.after },
    findings: proof.purpose === "check" ? [] : [...causesOf(pairs, history.machine), ...shiftCauses(shifts)],
  };
  return wholeProof(history, verdict, [
    ...proof.plan.speedsMmPerS.filter(wasRead(history, proof)).map(lineOf),
    ...shifts.map((s) => s.label),
  ]);
}

function lineOf(speedMmPerS: number): string {
  return `${plain(speedMmPerS)} mm/s`;
}

/** Whether a speed could be read before: one that marked nothing then has no correction to prove. */
function wasRead(history: History<ScanOffsetPlan>, proof: RoundRecord<ScanOffsetPlan>) {
  const before = history.rounds.filter((r) => r.n < proof.n && r.answers.length > 0);
  const sites = before.flatMap((r) => r.answers.flatMap((a) => (a.content.status === "read" ? [a.site] : [])));
  return (speed: number) =>
    before.length === 0 || [siteId(speed, "left"), siteId(speed, "right")].some((id) => sites.includes(id));
}

function adviceFor(result: Verdict["result"], worst: string, within: string, hasWays: boolean): string {
  if (result === "proved")
    return `The largest residual stagger is ${worst}. This is inside the tolerance of ${within}.`;
  if (result === "not proved")
    return `The largest residual stagger is ${worst}. This is outside the tolerance of ${within}. Enter the new values from Correct, then burn another proof.`;
  return hasWays
    ? `The largest residual stagger is ${worst}. The uncertainty is too large for the tolerance of ${within}. Take more readings.`
    : `The largest residual stagger is ${worst}. More readings with these gauges cannot decide a tolerance of ${within}. Enter the new values from Correct, or set a larger tolerance.`;
}

function earlierRound(history: History<ScanOffsetPlan>, proof: RoundRecord<ScanOffsetPlan>) {
  return history.rounds.findLast((r) => r.n < proof.n && r.answers.length > 0);
}

function earlierAnalysis(history: History<ScanOffsetPlan>, proof: RoundRecord<ScanOffsetPlan>) {
  const before = earlierRound(history, proof);
  return before ? analyse(history, before) : null;
}

function pairsOf(history: History<ScanOffsetPlan>, proof: RoundRecord<ScanOffsetPlan>): Pair[] {
  const before = earlierRound(history, proof);
  const first = earlierAnalysis(history, proof);
  const second = analyse(history, proof);
  if (!before || !first || !second) return [];
  return second.speeds.flatMap((s) => {
    const earlier = first.speeds.find((f) => f.speedMmPerS === s.speedMmPerS);
    if (!earlier) return [];
    return [
      {
        speedMmPerS: s.speedMmPerS,
        before: staggerUsed(first, earlier).quantity,
        after: staggerUsed(second, s).quantity,
        oldEntry: entryInForce(history, before, s.speedMmPerS) ?? 0,
      },
    ];
  });
}

function causesOf(pairs: readonly Pair[], { held, name }: MachineSpec): Finding[] {
  const clear = pairs.filter((p) => Math.abs(p.before.value) > SURE_OF_BEFORE * p.before.standardUncertainty);
  if (clear.length === 0 || fits(clear, () => 0) >= EXPLAINS_FROM) return [];
  const withOld = clear.some((p) => p.oldEntry !== 0);
  const fitting = CAUSES.filter((c) => c.id !== "old table lost" || withOld).map((cause) => ({
    cause,
    fit: fits(clear, cause.expected),
  }));
  const best = fitting.find((f) => f.fit >= EXPLAINS_FROM);
  if (!best) return [];
  return [
    {
      id: best.cause.id,
      tone: "needs you",
      headline: best.cause.headline,
      text: (held[SCAN_OFFSET]?.senseAssumed && best.cause.assumedText?.(name)) || best.cause.text,
      site: null,
    },
  ];
}

/** How well the staggers after the correction agree with what a cause would leave. */
function fits(pairs: readonly Pair[], expected: (pair: Pair) => number): number {
  let chiSquared = 0;
  for (const pair of pairs) {
    const want = expected(pair);
    const ratio = Math.abs(want / pair.before.value);
    const u = Math.hypot(pair.after.standardUncertainty, ratio * pair.before.standardUncertainty);
    chiSquared += ((pair.after.value - want) / u) ** 2;
  }
  return chiSquaredUpperTail(chiSquared, pairs.length);
}
