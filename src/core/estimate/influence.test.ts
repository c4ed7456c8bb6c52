import { describe, expect, test } from "vitest";
import { reading } from "../../testing/short-model";
import { adjust, combine } from "./adjustment";
import { criticalT, effectOn, influences, isSuspect, sameAs } from "./influence";
import { known, type Model, type Observation } from "./model";
import stackLoss from "./reference/stack-loss.json";

/** One scale, nothing known beforehand: what a general statistics package works with. */
function asModel(): Model {
  return {
    observations: stackLoss.y.map((y, i): Observation => {
      const [air = 0, water = 0, acid = 0] = stackLoss.x[i] as number[];
      return reading(`day ${i + 1}`, { row: { constant: 1, air, water, acid }, y, u: 1 });
    }),
    groups: [{ id: "gauge", priorFreedom: 0, leastFactor: 0 }],
    wanted: [],
  };
}

describe("against a general statistics package", () => {
  const adjustment = adjust(asModel());
  if (!adjustment) throw new Error("not solved");

  test("parameters and their standard errors agree to 9 digits", () => {
    ["constant", "air", "water", "acid"].forEach((id, j) => {
      const { quantity } = combine(adjustment, { [id]: 1 });
      expect(quantity.value / (stackLoss.parameters[j] as number)).toBeCloseTo(1, 9);
      expect(quantity.standardUncertainty / (stackLoss.standardErrors[j] as number)).toBeCloseTo(1, 9);
      expect(quantity.degreesOfFreedom).toBeCloseTo(17, 9);
    });
  });

  test("leverages and externally studentized residuals agree to 9 digits", () => {
    influences(adjustment).each.forEach((influence, i) => {
      expect(1 - influence.redundancy).toBeCloseTo(stackLoss.leverage[i] as number, 9);
      expect((influence.t as number) / (stackLoss.externallyStudentized[i] as number)).toBeCloseTo(1, 9);
      expect(influence.freedom).toBeCloseTo(16, 9);
    });
  });

  test("how far one observation moves its own fitted value agrees with dffits", () => {
    const model = asModel();
    influences(adjustment).each.forEach((influence, i) => {
      const own = effectOn(adjustment, (model.observations[i] as Observation).row)[i] as number;
      // A residual deleted from the fit, times how much of it the fit takes, over the scale without it.
      const h = 1 - influence.redundancy;
      expect(own).toBeCloseTo(h, 9);
      const dffits = (influence.t as number) * Math.sqrt(h / influence.redundancy);
      expect(dffits / (stackLoss.dffits[i] as number)).toBeCloseTo(1, 9);
    });
  });
});

test("the scatter that judges a reading is that of the others, pooled with what is expected", () => {
  const [u, expected] = [0.02, 4];
  const adjustment = adjust({
    observations: [0, 0.01, 0.05].map((y, i) => reading(`reading ${i}`, { row: { a: 1 }, y, u })),
    groups: [{ id: "gauge", priorFreedom: expected, leastFactor: 0 }],
    wanted: [],
  });
  if (!adjustment) throw new Error("not solved");
  const last = influences(adjustment).each[2];
  // The others lie 0.005 either side of their mean, and one freedom comes from them.
  const variance = (expected + 2 * (0.005 / u) ** 2) / (expected + 1);
  const deleted = u * Math.sqrt(variance * (1 + 1 / 2));
  expect(last?.deletedU).toBeCloseTo(deleted, 9);
  expect(last?.error).toBeCloseTo(0.045, 9);
  expect(last?.t).toBeCloseTo(0.045 / deleted, 6);
  expect(last?.freedom).toBeCloseTo(5, 6);
});

test("the limit leaves one clean trial in a hundred to chance, however many readings are checked", () => {
  // Normal quantiles of 0.995 and 0.9995. [Abramowitz & Stegun 1972, table 26.5]
  expect(criticalT(Infinity, 1)).toBeCloseTo(2.57583, 4);
  expect(criticalT(Infinity, 10)).toBeCloseTo(3.29053, 4);
  // Student's t of 0.995 with 5 degrees of freedom. [Abramowitz & Stegun 1972, table 26.10]
  expect(criticalT(5, 1)).toBeCloseTo(4.032, 3);
});

