/** What a layout is said to be able to tell, held against what practice gantries then give. Seeds 21000 to 21039. */
import { describe, expect, it } from "vitest";
import { forecastOf } from "../../core/course/forecast";
import { median } from "../../core/fitting/median";
import { expandedUncertainty } from "../../core/metrology/measured";
import { axisScale } from "../../core/procedures/axis-scale/procedure";
import type { AnyProcedure } from "../../core/procedures/contract";
import { focus } from "../../core/procedures/focus/procedure";
import { kerf } from "../../core/procedures/kerf/procedure";
import type { Way } from "../../core/procedures/rotary/plan";
import { rotary } from "../../core/procedures/rotary/procedure";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../sample-machine";
import { LENGTH_GAUGES, rms, scaleCases } from "./axis-scale-accuracy";
import { kerfHistory, kerfPlan, rehearsedKerf } from "./kerf-accuracy";

const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, gauges: [LENGTH_GAUGES.calipers] };
const laid = (repeats: number, tolerance = axisScale.tolerance.default) => ({
  procedure: axisScale,
  plan: { ...axisScale.plan(context).defaults, repeats },
  context,
  tolerance,
});

describe("the forecast of a layout", () => {
  it("comes true: intervals are as wide as was said, within a quarter", () => {
    const forecast = forecastOf(laid(2));
    const widths = scaleCases(21_000, 40, { gauge: LENGTH_GAUGES.calipers, plan: {}, common: true }).map(
      (c) => c.expanded,
    );
    expect(rms(widths) / (forecast?.expanded ?? Number.NaN)).toBeGreaterThan(0.75);
    expect(rms(widths) / (forecast?.expanded ?? Number.NaN)).toBeLessThan(1.25);
  });

  it("leaves to a proof what the tolerance has left, and needs no help there", () => {
    const forecast = forecastOf(laid(2));
    expect(forecast?.decidesUpTo).toBeCloseTo(0.001 - (forecast?.expanded ?? 0), 12);
    expect(forecast?.help).toBeNull();
  });

  it("names the fewest readings that leave a proof room, and keeps its word", () => {
    const tight = (forecastOf(laid(2))?.expanded ?? 0) * 1.8;
    const { help } = forecastOf(laid(2, tight)) ?? { help: null };
    const repeats = help && "repeats" in help.by ? help.by.repeats : Number.NaN;
    expect(help?.plan).toEqual({ repeats });
    const then = forecastOf(laid(repeats, tight));
    expect(then?.expanded).toBeCloseTo(help?.expanded ?? Number.NaN, 12);
    expect(then?.expanded).toBeLessThanOrEqual(tight / 2);
    expect(forecastOf(laid(repeats - 1, tight))?.expanded).toBeGreaterThan(tight / 2);
  });

  it("proposes the longest lengths that fit where those alone leave a proof room", () => {
    const { defaults } = axisScale.plan(context);
    const short = { ...defaults, spanXMm: 60, spanYMm: 50 };
    const forecast = forecastOf({ procedure: axisScale, plan: short, context, tolerance: 0.001 });
    expect(forecast?.help).toMatchObject({ by: { longer: true }, plan: { spanXMm: 150, spanYMm: 140 } });
    const then = forecastOf({
      procedure: axisScale,
      plan: { ...short, ...forecast?.help?.plan },
      context,
      tolerance: 0.001,
    });
    expect(then?.expanded).toBeCloseTo(forecast?.help?.expanded ?? Number.NaN, 12);
    expect(then?.expanded).toBeLessThan((forecast?.expanded ?? 0) / 2);
    expect(then?.help).toBeNull();
  });

  it("names points that no other point checks, and none where ticks check each other", () => {
    expect(forecastOf(laid(2))?.alone).toEqual([]);
    const pair = { ...axisScale.plan(context).defaults, way: "pair", repeats: 2 };
    const forecast = forecastOf({ procedure: axisScale, plan: pair, context, tolerance: 0.001 });
    expect(forecast?.alone).toEqual(["X, tick 1", "Y, tick 1"]);
  });

  it("lets lengths follow the gauge that is chosen", () => {
    const gauges = [LENGTH_GAUGES.calipers, LENGTH_GAUGES.rule];
    const { defaults } = axisScale.plan({ ...context, gauges });
    const byRule = { ...defaults, gauge: LENGTH_GAUGES.rule.id };
    expect(axisScale.longest?.(byRule, { ...context, gauges })).toMatchObject({ spanXMm: 870, spanYMm: 550 });
  });

  it("says that no proof can succeed where the interval alone is wider than the tolerance", () => {
    const forecast = forecastOf(laid(1, 0.0001));
    expect(forecast?.decidesUpTo).toBeNull();
  });

  it("of a scan offset is of the stagger, which the tolerance is for", () => {
    const plan = { ...scanOffset.plan(context).defaults };
    const forecast = forecastOf({ procedure: scanOffset, plan, context, tolerance: 0.05 });
    expect(forecast?.label).toMatch(/^the stagger at \d+ mm\/s$/);
    expect(forecast?.expanded).toBeGreaterThan(0.01);
    expect(forecast?.expanded).toBeLessThan(0.03);
  });

  it("tells what each way of measuring a rotary will be worth, and a longer travel is worth more", () => {
    const { defaults } = rotary.plan(context);
    const told = (way: Way, spanMm: number) =>
      forecastOf({
        procedure: rotary,
        plan: { ...defaults, way, spanMm, readoutStepMm: 0.01, dotMm: 0.1 },
        context,
        tolerance: rotary.tolerance.default,
      })?.expanded ?? Number.NaN;
    expect(told("wrap", 100)).toBeGreaterThan(0);
    // What is set by hand is shared by a longer way; of what the calipers always read wrong a part grows with it.
    const gain = (way: Way) => told(way, 100) / told(way, 50);
    expect(gain("traced")).toBeGreaterThan(0.45);
    expect(gain("traced")).toBeLessThan(0.6);
    expect(gain("span")).toBeGreaterThan(gain("traced"));
    expect(gain("span")).toBeLessThan(0.95);
    // Two lines are set by a dot of 0.1 mm, sqrt(2) 0.1/sqrt(3) mm together: by hand, of 100 mm, twice that.
    expect(told("traced", 100)).toBeGreaterThan(0.0016);
  });
});

