/**
 * What the estimator says of a procedure's readings, beside what the procedure works out of them: suspects are named and hold back
 * what they touch, nothing good is said beside them, and a proof that has one is undecided.
 */
import { type Adjustment, adjust } from "../estimate/adjustment";
import { acceptedBy, type Examination, examine, type Suspect, seenIn } from "../estimate/examination";
import { bestGuess } from "../estimate/influence";
import type { Model } from "../estimate/model";
import { type Measured, measured } from "../metrology/measured";
import { inUnit } from "../metrology/quantity-text";
import { imaginedReading } from "../trial/answer";
import { acceptedIds, acceptSuspect, leaveOut, lengthUnitOf, shownUnit } from "../trial/decisions";
import type { History, RoundRecord } from "../trial/history";
import type { Correction, CorrectionRow, Estimate, Finding, Outcome, Visible } from "../trial/outcome";
import type { Verdict } from "../trial/verdict";
import { notAccepted, type OrderedSuspect, orderedFinding } from "./ordered-suspects";
import { type Expected, observePoints } from "./point-by-point";
import { remembering } from "./remembering";

/** The readings of one burn as a model; `null` while too little is read. */
export type Observe<P> = (history: History<P>, round: RoundRecord<P>) => Model | null;

/** The newest burn in which something was read. */
export function newestRead<P>({ rounds }: Pick<History<P>, "rounds">): RoundRecord<P> | undefined {
  return rounds.findLast((r) => r.answers.length > 0);
}

type Examine<P> = (history: History<P>, round: RoundRecord<P>) => Examination | null;

/** By procedure. */
// biome-ignore lint/suspicious/noExplicitAny: each model is asked for with the plans of its own procedure alone
const examiners = new WeakMap<object, Examine<any>>();

/** `null` while too little is read. */
export function examinationOf<P>(history: History<P>, round: RoundRecord<P>, observe: Observe<P>): Examination | null {
  const known: Examine<P> | undefined = examiners.get(observe);
  const examined = known ?? examinerOf(observe);
  if (!known) examiners.set(observe, examined);
  return examined(history, round);
}

function examinerOf<P>(observe: Observe<P>): Examine<P> {
  return remembering((history: History<P>, round) => {
    const model = observe(history, round);
    return model && examinedModel(model, history.decisions);
  });
}

function examinedModel(model: Model, decisions: History["decisions"]): Examination | null {
  const accepted = acceptedIds(decisions);
  const first = examine(model, new Set());
  if (!first || accepted.size === 0) return first;
  const known = first.suspects.filter((s) => accepted.has(s.id)).flatMap(acceptedBy);
  return examine(model, new Set([...accepted, ...known]));
}

/** Judgements of a burn that contradict each other; none where nothing is judged in order. */
export type Contradicting<P> = (history: History<P>, round: RoundRecord<P>) => readonly OrderedSuspect[];

/** The outcome with its suspects, and with what would have been seen. */
export function examinedSolve<P>(
  observe: Observe<P>,
  solve: (history: History<P>) => Outcome,
  contradicting: Contradicting<P> = () => [],
  expected: Expected<P> = () => null,
) {
  const solvedFindings = (history: History<P>) => {
    const outcome = solve(history);
    return outcome.status === "solved" ? outcome.findings : null;
  };
  return (history: History<P>): Outcome => {
    const measured = solve(history);
    const round = newestRead(history);
    if (!round || measured.status === "open") return measured;
    const judged = notAccepted(contradicting(history, round), history.decisions);
    const examined = examinationOf(history, round, observe);
    const suspects = examined?.suspects ?? [];
    const estimates = measured.status === "solved" ? measured.estimates : [];
    const named = [...suspects.map((s) => suspectFinding(history, s, estimates)), ...judged.map(orderedFinding)];
    const findings = [...named, ...besideSuspects(measured.findings, history, named, solvedFindings)];
    const outcome = withJudged({ ...measured, findings }, judged, round);
    if (outcome.status === "unsolvable" && !examined) return withPoints(outcome, history, round, expected);
    if (outcome.status !== "solved" || !examined) return outcome;
    const touching = suspects.find((s) => s.moves.size > 0);
    // What is set by hand has no row to hold back.
    if (touching && outcome.adjustments.length > 0)
      return {
        status: "unsolvable",
        reason: `${touching.headline} ${touching.text}`,
        table: outcome.table,
        findings,
      };
    const { forStock, ...rest } = outcome;
    return {
      ...rest,
      // Nothing of a suspect goes onto a card.
      ...(forStock && !touching ? { forStock } : {}),
      corrections: outcome.corrections.map((c) => heldBack(c, round, suspects)),
      // A suspect makes the scatter look larger: the smallest noticed error is known once it is settled.
      visible: suspects.length > 0 ? [] : visibleIn(history, examined.adjustment, estimates),
    };
  };
}

