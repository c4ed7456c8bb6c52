import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { parseGcode } from "../src/formats/gcode-parser";
import { burnedPaths } from "../src/formats/gcode-paths";
import { parseSvg } from "../src/formats/svg-parser";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, openBench, watch } from "./watch";

async function download(page: Page, name: string): Promise<string> {
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name }).click()]);
  return readFileSync(await file.path(), "utf8");
}

async function burnAndOpen(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await expect(page.getByRole("heading", { name: "What do you read with?" })).toBeVisible();
  await accessible(page);
  await beginReading(page);
  await expect(page.getByLabel(/left end: How far/)).toBeFocused();
}

test.use({ bench: "empty" });

test("scan offset on the CO2 gantry, from the empty bench to proved", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "No machine stands on this bench yet." })).toBeVisible();
  await accessible(page);
  await openBench(page);
  await accessible(page);

  // Lay out
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByLabel("Speeds").fill("100 200 300 400 500");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);
  await page.reload();
  await expect(page.getByLabel("Speeds")).toHaveValue("100 200 300 400 500");
  await page.getByRole("link", { name: "To the burn" }).click();

  // Burn: both files read back to the same areas
  await expect(page.getByText("Put on eyewear for 10600 nm")).toBeVisible();
  await accessible(page);
  const svg = parseSvg(await download(page, "SVG"));
  const gcode = parseGcode(await download(page, "G-code"));
  if (!svg.ok || !gcode.ok) throw new Error("a file cannot be read back");
  const areas = svg.value.paths.filter((p) => p.closed);
  expect(areas).toHaveLength(12);
  expect(burnedPaths(gcode.value).filter((p) => p.scan)).toHaveLength(12);
  await burnAndOpen(page);

  // Read: by hand once, with the sign in words, then what is left from the practice piece
  await page.keyboard.press("Alt+m");
  await expect(page.locator("#reading")).not.toHaveValue("");
  await page.keyboard.press("Enter");
  await expect(page.getByText("site 1 of 12 · reading 2 of 3")).toBeVisible();
  await page.keyboard.press("Alt+z");
  await expect(page.getByText("site 1 of 12 · reading 1 of 3")).toBeVisible();
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("12 of 12 sites read.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("region", { name: "Verdict so far" }).getByText("Lag")).toBeVisible();
  await accessible(page);
  await page.reload();
  await expect(page.getByText("12 of 12 sites read.")).toBeVisible();

  // Correct: read back, see the sum, record as entered
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: /What did Controller of Alder hold/ })).toBeVisible();
  await page.getByRole("button", { name: "Yes, I read that back" }).click();
  await expect(page.getByText("Controller of Alder held no entries during the burn.")).toBeVisible();
  await page.getByText("How each number came about").click();
  await expect(page.getByText(/100 mm\/s: 0\.000 \+ 0\.\d{3} ÷ 2 = 0\.\d{4}/)).toBeVisible();
  await page.getByRole("button", { name: "Record" }).first().click();
  await accessible(page);
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(page.getByText("Recorded; 1 holder still open.")).toBeVisible();

  // Prove
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await expect(page.getByText("Check that the new entries are in the controller")).toBeVisible();
  await burnAndOpen(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByRole("link", { name: "See the verdict" }).click({ timeout: 60_000 });
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Before and after" })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();

  // Bench, ledger, practice
  await openBench(page);
  await expect(page.getByText(/± 0\.\d{3} mm/).first()).toBeVisible();
  await expect(page.getByText("Still holds the old value")).toBeVisible();
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await expect(page.getByRole("cell", { name: /trial A-3, read back/ })).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "Practice machines" }).click();
  await page.getByRole("button", { name: "Show the truth" }).first().click();
  await expect(page.getByText("beam comes on late by")).toBeVisible();
  await accessible(page);
  faults.none();
});