describe("what is known beforehand", () => {
  /** Three readings of a length that is known to be 10 mm within 0.1. */
  const model = (y: number[], priorFreedom = 8): Model => ({
    observations: [
      ...y.map((value, i) => reading(`reading ${i + 1}`, { row: { length: 1 }, y: value, u: 0.02 })),
      known("length", "size of the step", { value: 10, u: 0.1 }),
    ],
    groups: [{ id: "gauge", priorFreedom, leastFactor: 0 }],
    wanted: [{ id: "length", label: "the length", row: { length: 1 } }],
  });

  test("weighs by its own uncertainty, whatever the readings scatter", () => {
    const adjustment = adjust(model([10.3, 10.3, 10.3], 1e9));
    if (!adjustment) throw new Error("not solved");
    // (3 * 10.3 / 0.02^2 + 10 / 0.1^2) / (3 / 0.02^2 + 1 / 0.1^2)
    const weight = 3 / 0.02 ** 2;
    const { quantity, parts } = combine(adjustment, { length: 1 });
    expect(quantity.value).toBeCloseTo((10.3 * weight + 10 / 0.01) / (weight + 100), 9);
    expect(quantity.standardUncertainty).toBeCloseTo(1 / Math.sqrt(weight + 100), 9);
    expect(parts.map((p) => p.id)).toEqual(["placing", "length"]);
    expect(parts[1]?.standardUncertainty).toBeCloseTo((100 / (weight + 100)) * 0.1, 9);
    const sum = parts.reduce((total, p) => total + p.standardUncertainty ** 2, 0);
    expect(sum).toBeCloseTo(quantity.standardUncertainty ** 2, 12);
  });

  test("can be found wrong like any reading", () => {
    const adjustment = adjust(model([10.6, 10.62, 10.59], 8));
    if (!adjustment) throw new Error("not solved");
    const { each, checked } = influences(adjustment);
    expect(checked).toBe(4);
    const last = each[3];
    expect(last && isSuspect(last, checked)).toBe(true);
    expect(last?.error).toBeCloseTo(-0.603, 2);
    expect(each.slice(0, 3).some((i) => isSuspect(i, checked))).toBe(false);
  });

  test("the smallest error seen of one reading is what the limit and the power ask for", () => {
    const adjustment = adjust(model([10, 10, 10], 1e9));
    if (!adjustment) throw new Error("not solved");
    const { each, checked } = influences(adjustment);
    const [first] = each;
    // Deleted residual: variance u^2 + u^2/2 with the prior hardly adding.
    const deleted = Math.sqrt(0.02 ** 2 + 1 / (2 / 0.02 ** 2 + 100));
    expect(first?.smallestSeen).toBeCloseTo((criticalT(Infinity, checked) + 0.8416) * deleted, 6);
  });

  test("an observation that nothing checks says so", () => {
    const lone: Model = {
      observations: [reading("lone", { row: { length: 1 }, y: 10, u: 0.02 })],
      groups: [{ id: "gauge", priorFreedom: 8, leastFactor: 0 }],
      wanted: [],
    };
    const adjustment = adjust(lone);
    if (!adjustment) throw new Error("not solved");
    const [only] = influences(adjustment).each;
    expect(only).toMatchObject({ t: null, smallestSeen: Infinity });
  });

  test("two observations that cannot be told apart are one", () => {
    const pair: Model = {
      observations: [
        ...[10.2, 10.21, 10.19].map((y, i) =>
          reading(`reading ${i}`, { row: { zero: 1, limit: 1 }, y: y - 10, u: 0.02 }),
        ),
        known("zero", "zero of the jaws", { u: 0.003 }),
        known("limit", "limit of error", { u: 0.01 }),
      ],
      groups: [{ id: "gauge", priorFreedom: 8, leastFactor: 0 }],
      wanted: [],
    };
    const adjustment = adjust(pair);
    if (!adjustment) throw new Error("not solved");
    expect(sameAs(adjustment, 3).map((o) => o.id)).toEqual(["known zero", "known limit"]);
  });
});
