import { expect, it } from "vitest";
import { atBeginning, withinSentence } from "./sentence-case";

it.each([
  ["Zero of the jaws", "zero of the jaws"],
  ["A ladder of ticks", "a ladder of ticks"],
  ["X, tick 1 at 30 mm", "X, tick 1 at 30 mm"],
  ["CO2 gantry", "CO2 gantry"],
  ["", ""],
])("%s stands within a sentence as %s", (alone, within) => {
  expect(withinSentence(alone)).toBe(within);
  expect(atBeginning(within)).toBe(alone);
});
