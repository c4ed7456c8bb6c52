/** Seeds 12000 to 12299, fixed beforehand. */
import { describe, expect, it } from "vitest";
import { origin } from "../../core/procedures/origin/procedure";
import { AS_FOUND, entered, originCoverage, originGantry, originHistory, rehearsedOrigin } from "./origin-accuracy";

const SEEDS = 300;
const SLACK = 3 * Math.sqrt((0.95 * 0.05) / (2 * SEEDS));

describe("the origin on practice gantries", () => {
  const corner = { sideX: "left", sideY: "front" } as const;

  it("lies within what is said of it 95 times in a hundred", () => {
    expect(Math.abs(originCoverage(12_000, SEEDS) - 0.95)).toBeLessThan(SLACK);
  });

  it("is right after one correction where the sense is known, after two where it is not", () => {
    for (let seed = 12000; seed < 12020; seed++) {
      const truth = originGantry(seed);
      const said = (axis: "x" | "y") => (truth.axes[axis].homeSense > 0 ? "away" : "toward");
      const known = { ...corner, senseX: said("x"), senseY: said("y") } as const;
      const first = rehearsedOrigin(truth, seed, 1, AS_FOUND, known);
      const proof = rehearsedOrigin(truth, seed, 2, entered(first), { ...known, repeats: 4 });
      expect(origin.judge(originHistory(first, proof))?.result, `seed ${seed}`).toBe("proved");

      const blind = rehearsedOrigin(truth, seed, 1, AS_FOUND, corner);
      const tried = rehearsedOrigin(truth, seed, 2, entered(blind), corner);
      const last = rehearsedOrigin(truth, seed, 3, entered(blind, tried), { ...corner, repeats: 4 });
      expect(origin.judge(originHistory(blind, tried, last))?.result, `seed ${seed}`).toBe("proved");
    }
  });
});
