import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, endTrial, watch } from "./watch";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

/** Nothing reaches sideways, and every button is large enough for a finger. */
async function fitsTheHand(page: Page): Promise<void> {
  const sideways = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(sideways).toBeLessThanOrEqual(0);
  for (const button of await page.getByRole("button").all()) {
    const box = await button.boundingBox();
    if (box && (await button.isVisible()))
      expect(box.height, `${await button.textContent()}`).toBeGreaterThanOrEqual(43);
  }
}

test("burning and reading one-handed on a phone", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await accessible(page);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  for (const key of ["0", ".", "3", "1"]) await page.getByRole("button", { name: key, exact: true }).click();
  await expect(page.locator("#reading")).toHaveValue("0.31");
  await page.getByRole("button", { name: "delete last" }).click();
  await expect(page.locator("#reading")).toHaveValue("0.3");
  await accessible(page);
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(page.getByText("taken: 0.3", { exact: true }).first()).toBeVisible();
  await page.getByRole("button", { name: "undo" }).click();
  await expect(page.getByText("taken back: 0.3 mm", { exact: true }).first()).toBeVisible();
  await fitsTheHand(page);

  // On to the numbers and the verdict line
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByRole("link", { name: "Correct", exact: true }).click({ timeout: 60_000 });
  await page.getByRole("button", { name: "Yes, I read that back" }).click();
  await expect(page.getByText(/ during the burn\.$/)).toBeVisible();
  await expect(page.getByRole("region", { name: "What to enter" })).toBeVisible();
  await fitsTheHand(page);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await fitsTheHand(page);
  await page.getByRole("link", { name: "Continue" }).first().click();
  await page.waitForURL(/\/trial\//);
  faults.none();
  await page.goto(page.url().replace(/(\/trial\/\d+)\/.*/, "$1/burn"));
  await endTrial(page);
});
