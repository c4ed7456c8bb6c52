/** Benches that were kept by earlier versions are used on: every trial is shown, solved and handed on as it was. */
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { gunzipSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import { openDatabase } from "../../data/database";
import { newestMoment } from "../../data/newest-moment";
import { benchView } from "../screens/bench-view";
import { trialDocument } from "../trial/trial-document";
import { fullTrial, historyOf } from "../trial/trial-record";
import { trialView } from "../trial/trial-view";

const FOLDER = "src/data/old-benches";

describe.each(readdirSync(FOLDER))("a bench of %s", (name) => {
  it("is used on", () => {
    const db = openDatabase(gunzipSync(readFileSync(path.join(FOLDER, name))));
    const now = newestMoment(db) + 1000;
    const view = benchView(db, now, "mm");
    expect(view.machines.length).toBeGreaterThanOrEqual(2);
    expect(view.machines.flatMap((m) => m.procedures.map((p) => p.state))).toContain("holding");
    const trials = db.$client.prepare(`select id, "end" from trial order by id`).all() as { id: number; end: string }[];
    expect(trials.map((t) => t.end)).toContain("proved");
    for (const { id } of trials) {
      const full = fullTrial(db, id);
      expect(full.procedure.solve(historyOf(full, 1)).status).toBe("solved");
      expect(trialView(db, id, now).rounds.length).toBeGreaterThan(0);
      expect(trialDocument(db, id).rounds.some((r) => r.readings.length > 0)).toBe(true);
    }
    db.$client.close();
  });
});
