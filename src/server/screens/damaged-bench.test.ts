/** One row that does not fit its schema takes its own machine away, and nothing else. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Database } from "../../data/database";
import { DamagedRow } from "../../data/json-column";
import { machineBySlug } from "../../data/machines";
import { demoCopy, NOW } from "../demo/test-bench";
import { benchView } from "./bench-view";
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

  it("does so where the row of the machine itself is damaged, or no JSON at all", () => {
    db.$client.prepare("update machine_revision set spec = 'torn' where machine_id = ?").run(alder());
    expect(benchView(db, NOW).damaged).toEqual([{ slug: "alder", name: "alder", column: "machine_revision.spec" }]);
    expect(others()).not.toContain("alder");
    expect(placesView(db).some((p) => p.href === "/machine/bracken")).toBe(true);
    expect(() => machineBySlug(db, "alder")).toThrow(DamagedRow);
  });
});
