/** The verdict on the errors that a proof or a check shows: each alone against the tolerance, with what it was before the correction. */
import type { Measured } from "../metrology/measured";
import { ruling, worstRuling } from "../metrology/tolerance";
import type { UnitId } from "../metrology/units";
import type { History, RoundRecord } from "../trial/history";
import type { Finding } from "../trial/outcome";
import type { Verdict } from "../trial/verdict";
import { wholeProof } from "../trial/whole-proof";
import { headlineOf, readMore } from "./plain-course";
import { becameFindings, type OwnWords } from "./what-became";

/** An error; its key is the same in every burn: an axis, or nothing where there is one error alone. */
export type Remaining<K extends string> = { key: K; label: string; error: Measured };

type Read<P, T> = (history: History<P>, round: RoundRecord<P>) => T;

export type Judging<P, K extends string> = {
  /** In which the errors are shown. */
  unit: UnitId;
  /** What a burn shows, none before enough is read. */
  errors: Read<P, Remaining<K>[]>;
  /** What is said, charted and compared with the burn before. Left out: the errors themselves. */
  said?: Read<P, Remaining<K>[]>;
  /** Labels of the errors that a burn with this plan has to show. Left out: those that it shows. */
  due?(plan: P): string[];
  /** The error with its size, a sentence without its full stop. */
  text(error: Remaining<K>, history: History<P>): string;
  advice: Readonly<Record<Verdict["result"], string>>;
  /** What a check charts. */
  asFound: string;
  /** Words for what stayed and what doubled. Left out where no slip of entering a correction is behind it. */
  became?(error: Remaining<K>, history: History<P>): OwnWords;
  /** Findings beside the verdict. */
  findings?(history: History<P>, last: RoundRecord<P>, lines: Verdict["lines"]): Finding[];
  /** Nothing is proved while one of these is found, whatever is measured. */
  refuting?: Read<P, Finding[]>;
  /** Ways to a verdict where there is none yet. Left out: every point is read again. */
  ways?(last: RoundRecord<P>): Verdict["ways"];
  /** How a point is read again, a whole sentence. */
  again?: string;
};

/** @returns the verdict on the newest burn, `null` where it proves and checks nothing, or too little is read */
export function judgeErrors<P, K extends string>(judging: Judging<P, K>): (history: History<P>) => Verdict | null {
  const { unit, errors, said = errors, text, advice, asFound } = judging;
  return (history) => {
    const last = history.rounds.at(-1);
    if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
    const lines = errors(history, last).map(({ key, label, error }) => ({
      label,
      before: errorBefore(history, last, errors, key),
      after: error,
      result: ruling(error, history.tolerance),
    }));
    const [first, ...more] = said(history, last);
    if (!first || lines.length === 0) return null;
    const largest = more.reduce((most, e) => (Math.abs(e.error.value) > Math.abs(most.error.value) ? e : most), first);
    const refuting = judging.refuting?.(history, last) ?? [];
    const result = refuting.length > 0 ? "not proved" : worstRuling(lines.map((l) => l.result));
    const texts = [first, ...more].map((e) => text(e, history)).join("; ");
    const verdict: Verdict = {
      result,
      lines,
      unit,
      tolerance: history.tolerance,
      headline: headlineOf(last.purpose, result),
      advice: refuting[0]?.headline ?? `${texts}. ${advice[result]}`,
      ways: result === "cannot tell" ? (judging.ways?.(last) ?? readMore(last, judging.again)) : [],
      asFound: { label: asFound, quantity: largest.error },
      findings: [
        ...refuting,
        ...(judging.findings?.(history, last, lines) ?? []),
        ...(last.purpose === "proof" ? [first, ...more].flatMap((e) => becameOf(judging, history, last, e)) : []),
      ],
    };
    return wholeProof(history, verdict, judging.due?.(last.plan) ?? []);
  };
}

/** Where a burn shows one error alone. */
export function oneError<P>(label: string, read: Read<P, Measured | null | undefined>): Read<P, Remaining<"">[]> {
  return (history, round) => {
    const error = read(history, round);
    return error ? [{ key: "", label, error }] : [];
  };
}

/** As an earlier burn showed it last; `null` where none did. */
function errorBefore<P, K extends string>(
  history: History<P>,
  last: RoundRecord<P>,
  read: Read<P, Remaining<K>[]>,
  key: K,
): Measured | null {
  const earlier = history.rounds.filter((r) => r.n < last.n).flatMap((r) => read(history, r));
  return earlier.findLast((e) => e.key === key)?.error ?? null;
}

function becameOf<P, K extends string>(
  { errors, said = errors, became }: Judging<P, K>,
  history: History<P>,
  last: RoundRecord<P>,
  error: Remaining<K>,
): Finding[] {
  if (!became) return [];
  const before = errorBefore(history, last, said, error.key);
  return becameFindings(before, error.error, became(error, history), (what) => `${what} ${error.key}`.trim());
}
