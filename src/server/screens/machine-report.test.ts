/** The report of a machine on the demo bench, and on paper. */
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import type { Database } from "../../data/database";
import { holdersOf, machineBySlug } from "../../data/machines";
import type { ReportSetting } from "../../formats/machine-report/report-content";
import { reportPages } from "../../formats/machine-report/report-pages";
import { PAPERS, type Paper } from "../../formats/paper/sheet-page";
import { sheetPdf } from "../../formats/paper/sheet-pdf";
import { boxesOf, overlaps, wordsIn } from "../../testing/sheet-boxes";
import { demoCopy, NOW } from "../../testing/test-bench";
import { writeDown } from "../ledger/ledger-steps";
import { noteChange } from "../machine/change-steps";
import { machineReport } from "./machine-report";

let db: Database;
beforeEach(() => {
  db = demoCopy();
});

describe("the report of a machine", () => {
  it("has every setting in force with its uncertainty, date, trial, gauges and state", () => {
    const { name, settings } = machineReport(db, "bracken", NOW);
    expect(name).toBe("Bracken");
    const scan = settings.find((s) => s.label === "Scan offset per direction");
    expect(scan).toMatchObject({ state: "valid", location: "Ustrina's own G-code" });
    expect(scan?.value).toMatch(/^\d+: \d\.\d+ · .* mm$/);
    expect(scan?.uncertainty).toMatch(/^± 0\.\d+ mm$/);
    expect(scan?.date).toMatch(/^\d{4}-\d{2}-\d{2}$/);
    expect(scan?.origin).toMatch(/^trial B-\d+, .*alipers/);
  });

  it("says which location has an old value, and nothing of one as found beside a proved one", () => {
    const states = (slug: string, label: string) =>
      machineReport(db, slug, NOW)
        .settings.filter((s) => s.label === label)
        .map((s) => [s.location, s.state]);
    expect(states("bracken", "Scan offset per direction")).toEqual([
      ["Ustrina's own G-code", "valid"],
      ["Controller of Bracken", ""],
    ]);
    // By hand in the controller of Alder; its second program was not updated.
    const controller = holdersOf(db, machineBySlug(db, "alder")?.id ?? 0).find((h) => h.role === "controller");
    const entered = { setting: "scan offset", rows: [{ at: "100", text: "0.1" }], note: "tried" };
    writeDown(db, { ...entered, machine: "alder", holderId: controller?.id ?? 0, origin: "hand", readBack: true }, NOW);
    expect(states("alder", "Scan offset per direction")).toContainEqual([
      "Office computer, second program",
      "old value",
    ]);
  });

  it("names no uncertainty of what nobody measured", () => {
    const found = machineReport(db, "alder", NOW).settings.filter((s) => s.origin === "as found");
    expect(found.length).toBeGreaterThan(0);
    expect(found.map((s) => s.uncertainty)).toEqual(found.map(() => ""));
  });

  it("says which results a change made out of date, in the unit of the bench", () => {
    noteChange(db, { machine: "bracken", kind: "belt", note: "", at: null }, NOW);
    const { settings, procedures } = machineReport(db, "bracken", NOW, "in");
    expect(settings.find((s) => s.label === "Scan offset per direction")?.state).toBe("out of date");
    const scan = procedures.find((p) => p.title === "Scan offset");
    expect(scan).toMatchObject({ state: "out of date", reasons: "the belt was changed or tightened" });
    expect(scan?.residual).toMatch(/ in$/);
  });

  it("refuses an address of no machine", () => {
    expect(() => machineReport(db, "nowhere", NOW)).toThrow(/No machine has the address “nowhere”/);
  });
});

describe("on paper", () => {
  it.each(Object.keys(PAPERS) as Paper[])("%s: one page, every word on it and none on another", (paper) => {
    for (const slug of ["alder", "bracken", "cinder"]) {
      const pages = reportPages(machineReport(db, slug, NOW), paper);
      expect(pages, slug).toHaveLength(1);
      for (const page of pages) {
        const boxes = boxesOf(page.items);
        for (const b of boxes) expect(b.x1, b.words).toBeLessThanOrEqual(page.widthMm - 5);
        expect(overlaps(boxes)).toEqual([]);
      }
    }
  });

  it("goes on to another page with its headings where a machine has many settings", () => {
    const report = machineReport(db, "bracken", NOW);
    const many = Array.from(
      { length: 60 },
      (_, i): ReportSetting => ({
        ...(report.settings[0] ?? ({} as never)),
        label: `Setting ${i + 1}`,
      }),
    );
    const pages = reportPages({ ...report, settings: many }, "a4");
    expect(pages.length).toBeGreaterThan(1);
    const words = pages.map((page) => page.items.flatMap(wordsIn));
    for (const on of words.slice(0, 2)) expect(on).toContain("U (k = 2)");
    expect(words.flat().join(" ")).toContain("Setting 60");
    expect(words.at(-1)).toContain(`page ${pages.length} of ${pages.length}`);
  });

  it("is a PDF that another program reads", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "ustrina-report-"));
    const file = path.join(folder, "report.pdf");
    writeFileSync(file, await sheetPdf(reportPages(machineReport(db, "bracken", NOW), "a4"), "Report", new Date(NOW)));
    const read = spawnSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
    rmSync(folder, { recursive: true });
    expect(read.stdout).toContain("Report of Bracken");
    expect(read.stdout).toContain("Scan offset");
    expect(read.stdout).toMatch(/± 0\.\d+ mm/);
  });
});
