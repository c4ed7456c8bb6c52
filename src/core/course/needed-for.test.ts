import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { markingTimeS } from "../coupon/marking-time";
import { gaugeAsUsual } from "../metrology/gauge";
import { axisScale } from "../procedures/axis-scale/procedure";
import { bedTilt } from "../procedures/bed-tilt/procedure";
import { focus } from "../procedures/focus/procedure";
import { kerf } from "../procedures/kerf/procedure";
import type { PlanContext } from "../trial/plan-form";
import { neededFor } from "./needed-for";
import { proceduresFor } from "./registry";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "", inForce: {} };

describe("what a trial needs", () => {
  it("is two burns of the usual layout with their readings", () => {
    const form = axisScale.plan(context);
    const spec = axisScale.round(form.defaults, context, "measure");
    const readings = spec.sites.reduce((sum, s) => sum + s.repeats, 0);
    const minutes = (2 * (180 + markingTimeS(spec) + 15 * readings)) / 60;
    const needed = neededFor(axisScale, context);
    expect(needed?.minutes).toBeGreaterThanOrEqual(minutes);
    expect(needed?.minutes).toBeLessThan(minutes + 5);
    expect(needed?.pieces).toEqual([{ widthMm: spec.pieces[0]?.widthMm, heightMm: spec.pieces[0]?.heightMm }]);
  });

  it("names the gauge of the workshop, the usual one if there is none, and no gauge if an eye or the readout is enough", () => {
    const own = { ...gaugeAsUsual("calipers"), id: "own", name: "Long calipers" };
    expect(neededFor(axisScale, { ...context, gauges: [own] })?.gauge).toBe("Long calipers");
    expect(neededFor(axisScale, context)?.gauge).toBe(gaugeAsUsual("calipers").name);
    expect(neededFor(focus, context)?.gauge).toBeNull();
    expect(neededFor(bedTilt, context)?.gauge).toBeNull();
  });

  it("is unknown if no stock is chosen or nothing fits", () => {
    expect(neededFor(kerf, context)).toBeNull();
    const tiny = { ...SAMPLE_MACHINE, widthMm: 12, depthMm: 12 };
    expect(neededFor(axisScale, { ...context, machine: tiny })).toBeNull();
  });

  it("is known for every procedure of the first day", () => {
    for (const procedure of proceduresFor(SAMPLE_MACHINE.kind).filter((p) => !p.occasional))
      expect(neededFor(procedure, context)?.minutes, procedure.id).toBeGreaterThan(0);
  });
});