/**
 * Findings beside suspects. A wrong reading has symptoms, for example a kerf below zero or a large backlash. The symptoms are
 * gone without the reading, so they are not shown beside the suspect. Good news is not shown either.
 *
 * @param find finds again, with the readings of the suspects left out; `null` where too little is left
 */
function besideSuspects<P>(
  found: readonly Finding[],
  history: History<P>,
  suspects: readonly Finding[],
  find: (settled: History<P>) => readonly Finding[] | null,
): readonly Finding[] {
  const keys = suspects.flatMap((f) => f.suspect?.leaveOut ?? []);
  if (suspects.length === 0) return found;
  const others = found.filter((f) => f.tone !== "good");
  if (keys.length === 0) return others;
  const leftOut = Object.fromEntries(keys.map((key) => [key, "yes"]));
  const settled = find({ ...history, decisions: { ...history.decisions, ...leftOut } });
  return settled ? settled.filter((f) => others.some((o) => o.id === f.id)) : others;
}

/** Where no law fits the readings, those that contradict their own point are named. */
function withPoints<P>(
  outcome: Extract<Outcome, { status: "unsolvable" }>,
  history: History<P>,
  round: RoundRecord<P>,
  expected: Expected<P>,
): Outcome {
  const model = observePoints(history, round, expected);
  const suspects = (model && examinedModel(model, history.decisions)?.suspects) ?? [];
  return { ...outcome, findings: [...suspects.map((s) => suspectFinding(history, s, [])), ...outcome.findings] };
}

/** While one setting is held back, none of them is entered: each was worked out with the others in force. */
export function heldTogether(outcome: Outcome): Outcome {
  if (outcome.status !== "solved") return outcome;
  const first = outcome.corrections.flatMap((c) => c.rows).find((row) => row.heldBack);
  if (!first?.heldBack) return outcome;
  const why = `${first.label} is held back. Enter these settings together.`;
  const { site } = first.heldBack;
  const corrections = outcome.corrections.map((c): Correction => {
    const rows = c.rows.map((row) => ({ ...row, heldBack: row.heldBack ?? { why, site, accept: null } }));
    const old = rows[0]?.old ?? null;
    const isNumber = c.newValue.shape === "scalar" && old !== null;
    return { ...c, rows, newValue: isNumber ? { shape: "scalar", value: old } : c.newValue };
  });
  return { ...outcome, corrections };
}

/** Judgements that contradict each other hold back everything that is worked out from them. */
function withJudged<P>(outcome: Outcome, judged: readonly OrderedSuspect[], round: RoundRecord<P>): Outcome {
  const [first] = judged;
  if (!first || outcome.status !== "solved") return outcome;
  const { forStock: _, ...rest } = outcome;
  const corrections = outcome.corrections.map((c): Correction => {
    const rows = c.rows.map((row) => ({
      ...row,
      heldBack: row.heldBack ?? { why: first.headline, site: first.site, accept: null },
    }));
    return { ...c, rows, newValue: withoutHeld(c, rows, round) };
  });
  return { ...rest, corrections };
}

/** The verdict on the newest burn, undecided where a reading contradicts the others. */
export function examinedJudge<P>(
  observe: Observe<P>,
  judge: (history: History<P>) => Verdict | null,
  contradicting: Contradicting<P> = () => [],
) {
  return (history: History<P>): Verdict | null => {
    const verdict = judge(history);
    const last = history.rounds.at(-1);
    if (!verdict || !last) return verdict;
    const judged = notAccepted(contradicting(history, last), history.decisions).map(orderedFinding);
    const suspects = examinationOf(history, last, observe)?.suspects ?? [];
    const named = [...judged, ...suspects.map((s) => suspectFinding(history, s, []))];
    const [worst] = named;
    if (!worst) return verdict;
    return {
      ...verdict,
      result: "cannot tell",
      headline: judged.length > 0 ? "Judgements contradict each other" : "A reading contradicts the others",
      advice: `${worst.headline} ${worst.text}`,
      ways: [],
      findings: [...named, ...besideSuspects(verdict.findings, history, named, (h) => judge(h)?.findings ?? null)],
    };
  };
}

/**
 * What one more reading at a point should be, by all others, with the uncertainty of that reading in it.
 *
 * @returns `null` where the others say nothing
 */
