/**
 * Slips made on purpose in readings of practice machines: is the result wrong without a word, and is the slip named?
 *
 * Silently wrong: the slip alone moved a result by more than its expanded uncertainty and a quarter of the tolerance, and nothing
 * was flagged. The same burn is worked out without the slip, so that noise is no part of it.
 */
import type { Jaws } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import type { AnyProcedure } from "../../core/procedures/contract";
import type { Answer } from "../../core/trial/answer";
import type { History, RoundRecord } from "../../core/trial/history";
import type { Finding, Outcome } from "../../core/trial/outcome";
import type { Random } from "../../practice/random";

export type SlipMade = {
  kind: string;
  answers: Answer[];
  /** Points that were touched. */
  points: readonly string[];
};

export type SlipCase = { procedure: AnyProcedure; history: History };

export type SlipSummary = {
  kind: string;
  made: number;
  harmful: number;
  silent: number;
  /** Of those that change a reading by at least the size that is asked for. */
  large: number;
  namedFirst: number;
  named: number;
};

/** Makes a slip in the newest round; `null` where it cannot happen there. */
export type SlipMaker = (round: RoundRecord, random: Random) => SlipMade | null;

const MM_PER_INCH = 25.4;

function numberIn(answer: Answer): number | null {
  const { content } = answer;
  return content.status === "read" && content.value.kind === "quantity" ? content.value.value : null;
}

function changed(answer: Answer, value: number): Answer {
  return { ...answer, content: { status: "read", value: { kind: "quantity", value } } };
}

function pick<T>(items: readonly T[], random: Random): T | undefined {
  return items[Math.floor(random.even() * items.length)];
}

/** Changes one reading, chosen by chance. */
function oneReading(kind: string, change: (value: number) => number): SlipMaker {
  return ({ answers }, random) => {
    const index = pick(
      answers.flatMap((a, i) => ((numberIn(a) ?? 0) === 0 ? [] : [i])),
      random,
    );
    if (index === undefined) return null;
    const answer = answers[index] as Answer;
    const next = changed(answer, change(numberIn(answer) as number));
    return { kind, answers: answers.map((a, i) => (i === index ? next : a)), points: [answer.site] };
  };
}

/** Changes all readings of one point, chosen by chance. */
function onePoint(kind: string, change: (value: number) => number): SlipMaker {
  return ({ answers }, random) => {
    const site = pick([...new Set(answers.filter((a) => numberIn(a) !== null).map((a) => a.site))], random);
    if (site === undefined) return null;
    return {
      kind,
      answers: answers.map((a) =>
        a.site === site && numberIn(a) !== null ? changed(a, change(numberIn(a) as number)) : a,
      ),
      points: [site],
    };
  };
}

const swappedTwo: SlipMaker = ({ answers }, random) => {
  const sites = [...new Set(answers.filter((a) => numberIn(a) !== null).map((a) => a.site))];
  const a = pick(sites, random);
  const b = pick(
    sites.filter((s) => s !== a),
    random,
  );
  if (a === undefined || b === undefined) return null;
  const moved = (x: Answer) => ({ ...x, site: x.site === a ? b : x.site === b ? a : x.site });
  return { kind: "two points swapped", answers: answers.map(moved), points: [a, b] };
};

/** @param sizeMm of an unknown error in one reading or point */
export function slipMakers(sizeMm: number): SlipMaker[] {
  return [
    oneReading(`one reading ${sizeMm} mm off`, (v) => v + sizeMm),
    oneReading("one reading in inches", (v) => v / MM_PER_INCH),
    oneReading("one reading ten times too large", (v) => v * 10),
    oneReading("one reading ten times too small", (v) => v / 10),
    onePoint("one point in inches", (v) => v / MM_PER_INCH),
    onePoint(`one point ${sizeMm} mm off`, (v) => v + sizeMm),
    swappedTwo,
  ];
}

/** Two slips in the same burn, one after the other. */
function together(first: SlipMaker, second: SlipMaker): SlipMaker {
  return (round, random) => {
    const one = first(round, random);
    const two = one && second({ ...round, answers: one.answers }, random);
    if (!one || !two) return null;
    return { kind: `${one.kind} and ${two.kind}`, answers: two.answers, points: [...one.points, ...two.points] };
  };
}

