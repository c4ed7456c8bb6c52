/** Several readings of one point typed in one line: `0.29 0.30 0.29`. */
import type { AnswerInput } from "../../../core/trial/answer-input";

/** Plain numbers with spaces or semicolons between them. A fraction of an inch has a space in it, and a slash. */
const SEVERAL = /^\s*[+]?\d*[.,]?\d+(?:(?:\s*;\s*|\s+)[+]?\d*[.,]?\d+)+\s*$/;

/** @returns one input a reading; anything else than several plain numbers is one input as it is */
export function inOneLine(input: AnswerInput): AnswerInput[] {
  if (input.kind !== "quantity" || !SEVERAL.test(input.text)) return [input];
  return input.text
    .trim()
    .split(/\s*;\s*|\s+/)
    .map((text) => ({ ...input, text }));
}

/** @param from index of the first input that was not taken */
export function restOf(inputs: readonly AnswerInput[], from: number): string {
  return inputs
    .slice(from)
    .flatMap((i) => (i.kind === "quantity" ? [i.text] : []))
    .join(" ");
}

export function tooManyText(typed: number, wanted: number): string {
  return wanted > 0
    ? `You entered ${typed} numbers. This point needs ${wanted === 1 ? "1 more reading" : `${wanted} more readings`}. Enter at most ${wanted}.`
    : `You entered ${typed} numbers. This point has all its readings. Enter one number for another reading.`;
}
