/** Every file of a trial is taken in the browser and read again; the run sheet is printed; the G-code is set to the machine. */
import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { parseCsv } from "../src/formats/csv";
import { parseDxf } from "../src/formats/dxf-parser";
import { parseGcode } from "../src/formats/gcode-parser";
import { parseSvg } from "../src/formats/svg-parser";
import { parseTrialDocument } from "../src/formats/trial-document";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, beginReading, endTrial, threeSpeeds, watch } from "./watch";

/** Clicks and waits for the file. */
async function taken(page: Page, name: string): Promise<{ name: string; bytes: Buffer }> {
  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name, exact: true }).click();
  const download = await coming;
  return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) };
}

function value<T>(read: { ok: true; value: T } | { ok: false; message: string }): T {
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

/** Of every page, points, width before height, rounded to whole ones where they differ by less. */
function pageSizes(pdf: Buffer): string[] {
  const text = pdf.toString("latin1");
  return [...text.matchAll(/\/MediaBox\s*\[\s*0\s+0\s+([\d.]+)\s+([\d.]+)\s*\]/g)].map(
    ([, w, h]) => `${Math.round(Number(w))} ${Math.round(Number(h))}`,
  );
}

test("every file of a trial is taken and read again, in the words of the machine", async ({ page }) => {
  const faults = watch(page);
  await threeSpeeds(page);

  // The piece, in every form
  const svg = await taken(page, "SVG");
  expect(svg.name).toMatch(/^alder-a-.*\.svg$/);
  const piece = value(parseSvg(svg.bytes.toString()));
  expect(piece.paths.length).toBeGreaterThan(10);
  const dxf = value(parseDxf((await taken(page, "DXF")).bytes.toString()));
  expect(dxf.paths).toHaveLength(piece.paths.length);
  const gcode = await taken(page, "G-code");
  expect(gcode.name).toMatch(/\.nc$/);
  const program = value(parseGcode(gcode.bytes.toString()));
  expect(program.steps.filter((s) => s.kind === "scan begin")).toHaveLength(8);
  expect(value(parseCsv((await taken(page, "Sites")).bytes.toString())).rows).toHaveLength(8);

  // The G-code as the machine takes it
  await page.getByText(/^G-code as Alder takes it/).click();
  const form = page.getByRole("form", { name: "G-code" });
  await form.getByLabel("Beam on").fill("M2");
  await form.getByRole("button", { name: "Keep for Alder" }).click();
  await expect(form.getByRole("alert").filter({ hasText: /stops the program/ })).toBeVisible();
  await form.getByLabel("Beam on").fill("m4");
  // Folded and opened again, it has what was typed.
  await page.getByText(/^G-code as Alder takes it/).click();
  await expect(form).toBeHidden();
  await page.getByText(/^G-code as Alder takes it/).click();
  await expect(form.getByLabel("Beam on")).toHaveValue("m4");
  await form.getByLabel("Own lines at the end").fill("G0 X0 Y0\nM4 S5");
  await form.getByRole("button", { name: "Keep for Alder" }).click();
  await expect(form.getByRole("alert").filter({ hasText: /Line 2: it switches the beam on/ })).toBeVisible();
  await form.getByLabel("Own lines at the end").fill("G0 X0 Y0");
  await pick(form.getByLabel("Unit"), "inch, in/min");
  await expect(form.getByText(/G20 G17 G90 G94/)).toBeVisible();
  await accessible(page);
  await form.getByRole("button", { name: "Keep for Alder" }).click();
  await expect(page.getByText("Kept. Files for Alder are written so from now on.")).toBeVisible();
  const inch = (await taken(page, "G-code")).bytes.toString();
  expect(inch).toMatch(/G20 G17[\s\S]*\nM4 S0 F[\s\S]*\nG0 X0 Y0\nM2\n$/);
  const again = value(parseGcode(inch, { dialect: { powerLetter: "S", beamOn: "M4", beamOff: "M5" } }));
  expect(again.steps.length).toBe(program.steps.length + 1);
  await expect(page.getByText(/^G-code as Alder takes it: in,/)).toBeVisible();
  await pick(form.getByLabel("Unit"), "mm, mm/min");
  await form.getByLabel("Beam on").fill("M3");
  await form.getByLabel("Own lines at the end").fill("");
  await form.getByRole("button", { name: "Keep for Alder" }).click();
  await expect(page.getByText(/^G-code as Alder takes it: mm,/)).toBeVisible();

  // The run sheet: on the screen, as PDF, and as it prints
  await page.getByRole("link", { name: "Run sheet" }).click();
  await expect(page.getByRole("heading", { name: "Run sheet" })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Page 2: .*true scale 1 : 1/ })).toBeVisible();
  await accessible(page);
  const pdf = await taken(page, "PDF");
  expect(pdf.name).toMatch(/-run-sheet\.pdf$/);
  expect(pdf.bytes.subarray(0, 5).toString()).toBe("%PDF-");
  expect(pageSizes(pdf.bytes)[0]).toBe("595 842");
  await page.getByRole("link", { name: "US Letter" }).click();
  await expect(page).toHaveURL(/paper=letter/);
  const letter = await taken(page, "PDF");
  expect(pageSizes(letter.bytes)[0]).toBe("612 792");
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  const width = await page.getByRole("img", { name: /^Page 1/ }).evaluate((e) => e.getBoundingClientRect().width);
  expect(width).toBeCloseTo((215.9 / 25.4) * 96, 0);
  const printed = await page.pdf({ preferCSSPageSize: true });
  expect(pageSizes(printed)).toEqual(pageSizes(letter.bytes));
  await page.emulateMedia({ media: null });
  await page.getByRole("link", { name: "Back to Burn" }).click();

  // What was read and what it amounts to
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("8 of 8 sites read.")).toBeVisible({ timeout: 60_000 });
  await page.getByText("Spreadsheet and files").click();
  const readings = value(parseCsv((await taken(page, "What was read")).bytes.toString()));
  expect(readings.rows.length).toBeGreaterThanOrEqual(8);
  expect(value(parseCsv((await taken(page, "Results")).bytes.toString())).header).toContain("unit");
  const document = parseTrialDocument((await taken(page, "The whole trial (JSON)")).bytes.toString());
  expect(document).toMatchObject({
    ok: true,
    document: { procedure: "scan-offset", rounds: [{ purpose: "measure" }] },
  });
  faults.none();
  await endTrial(page);
});
