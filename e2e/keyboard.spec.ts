/** A whole trial without a pointer: from the bench to the accepted proof by keys alone. */
import { expect, test } from "./bench";
import { beginByKeys, burnByKeys, press, readByKeys, tabTo } from "./keys";
import { endTrial, openBench, watch } from "./watch";

test("a whole trial by keyboard alone", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  // An open one of an earlier test would be continued instead.
  const card = page.getByRole("article", { name: "Alder" });
  if (await card.getByRole("link", { name: "Continue" }).isVisible()) {
    await card.getByRole("link", { name: "Continue" }).click();
    await page.waitForURL(/\/trial\/\d+\//);
    await page.goto(page.url().replace(/(\/trial\/\d+)\/.*/, "$1/prove"));
    await endTrial(page);
  }
  await beginByKeys(page, "scan offset on alder", "Scan offset");

  const speeds = page.getByLabel("Speeds");
  await tabTo(page, speeds);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("100 300 500");
  const repeats = page.getByLabel("Readings per point");
  await tabTo(page, repeats);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("4");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.keyboard.press("Alt+Enter");
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");

  await press(page, page.getByRole("button", { name: "Yes, I read that back" }));
  await expect(page.getByText(/ during the burn\.$/)).toBeVisible();
  await press(page, page.getByRole("button", { name: "Record", exact: true }).first());
  const readBack = page.getByLabel("I read it back from there");
  await tabTo(page, readBack);
  await page.keyboard.press("Space");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText(/^entered and read back/)).toBeVisible();
  await page.keyboard.press("Escape");
  await press(page, page.getByRole("button", { name: "Burn the proof" }));
  await expect(page.getByText("Check that the new entries are in the controller")).toBeVisible();
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Accept: proved" }));
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  faults.none();
});
