import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { table } from "../../../testing/scan-offset-history";
import { draftOf, readDraft } from "../../trial/draft";
import type { PlanContext } from "../../trial/plan-form";
import { asSent } from "./own-compensation";
import type { ScanOffsetPlan } from "./plan";
import { runUpMm } from "./plan-faults";
import { scanOffset } from "./procedure";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const form = scanOffset.plan(context);

/** The first fault of each field, as the screen shows it. */
function faults(change: Record<string, string>, machine = SAMPLE_MACHINE): Record<string, string> {
  const its = scanOffset.plan({ ...context, machine });
  const read = readDraft(its, { ...draftOf(its, its.defaults), ...change });
  return read.ok ? {} : Object.fromEntries([...read.issues].reverse().map((i) => [i.field, i.message]));
}

describe("laying out", () => {
  it("starts from something that can be burned", () => {
    expect(faults({})).toEqual({});
    const small = { ...SAMPLE_MACHINE, widthMm: 300, depthMm: 200, topSpeedMmPerS: 150, scansBlocks: false };
    expect(faults({}, small)).toEqual({});
  });

  it("reads back its own texts", () => {
    const read = readDraft(form, draftOf(form, form.defaults));
    expect(read).toEqual({ ok: true, plan: form.defaults });
  });

  it.each([
    ["no length", { rowLengthMm: "" }, "rowLengthMm", /Enter a length, for example 50 mm/],
    ["a length of nothing", { rowLengthMm: "0" }, "rowLengthMm", /at least 20 mm/],
    [
      "a speed above the top speed",
      { speedsMmPerS: "100 700" },
      "speedsMmPerS",
      /700 mm\/s is too fast\. The top speed of Testbed is 600 mm\/s\./,
    ],
    ["mm/min typed as mm/s", { speedsMmPerS: "6000" }, "speedsMmPerS", /If you mean 6000 mm\/min, enter 100 mm\/s/],
    ["mm/s typed as mm/min", { speedsMmPerS: "300 mm/min" }, "speedsMmPerS", /Check that the speed is in mm\/s/],
    ["two blocks of one speed", { speedsMmPerS: "100 200 100" }, "speedsMmPerS", /100 mm\/s is entered twice/],
    ["no speed", { speedsMmPerS: "" }, "speedsMmPerS", /at least one speed/],
    ["a speed that is no number", { speedsMmPerS: "100 fast" }, "speedsMmPerS", /fast/],
    ["a block wider than the stock", { rowLengthMm: "120" }, "stockWidthMm", /need 146 mm\. The stock is 90 mm wide/],
    ["blocks higher than the stock", { stockHeightMm: "60" }, "stockHeightMm", /need .* The stock is 60 mm high/],
    ["stock off the working area", { stockAtXMm: "850" }, "stockAtXMm", /outside the working area of 900 mm/],
    ["stock off the far edge", { stockAtYMm: "560" }, "stockAtYMm", /outside the working area of 600 mm/],
    ["a run-up off the bed", { stockAtXMm: "5" }, "stockAtXMm", /run-up\. .* are missing on the left/],
    ["half a row", { rowsPerBlock: "5.5" }, "rowsPerBlock", /a whole number/],
  ])("refuses %s at its field", (_, change, field, message) => {
    expect(faults(change as unknown as Record<string, string>)[field]).toMatch(message);
  });

  it("refuses a run-up that is longer than the machine", () => {
    const short = { ...SAMPLE_MACHINE, widthMm: 220, accelerationMmPerS2: 800 };
    expect(faults({ stockAtXMm: "60" }, short).stockAtXMm).toMatch(/more than the 220 mm of Testbed/);
  });

  it("still draws what does not fit", () => {
    const read = readDraft(form, { ...draftOf(form, form.defaults), rowLengthMm: "120" });
    expect(read.ok).toBe(false);
    const unfit = read.ok ? null : read.unfit;
    expect(scanOffset.round(unfit as ScanOffsetPlan, context, "measure").pieces).toHaveLength(1);
  });

  it("lengthens run-ups with the square of the speed: v^2 / 2a and a margin", () => {
    expect(runUpMm(600, SAMPLE_MACHINE)).toBeGreaterThan(600 ** 2 / (2 * 5000));
    expect((runUpMm(600, SAMPLE_MACHINE) - 1) / (runUpMm(300, SAMPLE_MACHINE) - 1)).toBeCloseTo(4, 9);
  });

  it("warns of what does not stop the burn", () => {
    const exact = {
      ...SAMPLE_MACHINE,
      held: {
        "scan offset": {
          unit: "mm" as const,
          step: 0.001,
          range: null,
          tableKind: "exact speed only" as const,
          sense: 1 as const,
        },
      },
    };
    const warned = (plan: Partial<ScanOffsetPlan>, machine = SAMPLE_MACHINE) =>
      scanOffset
        .warnings({ ...form.defaults, ...plan }, { ...context, machine })
        .map((w) => w.message)
        .join(" ");
    expect(warned({})).toBe("");
    expect(warned({ speedsMmPerS: [100] })).toMatch(/three speeds/);
    expect(warned({ way: "bare strokes" })).toMatch(/does not act on strokes/);
    expect(warned({}, exact)).toMatch(/exact speeds only, and your work also uses 150/);
    expect(warned({}, { ...SAMPLE_MACHINE, accelerationMmPerS2: null as never })).toMatch(/not known/);
  });
});

