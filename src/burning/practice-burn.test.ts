/** The file is all that passes between export and practice machine: also on machines that count the other way. */
import { describe, expect, it } from "vitest";
import type { Axes } from "../core/machine/machine-spec";
import type { LadderPlan } from "../core/procedures/focus/plan";
import { focus } from "../core/procedures/focus/procedure";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import { parseGcode } from "../formats/gcode-parser";
import { burnedPaths } from "../formats/gcode-paths";
import { gcodeOf } from "../formats/gcode-writer";
import { gantryFromSeed, withoutNoise } from "../practice/gantry-truth";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { usualLadder } from "../testing/usual-ladder";
import { burnGcode } from "./practice-burn";

const CODE = "T-1";
/** Without play: the head comes from the other side where zero is there. */
const TRUTH = { ...gantryFromSeed(5), endJitterMm: 0, playMm: 0 };
const controller = { table: [], switchedOn: true };

function burned(axes: Axes) {
  const machine = { ...SAMPLE_MACHINE, axes };
  const context = { machine, couponCode: CODE, inForce: {} };
  const spec = scanOffset.round(scanOffset.plan(context).defaults, context, "measure");
  const text = gcodeOf(spec, { couponCode: CODE, machineName: "T", dialect: machine.gcode, bed: machine });
  const burn = burnGcode(text, CODE, machine, TRUTH, controller);
  if (!burn.ok) throw new Error(burn.message);
  return { text, marks: burn.marks };
}

describe("a machine whose axes count up the other way", () => {
  const usual = burned({ home: "front left", x: "to the right", y: "away" });

  it.each([
    { x: "to the left", y: "away", says: "X0 at the right" },
    { x: "to the right", y: "toward you", says: "Y0 at the back" },
    { x: "to the left", y: "toward you", says: "X0 at the right, Y0 at the back" },
  ] as const)("gets a file in its own places, and the same marks: $x, $y", ({ says, ...axes }) => {
    const { text, marks } = burned({ home: "not known", ...axes });
    expect(text).toContain(`; ${says})`);
    expect(text).not.toBe(usual.text);
    // The person lays the stock by the numbers that the machine shows.
    expect(text).toContain(`, as the machine counts (${says})`.replace(/[()]/g, " "));
    expect(marks).toHaveLength(usual.marks.length);
    marks.forEach((mark, i) => {
      for (const end of ["x0", "x1", "y0", "y1"] as const) expect(mark[end]).toBeCloseTo(usual.marks[i]?.[end] ?? 0, 3);
    });
  });

  it("counts from the other side of the working area", () => {
    const places = (text: string) => {
      const read = parseGcode(text, { dialect: SAMPLE_MACHINE.gcode });
      if (!read.ok) throw new Error(read.message);
      return read.value.steps.flatMap((s) => (s.kind === "move" ? [s.to.x] : []));
    };
    const left = places(burned({ home: "not known", x: "to the left", y: "away" }).text);
    for (const [i, x] of places(usual.text).entries()) expect(left[i]).toBeCloseTo(SAMPLE_MACHINE.widthMm - x, 3);
  });
});

describe("heights", () => {
  const ladder = (plan: Partial<LadderPlan> = {}, start: string[] = []) => {
    const machine = { ...SAMPLE_MACHINE, gcode: { ...SAMPLE_MACHINE.gcode, start } };
    const context = { machine, couponCode: CODE, inForce: {} };
    const spec = focus.round({ ...usualLadder(context), ...plan }, context, "measure");
    const text = gcodeOf(spec, { couponCode: CODE, machineName: "T", dialect: machine.gcode, bed: machine });
    return { text, burn: (file = text) => burnGcode(file, CODE, machine, STILL, controller, spec) };
  };
  const STILL = withoutNoise(TRUTH);
  const widths = (burn: ReturnType<typeof burnGcode>) => {
    if (!burn.ok) throw new Error(burn.message);
    return burn.marks.map((m) => m.widthMm);
  };

  it("set by hand or by motor come to the same marks, and only near focus are there any", () => {
    const byHand = widths(ladder().burn());
    expect(widths(ladder({ moves: "by motor" }).burn())).toEqual(byHand);
    const everywhere = parseGcode(ladder().text);
    const burned = everywhere.ok ? burnedPaths(everywhere.value).length : 0;
    expect(byHand.length).toBeGreaterThan(burned / 10);
    expect(byHand.length).toBeLessThan(burned);
  });

  it("are set at the pauses that tell them, whatever else a machine stops for", () => {
    expect(widths(ladder({}, ["M0 (close the lid)"]).burn())).toEqual(widths(ladder().burn()));
  });

  it("are moved slowly by a file, with the beam off", () => {
    const { text } = ladder({ moves: "by motor" });
    const lines = text.split("\n").filter((line) => line.includes("Z"));
    expect(lines).toHaveLength(17);
    // 2 mm/s
    for (const line of lines) expect(line).toMatch(/^G1 Z\d+ F120 S0$/);
    expect(text).not.toContain("M0");
  });

  it("are missed where a file no longer stops for one", () => {
    const { text, burn } = ladder();
    expect(burn(text.replace(/^M0 \(Cell 4:.*\n/m, ""))).toMatchObject({
      ok: false,
      message: "This file does not stop for “Cell 4: set 5 mm”. Use the file as it was downloaded.",
    });
  });
});
