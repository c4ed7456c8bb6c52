import { describe, expect, it } from "vitest";
import { historyOf, readAs, TEST_GAUGE, table } from "../../../testing/scan-offset-history";
import { scanOffset } from "./procedure";

const SPEEDS = [100, 200, 300, 400, 500];
const before = Object.fromEntries(SPEEDS.map((v) => [v, 0.0012 * v]));
const after = (ratio: number) => Object.fromEntries(SPEEDS.map((v) => [v, ratio * 0.0012 * v]));
const sharp = { gauges: [{ ...TEST_GAUGE, limitMm: 0.002 }] };
const proof = (ratio: number, more = {}) =>
  historyOf(
    [
      readAs({ staggers: before, reference: 0.3 }),
      readAs({ staggers: after(ratio), reference: 0.3, purpose: "proof" }, 2),
    ],
    {
      ...sharp,
      ...more,
    },
  );

describe("the proof", () => {
  it("is proved where every stagger with its uncertainty is within the tolerance", () => {
    const verdict = scanOffset.judge(proof(0));
    expect(verdict?.result).toBe("proved");
    expect(verdict?.findings).toEqual([]);
    expect(verdict?.lines[4]?.before?.value).toBeCloseTo(0.6, 6);
  });

  it("is not proved where the stagger is clearly outside", () => {
    expect(scanOffset.judge(proof(0.5))?.result).toBe("not proved");
  });

  it("says when the gauge cannot tell", () => {
    expect(scanOffset.judge(proof(0, { tolerance: 0.004 }))?.result).toBe("cannot tell");
  });

  it.each([
    [1, "not in force"],
    [-1, "whole"],
    [0.5, "halved"],
    [2, "reversed"],
    [3, "reversed whole"],
    [1 - 25.4, "mm as inch"],
    [1 - 1 / 25.4, "inch as mm"],
  ])("recognises a ratio of %d as “%s”", (ratio, cause) => {
    expect(scanOffset.judge(proof(ratio))?.findings.map((f) => f.id)).toEqual([cause]);
  });

  it("recognises that the old table was lost", () => {
    const inForce = table(SPEEDS.map((v) => [v, 0.0004 * v + 0.05]));
    const lost = Object.fromEntries(SPEEDS.map((v) => [v, 0.0012 * v + 2 * (0.0004 * v + 0.05)]));
    const history = historyOf(
      [
        readAs({ staggers: before, inForce, reference: 0.3 }),
        readAs({ staggers: lost, purpose: "proof", reference: 0.3 }, 2),
      ],
      sharp,
    );
    expect(scanOffset.judge(history)?.findings.map((f) => f.id)).toEqual(["old table lost"]);
  });

  it("names no cause where there was next to nothing before", () => {
    const tiny = Object.fromEntries(SPEEDS.map((v) => [v, 0.00002 * v]));
    const history = historyOf([readAs({ staggers: tiny }), readAs({ staggers: after(0.3), purpose: "proof" }, 2)]);
    expect(scanOffset.judge(history)?.findings).toEqual([]);
  });

  it("names no cause for a ratio that none explains", () => {
    expect(scanOffset.judge(proof(0.75))?.findings).toEqual([]);
  });

  it("has no verdict before there is a proof", () => {
    expect(scanOffset.judge(historyOf([readAs({ staggers: before })]))).toBeNull();
  });
});

describe("what comes next", () => {
  const next = (history: ReturnType<typeof historyOf>) => scanOffset.next(history, scanOffset.solve(history));

  it("is the proof after a measured round, and the end after a proved one", () => {
    expect(next(historyOf([readAs({ staggers: before, reference: 0.3 })]))).toMatchObject({
      do: "round",
      purpose: "proof",
    });
    expect(next(proof(0))).toMatchObject({ do: "stop" });
  });

  it("is one more correction after a failed proof, and more readings where the gauge cannot tell", () => {
    expect(next(proof(-1))).toMatchObject({ do: "round", purpose: "proof" });
    expect(next(proof(0, { tolerance: 0.004 }))).toMatchObject({ do: "read" });
  });

  it("is another burn after an undecided proof or check whose values were entered", () => {
    for (const purpose of ["proof", "check"] as const) {
      const [first, last] = proof(0, { tolerance: 0.004 }).rounds;
      if (!first || !last) throw new Error("two burns");
      const entered = { ...last, purpose, corrected: true };
      const history = historyOf(purpose === "check" ? [entered] : [first, entered], { ...sharp, tolerance: 0.004 });
      expect(scanOffset.judge(history)?.result).toBe("cannot tell");
      expect(next(history)).toMatchObject({ do: "round", purpose: "proof" });
    }
  });

  it("is reading while sites are unread", () => {
    const round = readAs({ staggers: before });
    expect(next(historyOf([{ ...round, answers: [] }]))).toMatchObject({ do: "read" });
  });
});
