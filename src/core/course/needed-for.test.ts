import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { markingTimeS } from "../coupon/marking-time";
import { gaugeAsUsual } from "../metrology/gauge";
import { axisScale } from "../procedures/axis-scale/procedure";
import { focus } from "../procedures/focus/procedure";
import { kerf } from "../procedures/kerf/procedure";
import type { PlanContext } from "../trial/plan-form";
import { neededFor } from "./needed-for";
import { proceduresFor } from "./registry";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "", inForce: {} };

describe("what a trial needs", () => {
  it("is two burns with their readings, by hand from the usual layout", () => {
    const form = axisScale.plan(context);
    const spec = axisScale.round(form.defaults, context, "measure");
    const readings = spec.sites.reduce((sum, s) => sum + s.repeats, 0);
    const minutes = (2 * (180 + markingTimeS(spec) + 15 * readings)) / 60;
    const needed = neededFor(axisScale, context);
    expect(needed?.minutes).toBeGreaterThanOrEqual(minutes);
    expect(needed?.minutes).toBeLessThan(minutes + 5);
    expect(needed?.pieces).toEqual([{ widthMm: spec.pieces[0]?.widthMm, heightMm: spec.pieces[0]?.heightMm }]);
  });

  it("names the gauge of the workshop, the usual one where there is none, and none where an eye is enough", () => {
    const own = { ...gaugeAsUsual("calipers"), id: "own", name: "Long calipers" };
    expect(neededFor(axisScale, { ...context, gauges: [own] })?.gauges).toEqual(["Long calipers"]);
    expect(neededFor(axisScale, context)?.gauges).toEqual([gaugeAsUsual("calipers").name]);
    expect(neededFor(focus, context)?.gauges).toEqual([]);
  });

  it("is not known before a stock is chosen, or where nothing fits", () => {
    expect(neededFor(kerf, context)).toBeNull();
    const tiny = { ...SAMPLE_MACHINE, widthMm: 12, depthMm: 12 };
    expect(neededFor(axisScale, { ...context, machine: tiny })).toBeNull();
  });

  it("is known for whatever belongs to a machine from the start", () => {
    for (const procedure of proceduresFor(SAMPLE_MACHINE.kind).filter((p) => !p.occasional))
      expect(neededFor(procedure, context)?.minutes, procedure.id).toBeGreaterThan(0);
  });
});
