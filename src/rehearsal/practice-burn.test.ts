/** The file is all that passes between export and practice machine: also on machines that count the other way. */
import { describe, expect, it } from "vitest";
import type { Axes } from "../core/procedures/machine-spec";
import { SAMPLE_MACHINE } from "../core/procedures/sample-machine";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import { parseGcode } from "../formats/gcode-parser";
import { gcodeOf } from "../formats/gcode-writer";
import { gantryFromSeed } from "../practice/gantry-truth";
import { burnFile } from "./practice-burn";

const CODE = "T-1";
/** Without play: the head comes from the other side where zero is there. */
const TRUTH = { ...gantryFromSeed(5), endJitterMm: 0, playMm: 0 };
const controller = { table: [], switchedOn: true };

function burned(axes: Axes) {
  const machine = { ...SAMPLE_MACHINE, axes };
  const context = { machine, couponCode: CODE, inForce: {} };
  const spec = scanOffset.round(scanOffset.plan(context).defaults, context, "measure");
  const text = gcodeOf(spec, { couponCode: CODE, machineName: "T", dialect: machine.gcode, bed: machine });
  const burn = burnFile(text, CODE, machine, TRUTH, controller);
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
