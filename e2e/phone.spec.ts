import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, endTrial, watch } from "./watch";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

/** The page does not scroll sideways, and each control, with its label, is high enough for a finger. */
async function fitsTheHand(page: Page): Promise<void> {
  const sideways = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(sideways).toBeLessThanOrEqual(0);
  const small = await page.evaluate(() => {
    const heightOf = (element: Element | null | undefined) => element?.getBoundingClientRect().height ?? 0;
    const controls = document.querySelectorAll<HTMLElement>(
      "a[href], button, input:not([aria-hidden]), textarea, [role=combobox], [role=radio], [role=checkbox]",
    );
    return [...controls].flatMap((control) => {
      const { width, height } = control.getBoundingClientRect();
      const words = control.id ? document.querySelector(`label[for="${CSS.escape(control.id)}"]`) : null;
      const most = Math.max(height, heightOf(words), heightOf(control.closest("label")));
      const isShown = width > 1 && height > 1 && control.checkVisibility();
      // A link inside a sentence has the height of its line.
      const isInSentence = control.tagName === "A" && getComputedStyle(control).display === "inline";
      return isShown && !isInSentence && most < 43.5 ? [`${control.textContent} ${most.toFixed(0)} px`] : [];
    });
  });
  expect(small).toEqual([]);
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
  // At most five taps for one reading
  const taps = [".", "3", "1", "Take"];
  expect(taps.length).toBeLessThanOrEqual(5);
  for (const key of taps) await page.getByRole("button", { name: key, exact: true }).tap();
  await expect(page.getByText("taken: .31", { exact: true }).first()).toBeVisible();
  await page.getByRole("button", { name: "undo" }).click();
  await expect(page.getByText("taken back: .31 mm", { exact: true }).first()).toBeVisible();
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
  for (const [path, heading] of [
    ["/machine/alder", "Alder"],
    ["/machine/new", "Add a machine"],
    ["/machine/alder/scan-offset", "Scan offset: open"],
    ["/gauges", "Gauges"],
    ["/ledger", "Ledger"],
    ["/", "Bench"],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole("heading", { name: heading, exact: true })).toBeVisible();
    await fitsTheHand(page);
  }
  await page.getByRole("link", { name: "Continue" }).first().click();
  await page.waitForURL(/\/trial\//);
  faults.none();
  await page.goto(page.url().replace(/(\/trial\/\d+)\/.*/, "$1/burn"));
  await endTrial(page);
});
