/** Settings of one round are read back one by one: the first does not speak for the second. */
import { expect, it } from "vitest";
import { isReadBack } from "../../core/trial/decisions";
import { demoCopy, NOW } from "../../testing/test-bench";
import { burnOnPractice } from "./burn-on-practice";
import { confirmHeld } from "./correction-steps";
import { fullTrial } from "./trial-record";
import { beginTrial } from "./trial-steps";

it("is read back when the last setting is, and each setting by itself", () => {
  const db = demoCopy();
  const id = beginTrial(db, "alder", "axis-scale", NOW);
  burnOnPractice(db, id, 1, null, NOW + 1);
  const known = (setting: string) => {
    const { trial, rounds } = fullTrial(db, id);
    const [round] = rounds;
    return round ? isReadBack(round, trial.decisions, setting) : null;
  };
  expect([known("axis scale x"), known("axis scale y")]).toEqual([false, false]);
  confirmHeld(db, id, 1, { "axis scale x": [{ at: null, text: "6.2" }] }, NOW + 2);
  expect([known("axis scale x"), known("axis scale y")]).toEqual([true, false]);
  expect(fullTrial(db, id).rounds[0]?.readBackAt).toBeNull();
  confirmHeld(db, id, 1, { "axis scale y": [{ at: null, text: "6.3" }] }, NOW + 3);
  expect(known("axis scale y")).toBe(true);
  expect(fullTrial(db, id).rounds[0]).toMatchObject({
    readBackAt: NOW + 3,
    inForce: {
      "axis scale x": { shape: "scalar", value: expect.closeTo(0.0062, 12) },
      "axis scale y": { shape: "scalar", value: expect.closeTo(0.0063, 12) },
    },
  });
});
