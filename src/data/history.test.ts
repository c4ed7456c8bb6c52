/** Revisions, fittings, ledger and events: what is added later never changes what was. */

import { beforeEach, describe, expect, it } from "vitest";
import { opticOf, rotaryOf } from "../core/machine/part-spec";
import { usualGauge } from "../core/metrology/gauge";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { type Database, openDatabase } from "./database";
import { addEvent, eventsOf } from "./events";
import { addGauge, allGauges, reviseGauge, sittingsByGauge } from "./gauges";
import { addEntry, currentEntry, entriesOf, markUndone, type NewEntry, ownerOfMachine } from "./ledger";
import {
  addMachine,
  allMachines,
  holdersOf,
  machineById,
  machineBySlug,
  machineRevisionById,
  reviseMachine,
} from "./machines";
import { addPart, allParts, archivePart, fitPart, fittedAt, fittedPart, fittingsOf, revisePart } from "./parts";

const CHUCK = { kind: "rotary" as const, ...rotaryOf({ label: "Chuck", drive: "chuck" }) };

let db: Database;
let id: number;
beforeEach(() => {
  db = openDatabase(":memory:");
  id = addMachine(
    db,
    "testbed",
    SAMPLE_MACHINE,
    [
      { name: "Controller", role: "controller" },
      { name: "Copy", role: "copy" },
    ],
    100,
  ).id;
});

describe("a machine", () => {
  it("is as its newest revision says, and was as the one before said", () => {
    const before = machineBySlug(db, "testbed");
    reviseMachine(db, id, { ...SAMPLE_MACHINE, topSpeedMmPerS: 450 }, 200);
    expect(machineById(db, id)?.spec.topSpeedMmPerS).toBe(450);
    expect(machineRevisionById(db, before?.revisionId ?? 0).topSpeedMmPerS).toBe(SAMPLE_MACHINE.topSpeedMmPerS);
    expect(() => machineRevisionById(db, 4711)).toThrow(/4711/);
  });

  it("of two revisions in one moment is the later written", () => {
    reviseMachine(db, id, { ...SAMPLE_MACHINE, widthMm: 1 }, 200);
    reviseMachine(db, id, { ...SAMPLE_MACHINE, widthMm: 2 }, 200);
    expect(machineById(db, id)?.spec.widthMm).toBe(2);
  });

  it("stands with the others in the order in which they came, with its holders", () => {
    addMachine(db, "second", { ...SAMPLE_MACHINE, name: "Second" }, [], 50);
    expect(allMachines(db).map((m) => m.slug)).toEqual(["testbed", "second"]);
    expect(holdersOf(db, id).map((h) => h.role)).toEqual(["controller", "copy"]);
    expect(machineBySlug(db, "third")).toBeUndefined();
    expect(machineById(db, 99)).toBeUndefined();
  });

  it("has one optic fitted at a time, and remembers those before", () => {
    expect(fittedPart(db, id, "optic", 1000)).toBeUndefined();
    const [long, short] = [50.8, 38.1].map((f) =>
      addPart(db, { kind: "optic", ...opticOf({ label: String(f), focalLengthMm: f }) }, 100),
    ) as [number, number];
    fitPart(db, id, "optic", long, 200);
    fitPart(db, id, "optic", short, 300);
    fitPart(db, id, "optic", long, 400);
    fitPart(db, id, "rotary", addPart(db, CHUCK, 100), 350);
    const at = (moment: number) => fittedPart(db, id, "optic", moment)?.label;
    expect([199, 200, 299, 300, 399, 400, 1000].map(at)).toEqual([
      undefined,
      ...["50.8", "50.8", "38.1", "38.1"],
      ...["50.8", "50.8"],
    ]);
    expect(fittingsOf(db, id).map(({ label, from, to }) => ({ label, from, to }))).toEqual([
      { label: "50.8", from: 200, to: 300 },
      { label: "38.1", from: 300, to: 400 },
      { label: "Chuck", from: 350, to: null },
      { label: "50.8", from: 400, to: null },
    ]);
    expect(fittedAt(db, long)).toEqual({ machineId: id, slug: "testbed" });
    expect(fittedAt(db, short)).toBeUndefined();
  });

  it("has parts that change from one day on, and keep their kind", () => {
    const chuck = addPart(db, CHUCK, 100);
    revisePart(db, chuck, { ...CHUCK, label: "Chuck, small", stepsPerRevolution: 8000 }, 200);
    archivePart(db, chuck, 300);
    expect(allParts(db)).toEqual([
      { id: chuck, spec: { ...CHUCK, label: "Chuck, small", stepsPerRevolution: 8000 }, archivedAt: 300 },
    ]);
  });
});

