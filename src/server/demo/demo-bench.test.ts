import { describe, expect, it } from "vitest";
import { openDatabase } from "../../data/database";
import { allGauges } from "../../data/gauges";
import { everyMachine } from "../../data/machines";
import { addPart, allParts } from "../../data/parts";
import { everyStock } from "../../data/stocks";
import { NOW } from "../../testing/test-bench";
import { keepMachine } from "../machine/machine-steps";
import { benchView } from "../screens/bench-view";
import { keepStock } from "../stock/stock-steps";
import { addDemoBench } from "./demo-bench";

const OWN = {
  slug: null,
  kind: "CO2 gantry" as const,
  name: "Hornbeam",
  width: "900",
  depth: "600",
  topSpeed: "",
  acceleration: "",
  wavelength: "",
  workingSpeeds: "",
  scansBlocks: true,
  practice: false,
  held: {},
  axes: { home: "not known" as const, x: "not known" as const, y: "not known" as const },
};

describe("the demo bench", () => {
  it("opens beside other machines, lenses, cards and gauges, and does not change them", () => {
    const db = openDatabase(":memory:");
    keepMachine(db, OWN, NOW - 1);
    addPart(
      db,
      {
        kind: "optic",
        label: "50.8",
        printed: "",
        focalLengthMm: 50.8,
        workingDistanceMm: null,
        fieldMm: null,
        wavelengthNm: null,
        ringDiameterMm: null,
      },
      NOW - 1,
    );
    const card = keepStock(db, { slug: null, name: "Birch plywood 3 mm", nominal: "3", note: "mine", batch: "1" }, NOW);
    expect(benchView(db, NOW).canOpenDemo).toBe(true);
    addDemoBench(db, NOW);
    expect(everyMachine(db).map((m) => m.spec.name)).toEqual(["Hornbeam", "Alder", "Bracken", "Cinder"]);
    expect(allParts(db).map((p) => p.spec.label)).toEqual(expect.arrayContaining(["50.8", "50.8, demo"]));
    expect(everyStock(db).find((s) => s.slug === card)?.spec.note).toBe("mine");
    expect(new Set(everyStock(db).map((s) => s.spec.name)).size).toBe(everyStock(db).length);
    expect(new Set(allGauges(db).map((g) => g.spec.name)).size).toBe(allGauges(db).length);
    const view = benchView(db, NOW);
    // The galvo: its field is out of date since the focus changed, and what its bow does was learned by a burn.
    const cinder = view.machines.find((m) => m.slug === "cinder");
    expect(cinder?.next).toMatchObject({ action: "begin" });
    expect(JSON.stringify(cinder?.next)).toContain("the focus height was changed");
    const held = everyMachine(db).find((m) => m.slug === "cinder")?.spec.held ?? {};
    expect(Math.abs(held["field bow y"]?.effectMm ?? 0)).toBeGreaterThan(0.02);
    expect(view.canOpenDemo).toBe(false);
    expect(view.machines.find((m) => m.slug === "alder")?.next.action).toBe("begin");
  });

  it("does not open if a machine has one of its names", () => {
    const db = openDatabase(":memory:");
    keepMachine(db, { ...OWN, name: "Cinder" }, NOW - 1);
    expect(benchView(db, NOW).canOpenDemo).toBe(false);
    addDemoBench(db, NOW);
    expect(everyMachine(db)).toHaveLength(1);
  });
});
