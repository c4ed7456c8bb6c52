/** The same trial in two windows: readings of one are seen in the other, and two layouts are held against each other. */

import type { BrowserContext, Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, endTrial, watch } from "./watch";

/** Two seconds are promised on a machine that does nothing else; this one also runs two browsers and a server. */
const SOON_MS = 6000;

/** A trial burned and open to be read, in this window and another. */
async function twoReading(page: Page, context: BrowserContext): Promise<Page> {
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.locator("#reading")).toBeVisible();
  return other;
}

test("readings of one window are in the other within two seconds, and none is lost", async ({ page, context }) => {
  const faults = watch(page);
  const other = await twoReading(page, context);
  const otherFaults = watch(other);
  await page.bringToFront();
  await page.locator("#reading").fill("0.301");
  await page.locator("#reading").press("Enter");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  await other.bringToFront();
  await expect(other.getByText("reading 2 of 3")).toBeVisible({ timeout: SOON_MS });

  // Both go on at the same place, and each is told of what the other has; what is half typed stays
  await other.locator("#reading").fill("0.30");
  await page.bringToFront();
  await page.locator("#reading").fill("0.299");
  await page.locator("#reading").press("Enter");
  await other.bringToFront();
  await expect(other.getByText("reading 3 of 3")).toBeVisible({ timeout: SOON_MS });
  await expect(other.locator("#reading")).toHaveValue("0.30");
  await other.locator("#reading").press("End");
  await other.keyboard.type("3");
  await other.keyboard.press("Enter");
  await expect(other.getByText("site 2 of 14")).toBeVisible();
  await page.bringToFront();
  // Taken back there, it is gone here
  await expect(page.getByText("reading 4, one more")).toBeVisible({ timeout: SOON_MS });
  await other.bringToFront();
  await other.keyboard.press("Alt+z");
  await page.bringToFront();
  await expect(page.getByText("reading 3 of 3")).toBeVisible({ timeout: SOON_MS });
  faults.none();
  otherFaults.none();
  await other.close();
  await endTrial(page);
});

test("a page that comes late does not bring back a reading that was taken back meanwhile", async ({
  page,
  context,
}) => {
  const faults = watch(page);
  const other = await twoReading(page, context);
  await page.bringToFront();
  await page.locator("#reading").fill("0.301");
  await page.locator("#reading").press("Enter");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();

  // The server makes the page anew for what the other window read, and the network holds it
  let release = () => {};
  const held = new Promise<void>((done) => {
    release = done;
  });
  let made = () => {};
  const isMade = new Promise<void>((done) => {
    made = done;
  });
  const late: Promise<void>[] = [];
  await page.route(
    (url) => url.searchParams.has("_rsc"),
    (route) => {
      late.push(
        (async () => {
          const response = await route.fetch();
          made();
          await held;
          await route.fulfill({ response });
        })(),
      );
    },
  );
  await other.bringToFront();
  await expect(other.getByText("reading 2 of 3")).toBeVisible({ timeout: SOON_MS });
  await other.locator("#reading").fill("0.299");
  await other.locator("#reading").press("Enter");
  await expect(other.getByText("reading 3 of 3")).toBeVisible();
  await page.bringToFront();
  await isMade;
  await page.keyboard.press("Alt+z");
  const count = page.getByText(/site 1 of 14 · reading/);
  await expect(count).toHaveText("site 1 of 14 · reading 1 of 3");
  // Every state that the page goes through when the late one is there
  await count.evaluate((at) => {
    const seen: string[] = [];
    Object.assign(window, { seen });
    new MutationObserver(() => seen.push(at.textContent ?? "")).observe(at, {
      characterData: true,
      childList: true,
      subtree: true,
    });
  });
  release();
  await Promise.all(late);
  await expect(count).toHaveText("site 1 of 14 · reading 2 of 3");
  await page.unrouteAll({ behavior: "wait" });
  expect(await page.evaluate(() => Reflect.get(window, "seen"))).not.toContain("site 1 of 14 · reading 3 of 3");
  faults.none();
  await other.close();
  await endTrial(page);
});

test("a layout that was changed in another window is taken over, or shown beside the one that is here", async ({
  page,
  context,
}) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  const other = await context.newPage();
  await other.goto(page.url());
  const [here, there] = [page.getByLabel("Speeds"), other.getByLabel("Speeds")];
  await expect(there).toBeVisible();
  await page.bringToFront();
  await here.fill("100 300");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await other.bringToFront();
  await expect(there).toHaveValue("100 300", { timeout: SOON_MS });
  await expect(other.getByText(/It was changed in another window\./)).toBeVisible();

  // Both change it before either is told
  await other.route("**/stamp", (route) => route.abort());
  await page.bringToFront();
  await here.fill("100 300 500");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await other.bringToFront();
  await there.fill("200 400");
  const conflict = other.getByRole("alert", { name: "Changed in another window" });
  await expect(conflict.getByRole("row", { name: "Speeds 200 400 100 300 500" })).toBeVisible();
  await expect(other.getByRole("button", { name: "To the burn" })).toBeDisabled();
  await accessible(other);
  await expect(there).toHaveValue("200 400");
  await conflict.getByRole("button", { name: "Keep what is here" }).click();
  await expect(other.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.bringToFront();
  await expect(here).toHaveValue("200 400", { timeout: SOON_MS });
  await here.fill("100 250");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await other.bringToFront();
  await there.fill("150 350");
  await conflict.getByRole("button", { name: "Take what is there" }).click();
  await expect(there).toHaveValue("100 250");
  await other.reload();
  await expect(there).toHaveValue("100 250");
  await other.close();
  faults.none();
  await endTrial(page);
});
