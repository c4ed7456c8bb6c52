/** Outlines around the blocks: the shift of scanned rows is found, corrected at its own setting, and proved with the staggers. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginTrial, burnAndReadAll, watch } from "./watch";

async function record(page: Page, setting: string): Promise<void> {
  await page.getByRole("group", { name: setting }).getByRole("button", { name: "Record", exact: true }).first().click();
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(page.getByRole("group", { name: setting }).getByText(/^entered and read back/)).toBeVisible();
  await page.keyboard.press("Escape");
}

test("scanned rows of Alder are shifted against drawn lines: measured in gaps, corrected, proved", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByLabel("Speeds").fill("100 300 500");
  await page.getByLabel("A slow line around each block").check();
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await expect(page.getByText(/names no setting for the shift/)).toHaveCount(0);
  await accessible(page);
  await page.getByRole("link", { name: "To the burn" }).click();
  await expect(page.getByText("Draw the outlines as lines, slowly. Do not fill them.")).toBeVisible();
  await burnAndReadAll(page);
  await expect(page.getByText("20 of 20 sites read.")).toBeVisible();
  await page.getByRole("button", { name: "100 gaps ←" }).click();
  await expect(page.getByRole("heading", { name: "100 mm/s, left gap of left-going rows" })).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  const offset = page.getByRole("region", { name: "Read back" }).filter({ hasText: "Scan offset per direction" });
  await offset.getByRole("button", { name: "Yes, I read that back" }).click();
  // Without the value in force there is no new one.
  await expect(page.getByText("The stored shift of scanned rows is not known.")).toBeVisible();
  const shift = page.getByRole("region", { name: "Read back" }).filter({ hasText: "Shift of scanned rows" });
  await shift.getByRole("button", { name: "Say what it held" }).click();
  await shift.getByLabel("Shift of scanned rows").fill("0.1");
  await shift.getByRole("button", { name: "That is what it held" }).click();
  await expect(page.getByText(/Shift of scanned rows: .* held 0.1 mm during the burn/)).toBeVisible();
  await expect(page.getByText("The stored shift of scanned rows is not known.")).toHaveCount(0);
  await accessible(page);
  await record(page, "Scan offset per direction");
  await record(page, "Shift of scanned rows");
  const correct = page.url();
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "See the verdict" }).click();
  await expect(page.getByText("Shift of scanned rows").first()).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  // What was recorded stands beside the same readings worked out anew.
  await page.goto(correct);
  const recorded = page.getByRole("region", { name: "Recorded result" });
  await expect(recorded.getByText("Computed again from the readings, all results are the same.")).toBeVisible();
  faults.none();
});