describe("a gauge", () => {
  const gauge = {
    id: "c",
    name: "Calipers",
    kind: "calipers" as const,
    unit: "mm" as const,
    ...usualGauge("calipers", "mm"),
  };

  it("is revised from now on, and one that is not there is not", () => {
    addGauge(db, gauge, 100);
    expect(reviseGauge(db, { ...gauge, limitMm: 0.05 }, 200)).toBe(true);
    expect(allGauges(db).map((g) => g.spec.limitMm)).toEqual([0.05]);
    expect(reviseGauge(db, { ...gauge, id: "gone" }, 200)).toBe(false);
    expect(sittingsByGauge(db).size).toBe(0);
  });
});

describe("the ledger", () => {
  const entry = (value: number, more: Partial<NewEntry> = {}): NewEntry => ({
    owner: ownerOfMachine(id),
    setting: "scan offset",
    holderId: holdersOf(db, id)[0]?.id ?? null,
    value: { shape: "table", rows: [{ at: 100, value }] },
    unit: "mm",
    u: 0.01,
    origin: "hand",
    solutionId: null,
    trialId: null,
    readBack: true,
    note: "",
    ...more,
  });
  const current = () => {
    const value = currentEntry(db, ownerOfMachine(id), "scan offset", holdersOf(db, id)[0]?.id ?? 0)?.value;
    return value?.shape === "table" ? value.rows[0]?.value : undefined;
  };

  it("has the newest entry in force, by its time and then by its number", () => {
    expect(current()).toBeUndefined();
    addEntry(db, entry(0.1), 200);
    addEntry(db, entry(0.3), 400);
    addEntry(db, entry(0.2), 300);
    expect(current()).toBe(0.3);
    addEntry(db, entry(0.4), 400);
    expect(current()).toBe(0.4);
  });

  it("takes the newest back, once, and keeps it to be seen", () => {
    addEntry(db, entry(0.1), 200);
    const last = addEntry(db, entry(0.2), 300);
    expect(markUndone(db, last, 350)).toBe(true);
    expect(markUndone(db, last, 360)).toBe(false);
    expect(current()).toBe(0.1);
    const [newest] = entriesOf(db, ownerOfMachine(id));
    expect(newest).toMatchObject({ id: last, undoneAt: 350, holderName: "Controller", trialCode: null });
  });

  it("tells holders, settings and owners apart", () => {
    addEntry(db, entry(0.1), 200);
    addEntry(db, entry(0.9, { holderId: holdersOf(db, id)[1]?.id ?? null }), 300);
    addEntry(db, entry(0.8, { setting: "axis scale" }), 300);
    addEntry(db, entry(0.7, { owner: "machine:99" }), 300);
    expect(current()).toBe(0.1);
    expect(entriesOf(db, ownerOfMachine(id))).toHaveLength(3);
  });

  it("holds that a value is not known", () => {
    addEntry(db, entry(0, { value: null, origin: "found" }), 200);
    expect(entriesOf(db, ownerOfMachine(id))[0]).toMatchObject({ value: null, origin: "found" });
  });
});

describe("events", () => {
  it("come newest first, each with its note", () => {
    addEvent(db, id, { kind: "belt", note: "X", at: 300 });
    addEvent(db, id, { kind: "tube", note: "", at: 500 });
    addEvent(db, id, { kind: "firmware", note: "4.2", at: 400 });
    expect(eventsOf(db, id).map((e) => [e.kind, e.note])).toEqual([
      ["tube", ""],
      ["firmware", "4.2"],
      ["belt", "X"],
    ]);
    expect(eventsOf(db, 99)).toEqual([]);
  });
});
