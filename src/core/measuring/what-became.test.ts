import { describe, expect, it } from "vitest";
import { measured } from "../metrology/measured";
import { becameFindings, whatBecame } from "./what-became";

const before = measured(0.4, 0.01, Infinity);
const becomes = (value: number, u = 0.01) => whatBecame(before, measured(value, u, Infinity));

describe("an error after its correction", () => {
  it.each([
    [0.4, "unchanged"],
    [0.3, "unchanged"],
    [0.2, "halved"],
    [0.24, "halved"],
    [-0.4, "overshot"],
    [0.8, "doubled"],
    // 0.4 mm entered where inches are taken moves 25.4 times too far.
    [0.4 - 25.4 * 0.4, "inches"],
    [0.02, null],
    [-0.15, null],
    [1.4, null],
  ])("of 0.4 mm that is now %f mm: %s", (value, became) => {
    expect(becomes(value)).toBe(became);
  });

  it("tells nothing where it was small beside its uncertainty, or is good again", () => {
    expect(whatBecame(measured(0.03, 0.01, Infinity), measured(0.03, 0.01, Infinity))).toBeNull();
    expect(whatBecame(null, measured(0.4, 0.01, Infinity))).toBeNull();
    expect(becomes(0.2, 0.07)).toBeNull();
  });

  it("has the words of its procedure for what stayed or doubled, and the same words for the rest", () => {
    const own = { unchanged: { headline: "As it was.", text: "" }, doubled: { headline: "Twice.", text: "" } };
    const headline = (value: number) => becameFindings(before, measured(value, 0.01, Infinity), own)[0]?.headline;
    expect(headline(0.4)).toBe("As it was.");
    expect(headline(0.8)).toBe("Twice.");
    expect(headline(0.2)).toBe("Half of the error remains.");
    expect(becameFindings(before, measured(0.2, 0.01, Infinity), own, (b) => `x ${b}`)[0]?.id).toBe("x halved");
    expect(headline(0)).toBeUndefined();
  });
});
