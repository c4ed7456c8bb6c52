import { describe, expect, it } from "vitest";
import { type BedTruth, bedFromSeed, raised } from "../../../practice/bed";
import { type PracticeTruth, practiceFromSeed } from "../../../practice/practice-truth";
import { seeded } from "../../../practice/random";
import { rehearseRound } from "../../../testing/rehearsal/rehearse-round";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../../../testing/sample-machine";
import type { MachineSpec } from "../../machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, Purpose, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { placesOf, supportsOf } from "./places";
import { type BedTiltPlan, bedTiltPlan } from "./plan";
import { bedTilt } from "./procedure";
import { observeBed, readBed } from "./read-bed";

const GAUGE: Gauge = gaugeAsUsual("rule", { name: "Readout" });
const contextOn = (machine: MachineSpec): PlanContext => ({ machine, couponCode: "T-1", inForce: {} });

function readOn(
  machine: MachineSpec,
  truth: PracticeTruth,
  changes: Partial<BedTiltPlan> = {},
  purpose: Purpose = "measure",
  n = 1,
) {
  const context = contextOn(machine);
  const plan = { ...bedTiltPlan(context).defaults, ...changes };
  const { round } = rehearseRound({
    procedure: bedTilt,
    context,
    purpose,
    n,
    gauge: GAUGE,
    truth,
    plan,
    random: seeded(40 + n),
    controller: { table: [], switchedOn: true },
    hand: { placingMm: 0.02, commonMm: 0, resolutionMm: 0.01 },
  });
  return round as RoundRecord<BedTiltPlan>;
}

const historyOf = (machine: MachineSpec, ...rounds: RoundRecord<BedTiltPlan>[]): History<BedTiltPlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [GAUGE],
  machine,
  decisions: {},
  tolerance: bedTilt.tolerance.default,
});

