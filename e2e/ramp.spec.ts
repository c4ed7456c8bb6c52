/** A ramp on Bracken: laid out, read by eye, kept on the card, and proved by a second one. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, watch } from "./watch";

async function burnAndRead(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await beginReading(page);
  await expect(page.getByRole("heading", { name: "Best point of the strip" })).toBeVisible();
}

test("a ramp on Bracken: power along a strip, read where it is best, kept for its stock, proved", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Bracken", "Ramp");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  // Ends that are nearly the same are refused; the number stays.
  await page.getByLabel("Power at the end, %").fill("6");
  await expect(page.getByText(/must be at least 1\.3\. Enter a wider range/)).toBeVisible();
  await page.getByLabel("Power at the end, %").fill("100");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndRead(page);
  // What is typed is told in the setting at once: 5 × 20^0.5 = 22.4 %.
  await page.locator("#reading").fill("50");
  await expect(page.getByText("50 mm is 22.4 %")).toBeVisible();
  await page.locator("#reading").fill("");
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("3 of 3 sites read.")).toBeVisible();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await expect(page.getByRole("link", { name: "the card of its stock" })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await page.waitForURL(/\/burn|\/lay-out/);
  await burnAndRead(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByRole("link", { name: "See the verdict" }).click();
  await expect(page.getByRole("region", { name: "Verdict", exact: true })).toContainText(/± .* % of the range/);
  await accessible(page);
  faults.none();
});
