/** One row that does not fit its schema takes its own machine away, and nothing else. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Database } from "../../data/database";
import { DamagedRow } from "../../data/json-column";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { machineBySlug } from "../../data/machines";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { demoCopy, NOW } from "../../testing/test-bench";
import { knownEye, knownReader } from "../gauges/gauge-steps";
import { gaugesView } from "../gauges/gauges-view";
import { ledgerView } from "../ledger/ledger-view";
import { standOnBench } from "../machine/machine-steps";
import { practiceView } from "../practice/practice-view";
import { keepStock } from "../stock/stock-steps";
import { stockList } from "../stock/stock-view";
import { beginTrial } from "../trial/trial-steps";
import { benchView } from "./bench-view";
import { machineView } from "./machine-view";
import { placesView } from "./places-view";

let db: Database;
beforeEach(() => {
  db = demoCopy();
});
const alder = () => machineBySlug(db, "alder")?.id ?? 0;
const others = () => benchView(db, NOW).machines.map((m) => m.slug);

describe("a bench with a damaged row", () => {
  it("shows the machine as damaged, by its column, and the rest as it is", () => {
    const whole = others();
    expect(whole).toContain("alder");
    const last = "select max(id) from trial where machine_id = ?";
    db.$client.prepare(`update round set spec = '{"pieces":3}' where trial_id = (${last})`).run(alder());
    db.$client
      .prepare(
        'update trial set ended_at = null, "end" = null where id = (select max(id) from trial where machine_id = ?)',
      )
      .run(alder());
    const view = benchView(db, NOW);
    expect(view.damaged).toEqual([{ slug: "alder", name: "Alder", column: "round.spec" }]);
    expect(view.machines.map((m) => m.slug)).toEqual(whole.filter((slug) => slug !== "alder"));
  });

  it.each([
    [
      "the optic 50.8",
      "update part_revision set spec = '{}' where part_id = (select id from part where label = '50.8')",
    ],
    [
      "the gauge calipers",
      "update gauge_revision set spec = 'x' where gauge_id = (select id from gauge where key = 'calipers')",
    ],
    ["the card birch-plywood-3-mm", "update stock_revision set spec = '{}' where id = 1"],
    ["a result on the card birch-plywood-3-mm", "update stock_result set result = '[]' where id = 1"],
    [
      "an entry of scan offset in the ledger",
      "update ledger_entry set value = '{\"shape\":\"cube\"}' where setting = 'scan offset' and id = (select max(id) from ledger_entry where setting = 'scan offset')",
    ],
  ])("leaves %s out of every list, and names it on the bench", (of, damage) => {
    expect(benchView(db, NOW).damagedToo).toEqual([]);
    expect(db.$client.prepare(damage).run().changes).toBe(1);
    expect(benchView(db, NOW)).toMatchObject({ damaged: [], damagedToo: [{ of }] });
    expect(machineView(db, "bracken", NOW)?.spec.name).toBe("Bracken");
    expect(stockList(db, NOW).length).toBeGreaterThan(0);
    expect(gaugesView(db).length).toBeGreaterThan(0);
    expect(ledgerView(db, { setting: null, machine: null }, NOW).rows.length).toBeGreaterThan(0);
    expect(practiceView(db)).toHaveLength(3);
  });

  it("reads a damaged entry as not known", () => {
    db.$client.prepare("update ledger_entry set value = '{}' where setting = 'focus height'").run();
    const values = entriesOf(db, ownerOfMachine(alder())).filter((e) => e.setting === "focus height");
    expect(values.length).toBeGreaterThan(0);
    expect(values.map((e) => e.value)).toEqual(values.map(() => null));
    expect(values[0]?.note).toMatch(/^The value is damaged in the database/);
  });

  it("keeps the pages of other machines, stock and practice", () => {
    db.$client
      .prepare("update machine_revision set spec = 'torn' where machine_id = ?")
      .run(machineBySlug(db, "bracken")?.id);
    expect(machineView(db, "alder", NOW)?.parts.length).toBeGreaterThan(0);
    expect(stockList(db, NOW).length).toBeGreaterThan(0);
    db.$client.prepare("update practice_machine set controller = '{}' where machine_id = ?").run(alder());
    expect(practiceView(db).map((m) => m.name)).toEqual(["Cinder"]);
    expect(benchView(db, NOW).damagedToo.map((row) => row.of)).toEqual(["the practice machine of Alder"]);
  });

  it("gives no damaged row's name to a new row", () => {
    db.$client.prepare("update machine_revision set spec = 'torn' where machine_id = ?").run(alder());
    db.$client.prepare("update stock_revision set spec = 'torn'").run();
    db.$client.prepare("update gauge_revision set spec = 'torn'").run();
    expect(standOnBench(db, { ...SAMPLE_MACHINE, name: "Alder" }, NOW).slug).toBe("alder-2");
    const card = { slug: null, name: "Birch plywood 3 mm", nominal: "3", note: "", batch: "1" };
    expect(keepStock(db, card, NOW)).toBe("birch-plywood-3-mm-2");
    // A trial begins without gauges, and the eye and the picture reader are declared again.
    expect(beginTrial(db, "bracken", "focus", NOW)).toBeGreaterThan(0);
    expect(knownEye(db, NOW).spec.kind).toBe("eye");
    expect(knownReader(db, [{ uMm: 0.002, degreesOfFreedom: 8 }], NOW).spec.id).toBe("picture-reader");
  });

  it("does so where the row of the machine itself is damaged, or no JSON at all", () => {
    db.$client.prepare("update machine_revision set spec = 'torn' where machine_id = ?").run(alder());
    expect(benchView(db, NOW).damaged).toEqual([{ slug: "alder", name: "alder", column: "machine_revision.spec" }]);
    expect(others()).not.toContain("alder");
    expect(placesView(db).some((p) => p.href === "/machine/bracken")).toBe(true);
    expect(() => machineBySlug(db, "alder")).toThrow(DamagedRow);
  });
});
