/** Answers to the newest arrays, by what they were worked out of: pages ask again and again for the same, and a fit takes long. */
import { type ArrayAnswer, type ArrayGiven, answerOf, type NoAnswer } from "./array-answer";

type Known = { key: string; answer: ArrayAnswer | NoAnswer };

/** Newest first. */
const known: Known[] = [];
/** Blocks of one array, and the arrays of a few trials. */
const MOST = 24;

/** Worked out here where it is not known yet. */
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

/** @param answer to `given`, worked out elsewhere */
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