function solved(machine: MachineSpec, ...rounds: RoundRecord<BedTiltPlan>[]) {
  const outcome = bedTilt.solve(historyOf(machine, ...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}

describe("the plane of a bed", () => {
  const galvoOrGantry = { 3: SAMPLE_MACHINE, 5: SAMPLE_GALVO };
  /** Every place read once, as this function of its place from the middle says. */
  const readAs = (places: "3" | "5", z: (x: number, y: number) => number) => {
    const machine = galvoOrGantry[places];
    const round = readOn(machine, practiceFromSeed(1, machine), { places, repeats: 1 });
    const answers = placesOf(round.plan, machine).flatMap(({ id, x, y }) =>
      round.answers
        .filter((a) => a.site === id)
        .map((a) => ({
          ...a,
          content: {
            status: "read" as const,
            value: { kind: "quantity" as const, value: z(x - machine.widthMm / 2, y - machine.depthMm / 2) },
          },
        })),
    );
    return { machine, ...readBed(historyOf(machine, { ...round, answers }), { ...round, answers }) };
  };

  it("goes through three places: 0.01 mm a mm to the right, 0.02 mm a mm away", () => {
    const { plane } = readAs("3", (x, y) => 10 + 0.01 * x + 0.02 * y);
    if (plane.status !== "solved") throw new Error(plane.status);
    expect(plane.difference({ x: 0, y: 0 }, { x: 100, y: 100 }).quantity.value).toBeCloseTo(3, 9);
    expect(plane.difference({ x: 50, y: 0 }, { x: 0, y: 0 }).quantity.value).toBeCloseTo(-0.5, 9);
  });

  it("along the front is as well known as the difference of two readings", () => {
    const { machine, plane, places } = readAs("3", () => 10);
    if (plane.status !== "solved") throw new Error(plane.status);
    const [left, right] = places;
    if (!left || !right) throw new Error("no places");
    const { quantity, parts } = plane.difference(left, right);
    const reading = parts.find((p) => p.id === "reading")?.standardUncertainty ?? Number.NaN;
    // Eye 0.1 mm, and the step of 0.1 mm to which a height is set.
    expect(reading).toBeCloseTo(Math.SQRT2 * Math.hypot(0.1, 0.1 / Math.sqrt(12)), 9);
    expect(quantity.value).toBeCloseTo(0, 12);
    expect(machine.kind).not.toBe("galvo");
  });

  it("says how far a place stands off it, the places against each other", () => {
    const round = readOn(SAMPLE_MACHINE, practiceFromSeed(1, SAMPLE_MACHINE), { places: "9", repeats: 1 });
    const answers = round.answers.map((a) => ({
      ...a,
      content: {
        status: "read" as const,
        value: { kind: "quantity" as const, value: a.site === "mm" ? 10.09 : 10 },
      },
    }));
    const { places } = readBed(historyOf(SAMPLE_MACHINE, { ...round, answers }), { ...round, answers });
    const off = (id: string) => places.find((p) => p.id === id)?.offMm ?? Number.NaN;
    // The middle of nine equal places carries a ninth of its own bump.
    expect(off("mm")).toBeCloseTo((0.09 * 8) / 9, 6);
    expect(off("fl")).toBeCloseTo(-0.09 / 9, 6);
  });

  it("is told from the curvature of a field by corners and middle", () => {
    const { plane } = readAs("5", (x, y) => 5 + 0.01 * x - 0.02 * y + 1e-4 * (x * x + y * y));
    if (plane.status !== "solved") throw new Error(plane.status);
    expect(plane.curvature?.value).toBeCloseTo(1e-4, 9);
    expect(plane.difference({ x: -50, y: 0 }, { x: 50, y: 0 }).quantity.value).toBeCloseTo(1, 6);
  });
});

describe("a bed on a practice machine", () => {
  it.each([1, 2, 3, 4, 5, 6])("is levelled by what is turned, and proved, seed %i", (seed) => {
    for (const machine of [SAMPLE_MACHINE, SAMPLE_GALVO]) {
      const bed = bedFromSeed(seed, machine, machine.kind === "galvo");
      const truth: PracticeTruth = { ...practiceFromSeed(seed, machine), bed };
      const measured = readOn(machine, truth);
      const outcome = solved(machine, measured);
      expect(outcome.adjustments).toHaveLength(4);
      const supports = supportsOf(measured.plan, machine);
      const higher = (b: BedTruth, p: { x: number; y: number }) =>
        b.slopeX * (p.x - machine.widthMm / 2) + b.slopeY * (p.y - machine.depthMm / 2);
      const top = Math.max(...supports.map((s) => higher(bed, s)));
      for (const { id, quantity } of outcome.adjustments) {
        const support = supports.find((s) => s.id === id);
        const truly = support ? top - higher(bed, support) : Number.NaN;
        expect(Math.abs(quantity.value - truly), `${machine.name} ${id}`).toBeLessThan(
          1.5 * expandedUncertainty(quantity) + 0.05,
        );
      }
      const lifts = outcome.adjustments.flatMap(({ at, quantity }) =>
        at ? [{ x: at.x - machine.widthMm / 2, y: at.y - machine.depthMm / 2, mm: quantity.value }] : [],
      );
      const after = { ...truth, bed: raised(bed, lifts, seeded(seed)) };
      const proof = readOn(machine, after, { repeats: 3 }, "proof", 2);
      expect(bedTilt.judge(historyOf(machine, measured, proof))?.result).not.toBe("not proved");
      const untouched = readOn(machine, { ...truth, bed: { ...bed, slopeX: 3 / machine.widthMm } }, {}, "proof", 2);
      expect(bedTilt.judge(historyOf(machine, measured, untouched))?.result).toBe("not proved");
    }
  });

  it("says turns of the screws, the other way round where they lower, or shims", () => {
    const truth: PracticeTruth = {
      ...practiceFromSeed(3, SAMPLE_MACHINE),
      bed: { slopeX: 2 / SAMPLE_MACHINE.widthMm, slopeY: 0, curvature: 0 },
    };
    const texts = (changes: Partial<BedTiltPlan>) =>
      Object.fromEntries(
        solved(SAMPLE_MACHINE, readOn(SAMPLE_MACHINE, truth, changes)).adjustments.map((a) => [a.id, a.text]),
      );
    expect(texts({}).fl).toMatch(/^(1\.75|1\.88|2|2\.13|2\.25) turns clockwise$/);
    expect(texts({ pitchMm: 2 }).fl).toMatch(/^(0\.88|1|1\.13) turns? clockwise$/);
    expect(texts({ turns: "clockwise lowers" }).bl).toMatch(/counter-clockwise$/);
    expect(texts({ pitchMm: 0 }).fl).toMatch(/^shim of (1\.[89]|2\.[0-2])\d* mm$/);
    // A readout that counts the other way says the same of the bed
    const other = readOn(SAMPLE_MACHINE, truth, { readAt: "scale, closer" });
    expect(solved(SAMPLE_MACHINE, other).adjustments.find((a) => a.id === "fl")?.text).toBe("leave it");
  });

  it("cannot be told by what is left where places are lost and the others lie in line", () => {
    const round = readOn(SAMPLE_MACHINE, practiceFromSeed(2, SAMPLE_MACHINE), { places: "9" });
    const line = ["fl", "mm", "br"];
    const left = { ...round, answers: round.answers.filter((a) => line.includes(a.site)) };
    const outcome = bedTilt.solve(historyOf(SAMPLE_MACHINE, left));
    expect(outcome).toMatchObject({ status: "unsolvable", reason: expect.stringMatching(/on one line/) });
  });

  it("names the curved field of a galvo, and a bed that is bowed", () => {
    const galvo: PracticeTruth = {
      ...practiceFromSeed(4, SAMPLE_GALVO),
      bed: { slopeX: 0, slopeY: 0, curvature: 2 / (SAMPLE_GALVO.widthMm / 2) ** 2 },
    };
    expect(solved(SAMPLE_GALVO, readOn(SAMPLE_GALVO, galvo)).findings.map((f) => f.id)).toContain("field curved");
    const bowed = practiceFromSeed(4, SAMPLE_MACHINE);
    const truth: PracticeTruth = {
      ...bowed,
      bed: { slopeX: 0, slopeY: 0, curvature: 2 / (SAMPLE_MACHINE.widthMm / 2) ** 2 },
    };
    expect(solved(SAMPLE_MACHINE, readOn(SAMPLE_MACHINE, truth, { places: "9" })).findings.map((f) => f.id)).toContain(
      "not flat",
    );
  });
});

describe("a layout that cannot be read", () => {
  it.each([
    ["insetMm", SAMPLE_MACHINE, { insetMm: "400" }, /close together/],
    ["supportInsetMm", SAMPLE_MACHINE, { supportInsetMm: "400" }, /too close/],
    ["pitchMm", SAMPLE_MACHINE, { pitchMm: "25.4" }, /one turn/],
    ["repeats", SAMPLE_MACHINE, { repeats: "0" }, /at least 1\./],
    ["places", SAMPLE_GALVO, { places: "3" }, /five or nine points/],
  ])("is refused at %s", (field, machine, changes, message) => {
    const form = bedTiltPlan(contextOn(machine));
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...(changes as Record<string, string>) });
    expect(read.ok ? [] : read.issues).toContainEqual({ field, message: expect.stringMatching(message) });
  });
});

describe("what is usual of a bed before it is read", () => {
  it("is level within 3 mm from side to side, flat within 0.02 mm, or 0.1 mm where it is bowed", () => {
    const round = readOn(SAMPLE_MACHINE, practiceFromSeed(3, SAMPLE_MACHINE), { places: "5" });
    const model = observeBed(historyOf(SAMPLE_MACHINE, round), round);
    const known = new Map(model?.observations.flatMap((o) => (o.reading ? [] : [[Object.keys(o.row)[0], o]])));
    expect((known.get("across")?.u ?? 0) * SAMPLE_MACHINE.widthMm).toBeCloseTo(3, 12);
    expect((known.get("away")?.u ?? 0) * SAMPLE_MACHINE.depthMm).toBeCloseTo(3, 12);
    const bows = [...known].filter(([id]) => id?.startsWith("bow"));
    expect(bows).toHaveLength(5);
    for (const [, bow] of bows) expect(bow).toMatchObject({ y: 0, u: 0.02, gently: 0.1, isDeparture: true });
    // A tilt is what one side is higher by, not by mm.
    expect(model?.wanted.find((w) => w.id === "across")?.row).toEqual({ across: SAMPLE_MACHINE.widthMm });
  });
});
