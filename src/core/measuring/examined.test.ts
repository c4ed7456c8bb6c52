/** What a suspect does to outcome, corrections and verdict, through a procedure that has all of it. */
import { describe, expect, it } from "vitest";
import { historyWith, roundWith } from "../../testing/axis-scale-round";
import { axisScale } from "../procedures/axis-scale/procedure";
import { acceptedSuspects, leftOutReadings } from "../trial/decisions";
import type { History } from "../trial/history";

/** A ladder along X alone whose third tick was read 1 mm too far once. */
const wrong = (purpose: "measure" | "proof" = "measure", n = 1) =>
  roundWith({
    plan: { axes: "X" },
    purpose,
    n,
    read: (p) => {
      const y = 1.0002 * p.nominalMm;
      return p.kind === "tick" && p.index === 3 ? [y + 1, y - 0.01] : [y + 0.01, y - 0.01];
    },
  });

const solved = (history: History<never> | ReturnType<typeof historyWith>) => {
  const outcome = axisScale.solve(history as ReturnType<typeof historyWith>);
  if (outcome.status !== "solved") throw new Error(outcome.status);
  return outcome;
};

describe("a suspect", () => {
  const outcome = solved(historyWith([wrong()]));
  const suspect = outcome.findings.find((f) => f.suspect);

  it("comes first, by its point, with what it moves", () => {
    expect(outcome.findings[0]).toBe(suspect);
    expect(suspect).toMatchObject({
      tone: "needs you",
      headline: "Reading 1 of X, tick 3 contradicts the others.",
      site: "x 3",
    });
    expect(suspect?.text).toMatch(/Effect on “Error of length, X”: 0\.\d+ %/);
  });

  it("holds its correction back: the value in force stays", () => {
    const [correction] = outcome.corrections;
    expect(correction?.rows[0]?.heldBack).toMatchObject({ why: suspect?.headline, site: "x 3" });
    expect(correction?.newValue).toEqual({ shape: "scalar", value: 0.00625 });
    expect(correction?.rows[0]?.enter).not.toBe(0.00625);
  });

  it("leaves nothing good beside it, and no proof", () => {
    expect(outcome.findings.some((f) => f.tone === "good")).toBe(false);
    const verdict = axisScale.judge(historyWith([wrong(), wrong("proof", 2)]));
    expect(verdict).toMatchObject({ result: "cannot tell", headline: "A reading contradicts the others" });
    expect(verdict?.findings[0]?.suspect).toBeDefined();
  });

  it("is named without its symptoms: a tick from one side read 20 mm too far is no backlash, and no unusual scale", () => {
    const misread = (decisions: Record<string, string> = {}) => {
      const round = roundWith({
        plan: { axes: "X", approach: "both sides", rows: 1 },
        read: (p) => {
          const y = 1.0002 * p.nominalMm;
          const off = p.kind === "tick" && p.side === "down" ? 0.08 : 0;
          const isMisread = p.kind === "tick" && p.index === 3 && p.side === "down";
          return [y + off + (isMisread ? 20 : 0)];
        },
      });
      return solved(historyWith([round], { decisions })).findings;
    };
    const [named] = misread();
    const ids = misread().map((f) => f.id);
    expect(ids.filter((id) => id.startsWith("suspect"))).toHaveLength(1);
    expect(ids.some((id) => id.startsWith("beyond") || id.startsWith("strays"))).toBe(false);
    // The backlash that is there is named, without the misreading in it.
    expect(misread().find((f) => f.id === "backlash x")?.headline).toMatch(/^Backlash of X: 0\.08 ± /);
    // Accepted, it has its effects.
    const accepted = misread({ [named?.suspect?.accept ?? ""]: "a bad tooth there" }).map((f) => f.id);
    expect(accepted.some((id) => id.startsWith("beyond") || id.startsWith("strays"))).toBe(true);
  });

  it("is gone where its reading is left out: the result is that of the others, and the way back is named", () => {
    const [key = ""] = suspect?.suspect?.leaveOut ?? [];
    const decisions = { [key]: "yes" };
    const without = solved(historyWith([wrong()], { decisions }));
    expect(without.findings.some((f) => f.suspect)).toBe(false);
    expect(without.corrections[0]?.rows[0]?.heldBack).toBeNull();
    expect(without.estimates[0]?.quantity.value).toBeCloseTo(0.0002, 4);
    expect(leftOutReadings(decisions)).toEqual([{ key, site: "x 3", value: expect.closeTo(91.018, 2) }]);
    expect(leftOutReadings({ [key]: "" })).toEqual([]);
  });

  it("is gone where it is accepted with a reason: the result stays as it was read", () => {
    const key = suspect?.suspect?.accept ?? "";
    const decisions = { [key]: "a bad tooth there" };
    const accepted = solved(historyWith([wrong()], { decisions }));
    expect(accepted.findings.some((f) => f.suspect)).toBe(false);
    expect(accepted.corrections[0]?.rows[0]?.heldBack).toBeNull();
    expect(acceptedSuspects(decisions)).toEqual([{ key, text: "Accepted: a bad tooth there" }]);
  });
});

describe("what would have been noticed", () => {
  it("is said for each result, in its units", () => {
    const fine = roundWith({ plan: { axes: "X" }, read: (p) => [p.nominalMm + 0.01, p.nominalMm - 0.01] });
    const [visible] = solved(historyWith([fine])).visible ?? [];
    expect(visible).toMatchObject({ estimate: "scale x", label: "Error of length, X", unchecked: [] });
    expect(visible?.seen?.smallest).toMatch(/^0\.\d+ mm$/);
    expect(visible?.seen?.moves).toMatch(/^0\.\d+ %$/);
  });

  it("names readings that nothing checks, and where one more would", () => {
    const lone = roundWith({
      plan: { axes: "X", way: "pair", spanXMm: 150, repeats: 1 },
      read: ({ nominalMm }) => [nominalMm],
    });
    const [visible] = solved(historyWith([lone])).visible ?? [];
    expect(visible).toMatchObject({ seen: null, unchecked: ["X, tick 1"], site: "x 1" });
  });
});

describe("what a reading should be", () => {
  it("goes by the other ticks, and by the repeats of its own", () => {
    const other = roundWith({
      plan: { axes: "X" },
      read: (p) => (p.kind === "tick" && p.index === 3 ? null : [1.002 * p.nominalMm, 1.002 * p.nominalMm]),
    });
    const nominal = other.plan.spanXMm * (3 / other.plan.intervals);
    const expected = axisScale.expected(historyWith([other]), "x 3");
    expect(expected?.value).toBeCloseTo(1.002 * nominal, 1);
    expect(expected?.standardUncertainty).toBeLessThan(0.05);
  });

  it("before anything is read goes by what machines are", () => {
    const unread = roundWith({ plan: { axes: "X" }, read: () => null });
    const expected = axisScale.expected(historyWith([unread]), "x 3");
    const nominal = unread.plan.spanXMm * (3 / unread.plan.intervals);
    expect(expected?.value).toBeCloseTo(nominal, 6);
    expect(expected?.standardUncertainty).toBeGreaterThan(0.004 * nominal);
  });
});