export function predictedReading<P>(observe: Observe<P>, history: History<P>, site: string): Measured | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const gauge = round.answers.findLast((a) => history.gauges.some((g) => g.id === a.gauge))?.gauge;
  const by = gauge ?? history.gauges[0]?.id;
  if (by === undefined) return null;
  const session = round.answers.findLast((a) => a.gauge === by)?.session ?? "next";
  const next = imaginedReading({ site, value: 0, gauge: by, session });
  const taken = { ...round, answers: [...round.answers, next] };
  const indexIn = (m: Model | null) => m?.observations.findLastIndex((o) => o.reading?.point === site) ?? -1;
  const lawful = observe(history, taken);
  // Where no law speaks of the point yet, its repeats are compared with each other.
  const isLawful = indexIn(lawful) >= 0;
  const model = isLawful ? lawful : observePoints(history, taken, () => null);
  const index = indexIn(model);
  // The reading itself is not taken yet, and says nothing of the scatter.
  const before = isLawful ? observe(history, round) : observePoints(history, round, () => null);
  const scatter = (before && adjust(before)?.scatter) ?? new Map();
  const adjustment = model && index >= 0 ? adjust(model, scatter) : null;
  const guess = adjustment ? bestGuess(adjustment, index) : null;
  if (!guess) return null;
  const { observation, error, freedom, deletedU } = guess;
  const per = observation.reading?.per ?? 1;
  return measured((observation.reading?.typed ?? 0) - error / per, Math.abs(deletedU / per), freedom);
}

function suspectFinding<P>(history: History<P>, suspect: Suspect, estimates: readonly Estimate[]): Finding {
  const readings = suspect.observations.flatMap((o) => (o.reading ? [o] : []));
  const other = suspect.orElse.length > 0 ? ` Other explanations: ${suspect.orElse.join(" ")}` : "";
  return {
    id: `suspect ${suspect.id}`,
    tone: "needs you",
    headline: suspect.headline,
    text: `${suspect.text}${movesText(history, suspect, estimates)}${other}`,
    site: readings[0]?.reading?.point ?? null,
    suspect: {
      accept: acceptSuspect(suspect.id).key,
      leaveOut: suspect.kind === "all inches" ? [] : readings.map((o) => leaveOut(o.id).key),
    },
  };
}

function movesText<P>(history: History<P>, { moves }: Suspect, estimates: readonly Estimate[]): string {
  const touched = estimates
    .flatMap((e) => {
      const by = moves.get(e.id);
      return by === undefined ? [] : [{ e, by, share: Math.abs(by) / e.quantity.standardUncertainty }];
    })
    .sort((a, b) => b.share - a.share)[0];
  if (!touched) return "";
  const unit = shownUnit(touched.e.unit, lengthUnitOf(history));
  return ` Effect on “${touched.e.label}”: ${inUnit(Math.abs(touched.by), unit, 3)}.`;
}

/** What a suspect touches is not entered until it is settled. */
function heldBack<P>(correction: Correction, round: RoundRecord<P>, suspects: readonly Suspect[]): Correction {
  const by = (row: CorrectionRow) => (row.heldBack ? undefined : suspects.find((s) => s.moves.has(row.estimate)));
  if (!correction.rows.some(by)) return correction;
  const rows = correction.rows.map((row): CorrectionRow => {
    const suspect = by(row);
    if (!suspect) return row;
    const site = suspect.observations.find((o) => o.reading)?.reading?.point ?? null;
    return { ...row, heldBack: { why: suspect.headline, site, accept: null } };
  });
  return { ...correction, rows, newValue: withoutHeld(correction, rows, round) };
}

function withoutHeld<P>(
  { setting, newValue }: Correction,
  rows: readonly CorrectionRow[],
  round: RoundRecord<P>,
): Correction["newValue"] {
  const before = round.inForce[setting];
  if (newValue.shape === "scalar") return before?.shape === "scalar" ? before : newValue;
  if (newValue.shape !== "table") return newValue;
  const held = rows.filter((r) => r.heldBack !== null).map((r) => r.at);
  const old = before?.shape === "table" ? before.rows.filter((r) => held.includes(r.at)) : [];
  return {
    shape: "table",
    rows: [...newValue.rows.filter((r) => !held.includes(r.at)), ...old].sort((a, b) => a.at - b.at),
  };
}

/** For each estimate that is shown in the verdict line, the smallest error of one reading that would have been seen. */
function visibleIn<P>(history: History<P>, adjustment: Adjustment, estimates: readonly Estimate[]): Visible[] {
  const unit = lengthUnitOf(history);
  return seenIn(adjustment).flatMap(({ wanted, worst, unchecked, alone }): Visible[] => {
    const estimate = estimates.find((e) => e.id === wanted.id);
    if (!estimate || (!worst && unchecked.length === 0 && alone.length === 0)) return [];
    const moved = (by: number) => inUnit(by, shownUnit(estimate.unit, unit), 3);
    return [
      {
        estimate: estimate.id,
        label: estimate.label,
        seen: worst
          ? {
              reading: worst.observation.label,
              smallest: inUnit(worst.smallest, unit, 3),
              moves: moved(worst.effect),
            }
          : null,
        unchecked: unchecked.map((u) => u.observation.label),
        alone: alone.map((facts) => facts.pointLabel),
        site: unchecked[0]?.observation.reading?.point ?? null,
      },
    ];
  });
}
