import { describe, expect, test } from "vitest";
import { reading } from "../../testing/short-model";
import { freedomOf } from "../metrology/measured";
import { adjust, combine } from "./adjustment";
import { known, type Model } from "./model";

/** Two lengths and what the gauge always reads too much, c = 0 +- 0.01. */
const LENGTHS: Model = {
  observations: [
    reading("first", { row: { a: 1, c: 1 }, y: 10.2, u: 0.03 }),
    reading("second", { row: { b: 1, c: 1 }, y: 4.1, u: 0.04 }),
    known("c", "limit of error", { u: 0.01 }),
  ],
  groups: [{ id: "gauge", priorFreedom: 10, leastFactor: 0 }],
  wanted: [],
};

function solved(model: Model) {
  const adjustment = adjust(model);
  if (!adjustment) throw new Error("not solved");
  return adjustment;
}

describe("what readings have in common", () => {
  const adjustment = solved(LENGTHS);
  const part = (row: Record<string, number>, id: string) =>
    combine(adjustment, row).parts.find((p) => p.id === id)?.standardUncertainty ?? 0;

  test("is in a sum twice, and falls out of a difference", () => {
    expect(part({ a: 1 }, "c")).toBeCloseTo(0.01, 12);
    expect(part({ a: 1, b: 1 }, "c")).toBeCloseTo(0.02, 12);
    expect(part({ a: 1, b: -1 }, "c")).toBeCloseTo(0, 12);
    expect(part({ a: 1, b: -1 }, "placing")).toBeCloseTo(0.05, 12);
    expect(combine(adjustment, { a: 1, b: -1 }).quantity.value).toBeCloseTo(6.1, 12);
  });

  test("is no line of the budget where it adds nothing", () => {
    const hardly = solved({
      ...LENGTHS,
      observations: [...LENGTHS.observations.slice(0, 2), known("c", "limit of error", { u: 1e-9 })],
    });
    expect(combine(hardly, { a: 1 }).parts.map((p) => p.id)).toEqual(["placing"]);
    expect(combine(adjustment, { a: 1 }).parts.map((p) => p.id)).toEqual(["placing", "c"]);
  });

  test("has degrees of freedom of its own", () => {
    expect(freedomOf(combine(adjustment, { a: 1, b: -1 }).quantity)).toBeCloseTo(10, 6);
    // Welch-Satterthwaite with u^4 / (0.03^4 / 10). The limit has infinite degrees of freedom.
    const whole = 0.03 ** 2 + 0.01 ** 2;
    expect(freedomOf(combine(adjustment, { a: 1 }).quantity)).toBeCloseTo((whole ** 2 * 10) / 0.03 ** 4, 6);
  });
});

describe("the scatter of a group", () => {
  const repeats = (values: readonly number[], priorFreedom: number, leastFactor = 0): Model => ({
    observations: values.map((y, i) => reading(`reading ${i}`, { row: { a: 1 }, y, u: 0.02 })),
    groups: [{ id: "gauge", priorFreedom, leastFactor }],
    wanted: [],
  });

  test("is pooled with what is expected: (2 x 0.02^2 + sum of squares) / (2 + 3)", () => {
    // Deviations of 0.03, 0.01, -0.01, -0.03 about the mean: sum of squares 0.002.
    const { quantity } = combine(solved(repeats([1.03, 1.01, 0.99, 0.97], 2)), { a: 1 });
    expect(quantity.value).toBeCloseTo(1, 12);
    expect(quantity.standardUncertainty).toBeCloseTo(Math.sqrt((2 * 0.02 ** 2 + 0.002) / 5 / 4), 6);
    expect(freedomOf(quantity)).toBeCloseTo(5, 9);
  });

  test("of nothing expected is that of the repeats alone", () => {
    const { quantity } = combine(solved(repeats([1.03, 1.01, 0.99, 0.97], 0)), { a: 1 });
    expect(quantity.standardUncertainty).toBeCloseTo(Math.sqrt(0.002 / 3 / 4), 6);
    expect(freedomOf(quantity)).toBeCloseTo(3, 9);
  });

  test("is never less than the step of the gauge", () => {
    const { quantity } = combine(solved(repeats([1, 1, 1, 1], 0, 0.5)), { a: 1 });
    expect(quantity.standardUncertainty).toBeCloseTo((0.5 * 0.02) / 2, 12);
  });

  test("leaves what is known beforehand as it is: the factor multiplies readings only", () => {
    const scattered = solved({
      ...repeats([1.3, 0.7, 1.3, 0.7], 0),
      observations: [
        ...repeats([1.3, 0.7, 1.3, 0.7], 0).observations,
        known("a", "size of the step", { value: 1, u: 0.01 }),
      ],
    });
    const { parts } = combine(scattered, { a: 1 });
    expect(parts[0]?.id).toBe("a");
    // Readings with a sd of 0.35 hardly count beside 0.01.
    expect(parts[0]?.standardUncertainty).toBeGreaterThan(0.0099);
    expect(combine(scattered, { a: 1 }).quantity.standardUncertainty).toBeLessThanOrEqual(0.01);
  });
});

test("parameters that cannot be told apart are not solved", () => {
  const twice: Model = {
    ...LENGTHS,
    observations: [
      reading("first", { row: { a: 1, b: 1 }, y: 1, u: 1 }),
      reading("second", { row: { a: 2, b: 2 }, y: 2, u: 1 }),
    ],
  };
  expect(adjust(twice)).toBeNull();
});

test("a parameter that no observation speaks of has no value", () => {
  expect(() => combine(solved(LENGTHS), { a: 1, other: 2 })).toThrow(/no observation speaks of “other”/);
  expect(combine(solved(LENGTHS), { a: 1, other: 0 }).quantity.value).toBeCloseTo(10.2, 12);
});
