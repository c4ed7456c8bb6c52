import { describe, expect, it } from "vitest";
import { seeded } from "../../practice/random";
import { likelihoods, middleOfClass, type OrderedModel } from "./ordered-thresholds";

const MODEL: OrderedModel = { classes: 5, usualSigma: 0.1, low: -1, high: 10 };
const judgedAs = (ranks: readonly number[]) => ranks.map((rank, x) => ({ x, rank }));

/** The same posterior by chance: thresholds and sigma drawn from what is supposed, weighted by how likely the judgements are. */
function byChance(ranks: readonly number[], draws: number): { middle: number; sd: number } {
  const random = seeded(7);
  const sums = { weight: 0, middle: 0, square: 0 };
  const sigmas = [0.4, 0.63, 1, 1.6, 2.5];
  for (let i = 0; i < draws; i++) {
    const theta = [0, 1, 2, 3].map(() => random.between(MODEL.low, MODEL.high)).sort((a, b) => a - b);
    const factor = sigmas[Math.floor(random.even() * sigmas.length)] as number;
    const cdf = (z: number) => logistic(z / (factor * MODEL.usualSigma));
    let weight = Math.exp(-0.5 * (Math.log(factor) / Math.log(1.6)) ** 2);
    ranks.forEach((rank, x) => {
      const above = rank === 4 ? 1 : cdf((theta[rank] as number) - x);
      const below = rank === 0 ? 0 : cdf((theta[rank - 1] as number) - x);
      weight *= above - below;
    });
    const middle = ((theta[1] as number) + (theta[2] as number)) / 2;
    sums.weight += weight;
    sums.middle += weight * middle;
    sums.square += weight * middle ** 2;
  }
  const middle = sums.middle / sums.weight;
  return { middle, sd: Math.sqrt(sums.square / sums.weight - middle ** 2) };
}

/** Phi to 0.01 by a logistic curve of the same steepness: enough beside a spacing of ten sigma. */
function logistic(z: number): number {
  return 1 / (1 + Math.exp(-1.702 * z));
}

describe("the middle of a class", () => {
  it("lies in the middle of what is judged evenly on both sides", () => {
    const found = middleOfClass(judgedAs([0, 0, 0, 1, 2, 3, 4, 4, 4]), 2, { ...MODEL, high: 9 });
    expect(found.middle).toBeCloseTo(4, 2);
    expect(found.standardUncertainty).toBeGreaterThan(0.15);
    expect(found.standardUncertainty).toBeLessThan(0.3);
  });

  it("lies between two neighbours where nothing was judged to be of it", () => {
    const found = middleOfClass(judgedAs([0, 0, 1, 1, 3, 3, 4, 4]), 2, MODEL);
    expect(found.middle).toBeCloseTo(3.5, 1);
    expect(found.within95).toBeLessThan(0.55);
  });

  it("is what draws by chance from the same suppositions say", () => {
    const ranks = [0, 1, 1, 2, 2, 4];
    const found = middleOfClass(judgedAs(ranks), 2, { ...MODEL, high: 10 });
    const drawn = byChance(ranks, 2_000_000);
    expect(Math.abs(found.middle - drawn.middle)).toBeLessThan(0.03);
    expect(Math.abs(found.standardUncertainty / drawn.sd - 1)).toBeLessThan(0.05);
  }, 60_000);

  it("is surer where each is judged more often around a blurred threshold", () => {
    const once = judgedAs([0, 0, 1, 1, 2, 2, 3, 3, 4]);
    const model = { ...MODEL, usualSigma: 1 };
    const few = middleOfClass(once, 2, model).standardUncertainty;
    const many = middleOfClass(Array.from({ length: 6 }, () => once).flat(), 2, model).standardUncertainty;
    expect(many).toBeLessThan(few);
  });

  it("refuses the first and the last class: they have no middle", () => {
    expect(() => middleOfClass(judgedAs([0, 1, 2]), 0, MODEL)).toThrow(/rank/);
    expect(() => middleOfClass(judgedAs([0, 1, 2]), 4, MODEL)).toThrow(/rank/);
  });

  it("names the judgement that does not go with the others", () => {
    const p = likelihoods(judgedAs([0, 0, 1, 3, 1, 2, 2, 3, 4, 4]), MODEL);
    expect(p.indexOf(Math.min(...p))).toBe(3);
    expect(Math.min(...p)).toBeLessThan(0.01);
    expect(p[0]).toBeGreaterThan(0.5);
  });
});
