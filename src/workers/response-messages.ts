/** What a page and the worker that works out responses say to each other: one order at a time. */
import type { ArrayAnswer, ArrayGiven, NoAnswer } from "../core/marking/array-given";

export type ToResponder = { given: ArrayGiven };
export type FromResponder = { kind: "progress"; share: number } | { kind: "answer"; answer: ArrayAnswer | NoAnswer };
