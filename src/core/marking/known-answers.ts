/** Answers of the newest arrays, by their input. Pages ask for the same answer repeatedly, and a fit is slow. */
import { answerOf } from "./array-answer";
import type { ArrayAnswer, ArrayGiven, NoAnswer } from "./array-given";

type Known = { key: string; answer: ArrayAnswer | NoAnswer };

/** Newest first. */
const known: Known[] = [];
/** Blocks of an array, over all burns of a trial: all answers of one page are known together. */
const MOST = 400;

/** Calculates the answer if it is not known yet. */
export function knownAnswer(given: ArrayGiven): ArrayAnswer | NoAnswer {
  const before = find(given);
  if (before) return before.answer;
  const answer = answerOf(given);
  learnAnswer(given, answer);
  return answer;
}

export function isAnswerKnown(given: ArrayGiven): boolean {
  return find(given) !== undefined;
}

/** @param answer to `given`, calculated elsewhere */
export function learnAnswer(given: ArrayGiven, answer: ArrayAnswer | NoAnswer): void {
  known.unshift({ key: keyOf(given), answer });
  known.length = Math.min(known.length, MOST);
}

function find(given: ArrayGiven): Known | undefined {
  const key = keyOf(given);
  return known.find((k) => k.key === key);
}

function keyOf(given: ArrayGiven): string {
  return JSON.stringify(given);
}