/** Each slip together with the next: as many pairs as slips. */
export function pairsOfSlips(makers: readonly SlipMaker[]): SlipMaker[] {
  return makers.map((maker, i) => together(maker, makers[(i + 1) % makers.length] as SlipMaker));
}

/** A pair of jaws that was not closed and looked at: everything it read is too large, a known length too. */
export function zeroSlip(jaws: Jaws, byMm: number): SlipMaker {
  return ({ answers, spec }) => {
    const read = new Set(
      spec.sites.flatMap(({ id, ask }) => (ask.kind === "quantity" && ask.jaws === jaws ? [id] : [])),
    );
    return {
      kind: `zero of the ${jaws} jaws ${byMm} mm off`,
      answers: answers.map((a) => {
        const value = read.has(a.site) ? numberIn(a) : null;
        return value === null ? a : changed(a, value + byMm);
      }),
      // A value that is known beforehand has no point; the known length is the one that shows it.
      points: ["", ...read],
    };
  };
}

export const signSlips: SlipMaker[] = [
  oneReading("sign of one reading", (v) => -v),
  onePoint("sign of one point", (v) => -v),
];

/** Findings by which the screen asks for something. */
export function suspectsOf(outcome: Outcome): Finding[] {
  return outcome.findings.filter((f) => f.tone === "needs you");
}

/** A slip of just the size that is asked for counts, whatever its sum is rounded to. */
const ROUNDED = 0.999;

/** Largest change of what is read at one point, mm. */
function largestChange(before: readonly Answer[], after: readonly Answer[]): number {
  const at = (answers: readonly Answer[], site: string) =>
    answers.flatMap((a) => (a.site === site ? [numberIn(a) ?? 0] : [])).toSorted((a, b) => a - b);
  return [...new Set(before.map((a) => a.site))].reduce((most, site) => {
    const now = at(after, site);
    return Math.max(most, ...at(before, site).map((value, i) => Math.abs((now[i] ?? value) - value)));
  }, 0);
}

/**
 * Tries every maker on every case.
 *
 * @param sizeMm a slip that changes no reading by so much need not be named: it may hardly change anything
 */
export function slipSummaries(
  cases: readonly SlipCase[],
  makers: readonly SlipMaker[],
  sizeMm: number,
  randomOf: (index: number) => Random,
): SlipSummary[] {
  const byKind = new Map<string, SlipSummary>();
  cases.forEach(({ procedure, history }, index) => {
    const random = randomOf(index);
    const last = history.rounds.at(-1);
    if (!last) return;
    const clean = procedure.solve(history);
    for (const maker of makers) {
      const slip = maker(last, random);
      if (!slip || clean.status !== "solved") continue;
      const outcome = procedure.solve({
        ...history,
        rounds: [...history.rounds.slice(0, -1), { ...last, answers: slip.answers }],
      });
      const summary = byKind.get(slip.kind) ?? {
        kind: slip.kind,
        made: 0,
        harmful: 0,
        silent: 0,
        large: 0,
        namedFirst: 0,
        named: 0,
      };
      byKind.set(slip.kind, summary);
      const findings = suspectsOf(outcome);
      const first = findings.find((f) => f.suspect);
      summary.made++;
      if (largestChange(last.answers, slip.answers) >= ROUNDED * sizeMm) {
        summary.large++;
        if (first) summary.named++;
        if (first && slip.points.includes(first.site ?? "")) summary.namedFirst++;
      }
      if (!isHarmful(clean, outcome, procedure.tolerance.default)) continue;
      summary.harmful++;
      if (findings.length === 0 && outcome.status === "solved") summary.silent++;
    }
  });
  return [...byKind.values()];
}

function isHarmful(clean: Extract<Outcome, { status: "solved" }>, outcome: Outcome, tolerance: number): boolean {
  if (outcome.status !== "solved") return true;
  return clean.estimates.some((before) => {
    const after = outcome.estimates.find((e) => e.id === before.id);
    if (!before.headline || !after) return false;
    const moved = Math.abs(after.quantity.value - before.quantity.value);
    return moved > expandedUncertainty(after.quantity) && moved > tolerance / 4;
  });
}