describe("the coupon", () => {
  const round = (way: ScanOffsetPlan["way"]) => scanOffset.round({ ...form.defaults, way }, context, "measure");

  it("gives every block a witness strip of one direction at the same ends", () => {
    const piece = round("closed blocks").pieces[0];
    const areas = piece?.paths.filter((p) => p.closed) ?? [];
    const ends = (id: string) => areas.find((p) => p.settings === id)?.points.map((q) => q.x);
    expect(ends("v300")).toEqual(ends("v300w"));
    expect(piece?.settings.find((s) => s.id === "v300w")?.scan?.direction).toBe("right-going");
  });

  it("burns strokes to and fro, the lowest to the right, witness rows all to the right", () => {
    const rows = round("own strokes").pieces[0]?.paths ?? [];
    const going = (id: string) =>
      rows.filter((p) => p.settings === id).map((p) => Math.sign((p.points[1]?.x ?? 0) - (p.points[0]?.x ?? 0)));
    expect(going("v300")).toEqual([1, -1, 1, -1, 1, -1, 1, -1]);
    expect(going("v300w")).toEqual([1, 1, 1]);
  });

  it("asks for the step in words at both ends, with the words the other way round on the left", () => {
    const ask = (id: string) => round("closed blocks").sites.find((s) => s.id === id)?.ask;
    expect(ask("v300-right")).toMatchObject({ signedBy: { positive: "right-going stand out" } });
    expect(ask("v300-left")).toMatchObject({ signedBy: { positive: "left-going stand out" } });
  });

  it("shifts its own rows against their travel by the entry, and leaves all else alone", () => {
    const plan = { ...form.defaults, way: "own strokes" as const };
    const spec = scanOffset.round(plan, context, "proof");
    const sent = asSent(spec, plan, { "scan offset": table([[300, 0.2]]) }, SAMPLE_MACHINE);
    const shift = (i: number) =>
      (sent.pieces[0]?.paths[i]?.points[0]?.x ?? 0) - (spec.pieces[0]?.paths[i]?.points[0]?.x ?? 0);
    const first = spec.pieces[0]?.paths.findIndex((p) => p.settings === "v300") ?? -1;
    expect(shift(first)).toBeCloseTo(-0.2, 12);
    expect(shift(first + 1)).toBeCloseTo(0.2, 12);
    expect(shift(0)).toBe(0);
    const closed = { ...plan, way: "closed blocks" as const };
    expect(asSent(spec, closed, { "scan offset": table([[300, 0.2]]) }, SAMPLE_MACHINE)).toBe(spec);
  });
});
