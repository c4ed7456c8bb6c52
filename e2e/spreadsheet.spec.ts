import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { csvOf, parseCsv } from "../src/formats/csv";
import { expect, test } from "./bench";
import { accessible, beginReading, endTrial, openBench, threeSpeeds, watch } from "./watch";

async function table(page: Page, link: string) {
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: link, exact: true }).click(),
  ]);
  const read = parseCsv(readFileSync(await file.path(), "utf8"));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

test("readings go out to a spreadsheet and come back, whole or not at all", async ({ page }) => {
  const faults = watch(page);
  await threeSpeeds(page);
  expect((await table(page, "Sites")).rows).toHaveLength(8);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await expect(page.locator("#reading")).toBeFocused();
  await page.getByText("Spreadsheet and files").click();
  await accessible(page);

  const sheet = await table(page, "Sheet to fill in");
  expect(sheet.rows).toHaveLength(16);
  const filled = sheet.rows.map(({ cells }) => {
    const [site = "", place = "", question = ""] = cells;
    const speed = Number(/^v(\d+)-/.exec(site)?.[1] ?? 0);
    const which = speed === 0 ? "" : site.endsWith("left") ? "left-going stand out" : "right-going stand out";
    return [site, place, question, speed === 0 ? "0.30" : (speed * 0.0008).toFixed(2), which, ""];
  });
  const upload = (rows: string[][]) =>
    page.getByLabel("Take the readings of a filled sheet:").setInputFiles({
      name: "filled.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(csvOf(sheet.header, rows)),
    });

  // One bad cell: its line and column are named, and nothing is taken
  await upload(filled.map((row, i) => (i === 5 ? [...row.slice(0, 3), "0.2x", ...row.slice(4)] : row)));
  await expect(page.getByRole("alert").filter({ hasText: /Line 7, v100-left: “x” is not a unit/ })).toBeVisible();
  await expect(page.getByText("No stagger is read yet. Read 8 of 8 points.")).toBeVisible();

  // The good one is taken once, however often it is sent
  await upload(filled);
  await expect(page.getByText("16 readings taken from the sheet.")).toBeVisible();
  await expect(page.getByText("8 of 8 sites read.")).toBeVisible();
  await upload(filled);
  await expect(page.getByText("These readings were taken before.")).toBeVisible();

  const readings = await table(page, "What was read");
  expect(readings.rows).toHaveLength(16);
  expect(readings.rows[5]?.cells.slice(0, 1)).toEqual(["v100-left"]);
  const lag = (await table(page, "Results")).rows.find((r) => r.cells[1] === "Lag");
  // 400 µs by these readings, on top of what the table in force holds by then.
  expect(Number(lag?.cells[2])).toBeGreaterThan(380);
  expect(lag?.cells[3]).toBe("µs");
  faults.none();
  await endTrial(page);
});

test("a trial from another computer is loaded, and nonsense is refused by its field", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await page.getByRole("button", { name: "Load a trial from another computer" }).click();
  const load = (name: string, text: string) =>
    page
      .getByLabel("Trial file (JSON)")
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  const text = readFileSync("examples/scan-offset/trial.json", "utf8");
  await load("broken.json", text.replace(/"version": \d+/, '"version": 7'));
  await expect(page.getByRole("alert").filter({ hasText: /^version: .*Update Ustrina/ })).toBeVisible();
  await load("trial.json", text);
  await expect(page.getByRole("heading", { name: "What to enter" })).toBeVisible();
  await expect(page.getByText("coupon T-1")).toBeVisible();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(page.getByText("14 of 14 sites read.")).toBeVisible();
  await accessible(page);
  faults.none();
  await endTrial(page);
});
