import { expect, test } from "@playwright/test";
import { accessible, beginReading, beginTrial, endTrial, watch } from "./watch";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

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
  const sideways = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(sideways).toBeLessThanOrEqual(0);
  for (const button of await page.getByRole("button").all()) {
    const box = await button.boundingBox();
    if (box && (await button.isVisible()) && !(await button.textContent())?.includes("End without"))
      expect(box.height).toBeGreaterThanOrEqual(43);
  }
  faults.none();
  await page.goto(page.url().replace("/read", "/burn"));
  await endTrial(page);
});
