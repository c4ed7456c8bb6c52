import { describe, expect, it } from "vitest";
import { controlChart } from "./control-chart";

/** NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2: flow rates of ten batches. */
const FLOW_RATES = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];

describe("the individuals chart", () => {
  it("reproduces the flow rates of the NIST/SEMATECH handbook: 50.81, 1.8778, 55.804, 45.816", () => {
    const chart = controlChart(FLOW_RATES, 0);
    expect(chart?.centre).toBeCloseTo(50.81, 10);
    expect(chart?.meanRange).toBeCloseTo(1.8778, 4);
    // The handbook divides by 1.128 and rounds: 55.8041 and 45.8159.
    expect(chart?.high).toBeCloseTo(55.804, 2);
    expect(chart?.low).toBeCloseTo(45.816, 2);
    expect(chart?.beyond).toEqual([]);
    expect(chart?.ranges).toHaveLength(9);
    expect(chart?.rangeLimit).toBeCloseTo(3.267 * 1.8778, 3);
  });

  it("draws no limits from fewer than ten points", () => {
    expect(controlChart(FLOW_RATES.slice(1), 0)).toBeNull();
  });

  it("does not let a quiet stretch raise an alarm: the range has the uncertainty of a reading as its floor", () => {
    const quiet = [...new Array(10).fill(0), 0.004];
    expect(controlChart(quiet, 0)?.beyond).toEqual([10]);
    expect(controlChart(quiet, 0.004)?.beyond).toEqual([]);
    expect(controlChart(quiet, 0.004)?.meanRange).toBeCloseTo(1.128 * 0.004, 9);
  });

  it("sees a point beyond the limits, and a long run on one side", () => {
    expect(controlChart([...FLOW_RATES, 60], 0)?.beyond).toEqual([10]);
    const drifted = [1, 2, 1, 2, 1, 2, 1, 2, 4, 5, 4, 5, 4, 5, 4, 5];
    expect(controlChart(drifted, 0)?.run).toBe(true);
    expect(controlChart([...drifted, 1], 0)?.run).toBe(false);
  });
});
