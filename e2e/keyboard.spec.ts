/** A whole trial without a pointer: from the bench to the accepted proof by keys alone. */
import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./bench";
import { endTrial, openBench, watch } from "./watch";

/** Goes on with Tab, as a person does, until this has the focus. */
async function tabTo(page: Page, target: Locator, most = 80): Promise<void> {
  await expect(target).toBeVisible();
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`no way by Tab to ${target}`);
}

async function press(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press("Enter");
}

async function readAll(page: Page): Promise<void> {
  const zero = page.getByLabel(/^Closed jaws read/);
  await tabTo(page, zero);
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await expect(page.locator("#reading")).toBeFocused();
  // A number, the words of its sign, Enter
  await page.keyboard.press("Alt+m");
  await expect(page.locator("#reading")).not.toHaveValue("");
  await page.keyboard.press("Enter");
  await expect(page.getByText("reading 2 of 2")).toBeVisible();
  await press(page, page.getByRole("button", { name: "Read all that is left" }));
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
}

test("a whole trial by keyboard alone", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  // An open one of an earlier test would be continued instead.
  const card = page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: "Alder" }) });
  if (await card.getByRole("link", { name: "Continue" }).isVisible()) {
    await card.getByRole("link", { name: "Continue" }).click();
    await page.waitForURL(/\/trial\/\d+\//);
    await page.goto(page.url().replace(/(\/trial\/\d+)\/.*/, "$1/prove"));
    await endTrial(page);
  }
  await page.goto("/");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("scan offset on alder");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^Scan offset: / })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Begin trial" }));

  const speeds = page.getByLabel("Speeds");
  await tabTo(page, speeds);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("100 300 500");
  const repeats = page.getByLabel("Readings a site");
  await tabTo(page, repeats);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("2");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.keyboard.press("Alt+Enter");
  await expect(page.getByText("Before this burn")).toBeVisible();
  await press(page, page.getByRole("button", { name: "Burn on the practice machine" }));
  await expect(page.getByRole("heading", { name: "What do you read with?" })).toBeVisible();
  await readAll(page);
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
  await expect(page.getByText("The new entries are in the controller")).toBeVisible();
  await press(page, page.getByRole("button", { name: "Burn on the practice machine" }));
  await expect(page.getByRole("heading", { name: "What do you read with?" })).toBeVisible();
  await readAll(page);
  await page.keyboard.press("Alt+Enter");
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Accept: proved" }));
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  faults.none();
});
