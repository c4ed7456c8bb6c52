/** What was turned, laid or shifted at the machine by hand is noted: in the trial, and as a change of the machine. */
import { shownNumber } from "../../core/metrology/quantity-text";
import { adjusted } from "../../core/trial/decisions";
import type { Adjustment } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { addEvent, eventsOf, takeBackEvent } from "../../data/events";
import { setDecision } from "../../data/trials";
import { adjustInPractice } from "../practice/practice-machine";
import { Refusal } from "../refusal";
import { burnedRound, type FullTrial, fullTrial, historyOf, readingStamp } from "./trial-record";

/**
 * @param seen the readings that the page had worked from, as `readingStamp` names them
 * @throws Refusal when nothing is to be adjusted, it is noted already, or readings changed since
 */
export function noteAdjusted(db: Db, trialId: number, n: number, seen: string, now: number): void {
  const full = fullTrial(db, trialId);
  burnedRound(db, trialId, n);
  const { procedure, trial } = full;
  const adjustments = adjustmentsIn(full, n);
  if (adjustments.length === 0 || !procedure.adjusts)
    throw new Refusal("adjustment", "There is nothing to adjust by hand yet.");
  if (adjusted(n).of(trial.decisions)) throw new Refusal("adjustment", "This is noted already.");
  if (seen !== readingStamp(full, n))
    throw new Refusal(
      "readings",
      "Readings were taken or taken back since these numbers were worked out. Look at them again.",
    );
  const kind = procedure.adjusts.change;
  db.transaction((tx) => {
    setDecision(tx, trialId, adjusted(n).as(true));
    addEvent(tx, trial.machineId, { kind, note: noteOf(full, adjustments), at: now });
    adjustInPractice(tx, trial.machineId, full.machine, adjustments, 1, now);
  });
}

/**
 * What was noted as adjusted was not, or was put back: the note is taken back, and the bed of a practice machine turned back.
 *
 * @throws Refusal when nothing is noted, what came after was burned already, or readings were taken back that it was worked out from
 */
export function undoAdjusted(db: Db, trialId: number, n: number, now: number): void {
  const full = fullTrial(db, trialId);
  const { procedure, trial } = full;
  if (trial.endedAt !== null) throw new Refusal("trial", "This trial has ended already.");
  if (!adjusted(n).of(trial.decisions)) throw new Refusal("adjustment", "Nothing is noted as done here.");
  if (full.rounds.some((r) => r.n > n && r.burnedAt !== null))
    throw new Refusal("adjustment", "The round after it is read already, with the machine as it is now.");
  const adjustments = adjustmentsIn(full, n);
  if (adjustments.length === 0)
    throw new Refusal("adjustment", "Readings were taken back since it was worked out: read these places again first.");
  const noted = eventsOf(db, trial.machineId).find(
    (e) => e.kind === procedure.adjusts?.change && e.note.startsWith(noteHead(full)),
  );
  db.transaction((tx) => {
    setDecision(tx, trialId, adjusted(n).as(false));
    if (noted) takeBackEvent(tx, trial.machineId, noted.id, now);
    adjustInPractice(tx, trial.machineId, full.machine, adjustments, -1, now);
  });
}

function adjustmentsIn(full: FullTrial, n: number): readonly Adjustment[] {
  const outcome = full.procedure.solve(historyOf(full, n));
  return outcome.status === "solved" ? outcome.adjustments : [];
}

function noteHead({ procedure, trial }: FullTrial): string {
  return `${procedure.title} ${trial.code}: `;
}

function noteOf(full: FullTrial, adjustments: readonly Adjustment[]): string {
  const done = adjustments.map((a) =>
    a.turns ? `${a.label} ${a.text}` : `${a.label} +${shownNumber(a.quantity.value, "mm", 2)} mm`,
  );
  return `${noteHead(full)}${done.join(", ")}`;
}
