/** Answers by eye that contradict each other hold the height back, until one is left out or accepted. */
import { describe, expect, it } from "vitest";
import { historyWith, type JudgedLadder, judgedRound } from "../../../testing/judged-ladder";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { MARKED_SITE, SHARPEST_SITE } from "./ladder/coupon";
import { FOCUS_HEIGHT } from "./plan";
import { focus } from "./procedure";

const inForce = { [FOCUS_HEIGHT]: { shape: "scalar" as const, value: 8 } };
const ladder = (more: Partial<JudgedLadder>) =>
  judgedRound({
    machine: SAMPLE_MACHINE,
    plan: { firstMm: 0, stepMm: 1, count: 17 },
    inForce,
    marked: [5, 9],
    ...more,
  });
const solve = (sharpest: number[], decisions = {}) =>
  focus.solve(historyWith(SAMPLE_MACHINE, [ladder({ sharpest })], decisions) as never);

describe("first and last, and the sharpest", () => {
  it("that agree within their uncertainty are no suspects", () => {
    expect(solve([7, 8]).findings.filter((f) => f.suspect)).toEqual([]);
  });

  it("that contradict each other hold the height back, and say by how much and which way", () => {
    const outcome = solve([12, 13]);
    const [suspect] = outcome.findings.filter((f) => f.suspect);
    // Cell 7 is at 6 mm, the middle of cells 12 and 13 at 11.5 mm.
    expect(suspect?.headline).toBe("By the sharpest the focus is 5.5 mm higher than by first and last.");
    expect(suspect?.site).toBe(SHARPEST_SITE);
    if (outcome.status !== "solved") throw new Error(outcome.status);
    expect(outcome.corrections[0]?.rows[0]?.heldBack?.why).toBe(suspect?.headline);
    expect(outcome.corrections[0]?.newValue).toEqual({ shape: "scalar", value: 8 });
    const left = Object.fromEntries((suspect?.suspect?.leaveOut ?? []).map((key) => [key, "yes"]));
    expect(Object.keys(left)).toHaveLength(2);
    const without = solve([12, 13], left);
    if (without.status !== "solved") throw new Error(without.status);
    expect(without.findings.filter((f) => f.suspect)).toEqual([]);
    expect(without.estimates.map((e) => e.id)).toEqual(["focus"]);
    expect(without.corrections[0]?.newValue).toEqual({ shape: "scalar", value: 6 });
    const accepted = solve([12, 13], { [suspect?.suspect?.accept ?? ""]: "looked again" });
    if (accepted.status !== "solved") throw new Error(accepted.status);
    expect(accepted.corrections[0]?.rows[0]?.heldBack).toBeNull();
  });

  it("leave a proof undecided", () => {
    const proof = { ...ladder({ sharpest: [12, 13], purpose: "proof" as const, n: 2 }) };
    const history = historyWith(SAMPLE_MACHINE, [ladder({ sharpest: [7] }), proof]);
    const verdict = focus.judge(history);
    expect(verdict).toMatchObject({ result: "cannot tell", headline: "Judgements contradict each other" });
    expect(verdict?.findings[0]?.site).not.toBe(MARKED_SITE);
    expect(focus.next(history, focus.solve(history)).do).toBe("read");
    const entered = historyWith(SAMPLE_MACHINE, [ladder({ sharpest: [7] }), { ...proof, corrected: true }]);
    expect(focus.next(entered, focus.solve(entered))).toMatchObject({ do: "round", purpose: "proof" });
  });
});
