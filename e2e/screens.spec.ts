/** axe finds nothing on any screen, in daylight and in the dark, at the desk and in the hand. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginReading, openBench, threeSpeeds, watch } from "./watch";

const SIZES = [
  { name: "desk", width: 1280, height: 800 },
  { name: "phone", width: 390, height: 844 },
];
const PLACES = [
  "/",
  "/machine/new",
  "/machine/bracken",
  "/machine/bracken/scan-offset",
  "/machine/bracken/kerf",
  "/machine/bracken/rotary",
  "/machine/bracken/report",
  "/machine/bracken/round-parts",
  "/stock",
  "/stock/birch-plywood-3-mm",
  "/stock/birch-plywood-3-mm/artwork",
  "/ledger",
  "/ledger?machine=bracken",
  "/ledger/compare?machine=bracken&from=2024-01-01",
  "/gauges",
  "/practice",
  "/backup",
  "/nothing-here",
];
const STAGES = ["lay-out", "burn", "read", "correct", "prove"];

async function look(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await setTheme(page, "light");
  await accessible(page);
  // In the dark nothing but colours is another.
  await setTheme(page, "dark");
  await accessible(page, "color-contrast");
  const sideways = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(sideways, url).toBeLessThanOrEqual(0);
}

function setTheme(page: Page, theme: "light" | "dark"): Promise<void> {
  return page.evaluate((t) => {
    document.documentElement.dataset.theme = t;
  }, theme);
}

for (const { name, ...viewport } of SIZES)
  test(`every screen, ${name}`, async ({ page }) => {
    const faults = watch(page);
    await page.setViewportSize(viewport);
    await openBench(page);
    for (const place of PLACES.filter((p) => p !== "/nothing-here")) await look(page, place);
    faults.none();
    await look(page, "/nothing-here");
  });

test("every stage of a trial, at the desk and on a phone", async ({ page }) => {
  const faults = watch(page);
  await threeSpeeds(page);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
  const trial = page.url().replace(/\/read.*/, "");
  for (const { name: _, ...viewport } of SIZES) {
    await page.setViewportSize(viewport);
    for (const stage of STAGES) await look(page, `${trial}/${stage}`);
    await look(page, `${trial}/run-sheet`);
  }
  faults.none();
});
