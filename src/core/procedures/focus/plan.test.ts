/** What a ladder may not be: each refused at its field, with what to do. */
import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { usualLadder } from "../../../testing/usual-ladder";
import { draftOf, readDraft } from "../../trial/draft";
import type { PlanContext } from "../../trial/plan-form";
import { usedHeightMm } from "./ladder/layout";
import { proofPlan } from "./ladder/proof-plan";
import { ladderWarnings as planWarnings } from "./ladder/warnings";
import { cellsOf, FOCUS_HEIGHT } from "./plan";
import { focusPlan } from "./plan-faults";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const form = focusPlan(context);
const typed = (changes: Record<string, string>) => readDraft(form, { ...draftOf(form, form.defaults), ...changes });

describe("a height ladder", () => {
  it.each([
    ["stepMm", "0", /more than 0 mm/],
    ["stepMm", "0.2", /at least 0\.5 mm/],
    ["count", "3", /at least 5/],
    ["count", "18", /Cell 18 would be at 19 mm, outside 2 to 18 mm/],
    ["count", "5.5", /a whole number/],
    ["highestMm", "1", /larger than the lowest/],
    ["powerPct", "140", /at most 100/],
    ["speedMmPerS", "900", /top speed of .* is 600 mm\/s/],
    ["stockWidthMm", "12", /wider piece/],
    ["stockHeightMm", "30", /cells need/],
    ["stockAtXMm", "850", /outside the working area of 900 mm/],
    ["firstMm", "two", /./],
    ["firstMm", "", /a length with its sign, for example 2 mm/],
  ])("is refused at %s for “%s”", (field, text, message) => {
    const read = typed({ [field]: text });
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.issues).toContainEqual({ field, message: expect.stringMatching(message) });
  });

  it("is not judged by widths without lines to measure", () => {
    const read = typed({ marks: "squares", judged: "by widths" });
    expect(read).toMatchObject({ ok: false, issues: [{ field: "judged" }] });
  });

  it("lies around the height of daily work where that is known, and never below 0", () => {
    const at = (value: number) => usualLadder({ ...context, inForce: { [FOCUS_HEIGHT]: { shape: "scalar", value } } });
    expect([at(30).firstMm, cellsOf(at(30)).at(-1)?.heightMm]).toEqual([22, 38]);
    expect(at(3).firstMm).toBe(0);
  });

  it("says when daily work lies outside, and that a motor moves by itself", () => {
    const inForce = { [FOCUS_HEIGHT]: { shape: "scalar" as const, value: 40 } };
    const fields = planWarnings({ ...usualLadder(context), moves: "by motor" }, { ...context, inForce }).map(
      (w) => w.field,
    );
    expect(fields).toEqual(["firstMm", "moves"]);
  });

  it("fits the stock that it says it needs", () => {
    expect(usedHeightMm({ stockWidthMm: 110, count: 17 })).toBeLessThanOrEqual(70);
    expect(usedHeightMm({ stockWidthMm: 5, count: 17 })).toBe(Infinity);
  });

  const proof = (middle: number, first: number, last: number, changes = {}) =>
    cellsOf(proofPlan({ ...usualLadder(context), ...changes }, middle, { first, last })).map((c) => c.heightMm);

  it("is proved around its answer with half the step, two cells beyond what marked", () => {
    expect(proof(9.5, 5, 9)).toEqual([6.5, 7, 7.5, 8, 8.5, 9, 9.5, 10, 10.5, 11, 11.5, 12, 12.5]);
  });

  it("keeps its step in the proof where finer cells have no room or cannot be set", () => {
    expect(proof(10, 2, 12, { stockHeightMm: 62 })).toEqual([3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17]);
    expect(proof(10, 6, 9, { settableMm: 1 })).toEqual([6, 7, 8, 9, 10, 11, 12, 13, 14]);
  });

  it("is proved by fewer cells near the end of what can be set", () => {
    expect(proof(4.5, 0, 9)).toEqual([2.5, 3.5, 4.5, 5.5, 6.5]);
  });

  it("is proved on the stock it was burned on, wherever the answer lies and however many cells marked", () => {
    for (let first = 0; first < 17; first++)
      for (let last = first; last < 17; last++) {
        const plan = proofPlan(usualLadder(context), 2 + (first + last) / 2, { first, last });
        expect(form.read(plan)).toMatchObject({ ok: true });
      }
  });
});
