/** Adding machines and changing what is known of them. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Database } from "../../data/database";
import { everyMachine, holdersOf, machineBySlug } from "../../data/machines";
import { practiceOf } from "../../data/practice";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { machineView } from "../screens/machine-view";
import { burnOnPractice } from "../trial/burn-on-practice";
import { fullTrial, roundOf } from "../trial/trial-record";
import { beginTrial, keepDraft } from "../trial/trial-steps";
import { trialView } from "../trial/trial-view";
import { keepMachine, type MachineInput } from "./machine-steps";

const DAMSON: MachineInput = {
  slug: null,
  kind: "CO2 gantry",
  name: "Damson",
  width: "12 in",
  depth: "300",
  topSpeed: "30000 mm/min",
  acceleration: "",
  wavelength: "10600 nm",
  workingSpeeds: "300, 150 mm/s",
  scansBlocks: true,
  practice: true,
  axes: { home: "back right", x: "to the left", y: "toward you" },
  held: {
    "scan offset": { unit: "in", step: "1 thou", low: "-0.04", high: "1 mm", tableKind: "not known", sense: -1 },
  },
};

function held(change: Partial<MachineInput["held"][string]>): MachineInput["held"] {
  const usual = DAMSON.held["scan offset"];
  if (!usual) throw new Error("no hold");
  return { "scan offset": { ...usual, ...change } };
}

let db: Database;
beforeEach(() => {
  db = demoCopy();
});

describe("a machine that is added", () => {
  it("stands on the bench with what is known of it, and can be calibrated on its practice machine", () => {
    const slug = keepMachine(db, DAMSON, NOW);
    expect(slug).toBe("damson");
    const machine = machineBySlug(db, slug);
    expect(machine?.spec).toMatchObject({
      name: "Damson",
      widthMm: expect.closeTo(304.8, 9),
      depthMm: 300,
      topSpeedMmPerS: expect.closeTo(500, 9),
      accelerationMmPerS2: null,
      wavelengthNm: 10600,
      workingSpeedsMmPerS: [150, 300],
      scansBlocks: true,
      axes: DAMSON.axes,
      held: {
        "scan offset": {
          unit: "in",
          step: expect.closeTo(0.0254, 12),
          tableKind: "not known",
          sense: -1,
          range: { low: expect.closeTo(-1.016, 9), high: expect.closeTo(1, 9) },
        },
      },
    });
    expect(holdersOf(db, machine?.id ?? 0).map((h) => h.role)).toEqual(["controller", "ustrina"]);
    expect(machineView(db, slug, NOW)).toMatchObject({ next: { action: "begin", procedure: "focus" } });
    const trial = beginTrial(db, slug, "scan-offset", NOW + 1);
    burnOnPractice(db, trial, 1, null, NOW + 2);
    expect(fullTrial(db, trial).rounds[0]?.burnedAt).toBe(NOW + 2);
  });

  it("without a controller that scans begins with its own G-code as the holder that acts", () => {
    const slug = keepMachine(db, { ...DAMSON, scansBlocks: false, practice: false }, NOW);
    const id = machineBySlug(db, slug)?.id ?? 0;
    expect(holdersOf(db, id).map((h) => h.role)).toEqual(["ustrina", "controller"]);
    expect(practiceOf(db, id)).toBeUndefined();
  });

  it("gets an address of its own, whatever it is called", () => {
    expect(keepMachine(db, { ...DAMSON, name: "New" }, NOW)).toBe("new-2");
    expect(keepMachine(db, { ...DAMSON, name: "Ölmühle №" }, NOW)).toBe("lm-hle");
    expect(keepMachine(db, { ...DAMSON, name: "激光" }, NOW)).toBe("machine");
    expect(keepMachine(db, { ...DAMSON, name: "光" }, NOW)).toBe("machine-2");
  });

  it.each([
    ["name", { name: "  " }, /Enter a name/],
    ["name", { name: "aLDER" }, /Another machine has this name/],
    ["width", { width: "" }, /for example 900 mm/],
    ["width", { width: "wide" }, /./],
    ["depth", { depth: "0" }, /larger than 0/],
    ["depth", { depth: "40 ft" }, /no more than 10000 mm/],
    ["topSpeed", { topSpeed: "36000" }, /mm\/min meant/],
    ["topSpeed", { topSpeed: "3 s" }, /./],
    ["acceleration", { acceleration: "quick" }, /leave it empty/],
    ["acceleration", { acceleration: "-5" }, /leave it empty/],
    ["wavelength", { wavelength: "10.6" }, /in nm/],
    ["workingSpeeds", { workingSpeeds: "100 x" }, /./],
    ["workingSpeeds", { workingSpeeds: "0 100" }, /larger than 0/],
    ["held.scan offset.step", { held: held({ step: "0" }) }, /larger than 0/],
    ["held.scan offset.unit", { held: held({ unit: "mmPerS" }) }, /has no values in mm\/s/],
    ["held.scan offset.low", { held: held({ low: "" }) }, /both ends/],
    ["held.scan offset.high", { held: held({ high: "x" }) }, /./],
    ["held.scan offset.high", { held: held({ low: "2 mm" }) }, /larger than the smallest/],
  ] as const)("is refused at its field: %s %j", (field, change, message) => {
    const refused = refusal(() => keepMachine(db, { ...DAMSON, ...(change as Partial<MachineInput>) }, NOW));
    expect(refused).toMatchObject({ field, message: expect.stringMatching(message) });
    expect(machineBySlug(db, "damson")).toBeUndefined();
  });
});

describe("a machine with unknown top speed, wavelength and sense", () => {
  const unknown: MachineInput = { ...DAMSON, topSpeed: "", wavelength: " ", held: held({ sense: "not known" }) };

  it("gets assumed values of its kind, and keeps that they are assumed", () => {
    const spec = machineBySlug(db, keepMachine(db, unknown, NOW))?.spec;
    expect(spec).toMatchObject({
      topSpeedMmPerS: 300,
      wavelengthNm: 10600,
      assumed: ["topSpeedMmPerS", "wavelengthNm"],
      held: { "scan offset": { sense: 1, senseAssumed: true } },
    });
    keepMachine(db, { ...DAMSON, slug: "damson", topSpeed: "500" }, NOW + 1);
    const known = machineBySlug(db, "damson")?.spec;
    expect(known).toMatchObject({ topSpeedMmPerS: 500, held: { "scan offset": { sense: -1 } } });
    expect(known?.assumed).toBeUndefined();
    expect(known?.held["scan offset"]?.senseAssumed).toBeUndefined();
  });

  it("has a checklist without a wavelength, and a refusal without a top speed", () => {
    const slug = keepMachine(db, unknown, NOW);
    const trial = beginTrial(db, slug, "scan-offset", NOW + 1);
    keepDraft(db, trial, 1, { ...roundOf(fullTrial(db, trial), 1).draft, speedsMmPerS: "100 900" });
    expect(refusal(() => burnOnPractice(db, trial, 1, null, NOW + 2)).message).toMatch(
      /top speed of Damson is not known\. Enter the top speed on the machine page/,
    );
    keepDraft(db, trial, 1, { ...roundOf(fullTrial(db, trial), 1).draft, speedsMmPerS: "100 250" });
    burnOnPractice(db, trial, 1, null, NOW + 3);
    const checklist = trialView(db, trial, NOW + 4).rounds[0]?.spec?.checklist.join(" ");
    expect(checklist).toMatch(
      /Read the wavelength on the label of the laser\. Put on eyewear for it, or close the housing\./,
    );
    expect(checklist).not.toMatch(/\d nm/);
  });

  it("is refused with all faults of the form", () => {
    const wrong = {
      ...unknown,
      name: " ",
      width: "",
      depth: "0",
      wavelength: "blue",
      held: held({ step: "0", low: "2 mm" }),
    };
    const refused = refusal(() => keepMachine(db, wrong, NOW));
    expect([refused.field, ...refused.more.map((f) => f.field)]).toEqual([
      "name",
      "width",
      "depth",
      "wavelength",
      "held.scan offset.step",
      "held.scan offset.high",
    ]);
    expect(everyMachine(db)).toHaveLength(3);
  });
});

describe("a machine that is changed", () => {
  const asItIs = (): MachineInput => ({ ...DAMSON, slug: "alder", name: "Alder", width: "900", depth: "600" });

  it("is so for trials from now on; one that was begun keeps what it began with", () => {
    const before = beginTrial(db, "alder", "scan-offset", NOW);
    keepMachine(db, { ...asItIs(), name: "Alder the elder", topSpeed: "450" }, NOW + 1);
    expect(fullTrial(db, before).machine).toMatchObject({ name: "Alder", topSpeedMmPerS: 600 });
    expect(machineBySlug(db, "alder")?.spec).toMatchObject({ name: "Alder the elder", topSpeedMmPerS: 450 });
    expect(machineBySlug(db, "alder")?.spec.gcode).toEqual(fullTrial(db, before).machine.gcode);
  });

  it("keeps the kind of unit in which its settings are written down", () => {
    const scale = {
      unit: "perMm" as const,
      step: "0.001",
      low: "",
      high: "",
      tableKind: "not known" as const,
      sense: 1 as const,
    };
    const change = { ...asItIs(), held: { ...DAMSON.held, "axis scale x": scale } };
    expect(refusal(() => keepMachine(db, change, NOW + 1))).toMatchObject({
      field: "held.axis scale x.unit",
      message: expect.stringMatching(/written down in µm/),
    });
    keepMachine(
      db,
      { ...change, held: { "axis scale x": { ...scale, unit: "mm", step: "0.000001", sense: -1 } } },
      NOW + 2,
    );
    expect(machineBySlug(db, "alder")?.spec.held["axis scale x"]).toMatchObject({ unit: "mm", sense: -1 });
  });

  it("keeps its kind, and is refused where it is not there", () => {
    expect(refusal(() => keepMachine(db, { ...asItIs(), kind: "galvo" }, NOW))).toMatchObject({ field: "kind" });
    expect(refusal(() => keepMachine(db, { ...asItIs(), slug: "gone" }, NOW)).message).toMatch(/no such machine/);
  });
});
