/** A bed that is levelled on the server: what was turned is noted once, and taken back where it was not. */
import { beforeEach, describe, expect, it } from "vitest";
import { adjusted } from "../../core/trial/decisions";
import type { Database } from "../../data/database";
import { eventsOf } from "../../data/events";
import { practiceOf } from "../../data/practice";
import { bedOf } from "../../practice/practice-truth";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { truthOf } from "../practice/practice-machine";
import { noteAdjusted, undoAdjusted } from "./adjustment-steps";
import { burnOnPractice } from "./burn-on-practice";
import { layOutNext } from "./correction-steps";
import { readAllOnPractice } from "./read-all-on-practice";
import { fullTrial, readingStamp, roundOf } from "./trial-record";
import { beginTrial, openSession, undoReading } from "./trial-steps";

let db: Database;
let id: number;
beforeEach(() => {
  db = demoCopy();
  id = beginTrial(db, "bracken", "bed-tilt", NOW);
  readRound(1, NOW + 1);
});

function readRound(n: number, now: number): void {
  burnOnPractice(db, id, n, null, now);
  openSession(db, id, n, null, { outside: 0, inside: null }, now + 1);
  readAllOnPractice(db, id, n, "test", (taken) => now + 2 + taken);
}

const stamp = () => readingStamp(fullTrial(db, id), 1);
const levelled = () => eventsOf(db, fullTrial(db, id).trial.machineId).filter((e) => e.note.startsWith("Bed tilt"));
function slopes(): number {
  const { trial, machine } = fullTrial(db, id);
  const row = practiceOf(db, trial.machineId);
  if (!row) throw new Error("no practice machine");
  const bed = bedOf(truthOf(row), machine);
  return Math.hypot(bed.slopeX, bed.slopeY);
}

describe("what is turned at a bed", () => {
  it("is noted once, as a change of the machine, and levels its stand-in", () => {
    const before = slopes();
    noteAdjusted(db, id, 1, stamp(), NOW + 100);
    expect(adjusted(1).of(fullTrial(db, id).trial.decisions)).toBe(true);
    expect(levelled()).toHaveLength(1);
    expect(slopes()).toBeLessThan(0.3 * before);
    expect(refusal(() => noteAdjusted(db, id, 1, stamp(), NOW + 101)).message).toBe("This is noted already.");
    expect(refusal(() => noteAdjusted(db, id, 2, stamp(), NOW + 101)).field).not.toBe("");
  });

  it("is taken back where it was not done after all, and noted again", () => {
    const before = slopes();
    expect(refusal(() => undoAdjusted(db, id, 1, NOW + 99)).message).toMatch(/Nothing is noted/);
    noteAdjusted(db, id, 1, stamp(), NOW + 100);
    undoAdjusted(db, id, 1, NOW + 101);
    expect(adjusted(1).of(fullTrial(db, id).trial.decisions)).toBe(false);
    expect(levelled()).toHaveLength(0);
    // Turned back by hand, as roughly as it was turned.
    expect(Math.abs(slopes() / before - 1)).toBeLessThan(0.3);
    noteAdjusted(db, id, 1, stamp(), NOW + 102);
    expect(levelled()).toHaveLength(1);
  });

  it("is not taken back on other readings than it was worked out from", () => {
    noteAdjusted(db, id, 1, stamp(), NOW + 100);
    const before = slopes();
    for (const reading of roundOf(fullTrial(db, id), 1).readings) undoReading(db, id, 1, reading.id, NOW + 101);
    expect(refusal(() => undoAdjusted(db, id, 1, NOW + 102)).message).toMatch(/read these places again/);
    expect(slopes()).toBe(before);
    expect(levelled()).toHaveLength(1);
  });

  it("stays once the bed was read again", () => {
    noteAdjusted(db, id, 1, stamp(), NOW + 100);
    layOutNext(db, id, NOW + 101);
    readRound(2, NOW + 102);
    expect(refusal(() => undoAdjusted(db, id, 1, NOW + 500)).message).toMatch(/read already/);
    expect(levelled()).toHaveLength(1);
  });
});