describe("the forecast of what is judged", () => {
  const at = (procedure: AnyProcedure, changes: object, tolerance = procedure.tolerance.default) => {
    const known = { ...context, stocks: [SAMPLE_STOCK] };
    const plan = planWith(procedure.plan(known), changes);
    return forecastOf({ procedure, plan, context: known, tolerance });
  };

  it("by eye goes by the step of the ladder and of the height, and names no gauge", () => {
    // An edge within a cell, misjudged by one in one of seven; heights in steps of 0.5 mm. Two cells of 1 mm, then of 0.5 mm.
    const by = (stepMm: number) => 1.96 * Math.hypot(stepMm * Math.sqrt((1 / 12 + 0.15) / 2), 0.5 / Math.sqrt(12));
    for (const stepMm of [1, 0.5]) {
      const forecast = at(focus, { stepMm });
      expect(forecast).toMatchObject({ gauge: null, label: "the focus height", alone: [] });
      expect(forecast?.expanded).toBeCloseTo(by(stepMm), 2);
    }
    expect(at(focus, { way: "ramp" })?.expanded).toBeLessThan(at(focus, {})?.expanded ?? 0);
  });

  it("by pairs comes true within a third, and offers more judgements where those leave a proof room", () => {
    const mates = { stock: SAMPLE_STOCK.key, way: "tongue and slot" } as const;
    const forecast = at(kerf, mates);
    const found = Array.from({ length: 12 }, (_, i) => {
      const plan = kerfPlan(22_000 + i, { ...mates, stock: kerfPlan(22_000 + i, {}).stock, repeats: 2 });
      const round = rehearsedKerf(22_000 + i, plan);
      return kerf.judged?.(kerfHistory([round]), round)?.quantity;
    }).flatMap((q) => (q ? [expandedUncertainty(q)] : []));
    expect(found.length).toBeGreaterThan(8);
    expect((forecast?.expanded ?? 0) / median(found)).toBeGreaterThan(2 / 3);
    expect((forecast?.expanded ?? 0) / median(found)).toBeLessThan(1.5);
    const tight = 0.6 * kerf.tolerance.default;
    const { help } = at(kerf, mates, tight) ?? { help: null };
    expect(help?.expanded).toBeLessThanOrEqual(tight / 2);
    expect(at(kerf, { ...mates, ...help?.plan }, tight)?.expanded).toBeCloseTo(help?.expanded ?? Number.NaN, 12);
  });

  it("moved by hand goes by the readouts at both marks", () => {
    expect(at(axisScale, { way: "by hand" })).toMatchObject({
      gauge: LENGTH_GAUGES.calipers,
      alone: ["the distance along X", "the distance along Y"],
    });
  });
});
