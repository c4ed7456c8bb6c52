/** Sixty readings as fast as a script can send them, over a slow line: none lost, none out of order, none at the wrong place. */
import type { Page } from "@playwright/test";
import Sqlite from "better-sqlite3";
import { expect, test } from "./bench";
import { answersLate, beginReading, beginTrial, endTrial, gate, watch } from "./watch";

const REPEATS = 5;

/** What the round holds on disk, in the order in which it was taken. */
function onDisk(database: string, trialId: number): { site: string; raw: string }[] {
  const db = new Sqlite(database, { readonly: true });
  const rows = db
    .prepare("select site, raw from reading where round_id in (select id from round where trial_id = ?) order by id")
    .all(trialId) as { site: string; raw: string }[];
  db.close();
  return rows;
}

/** Everything that is typed for one reading; the words of the sign first. */
async function typed(page: Page, text: string, signed: boolean): Promise<void> {
  if (signed) await page.keyboard.press("Alt+Digit1");
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
}

test("sixty readings typed without waiting are all on disk, in order", async ({ page, server }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByLabel("Speeds").fill("100 200 300 400 500");
  await page.getByLabel("Readings per point").fill(String(REPEATS));
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await expect(page.locator("#reading")).toBeFocused();
  await answersLate(page, 60);

  const wanted: string[] = [];
  for (let site = 0; site < 12; site++)
    for (let k = 0; k < REPEATS; k++) {
      // No two sites read the same one after the other: that would be asked about.
      const scatter = ((site * 7 + k * k * 3 + k * (site + 1)) % 11) / 1000;
      const text = (site < 2 ? 0.3 : 0.05 * Math.floor(site / 2) + 0.03) + scatter;
      wanted.push(`${text.toFixed(3)} mm`);
      await typed(page, text.toFixed(3), site >= 2);
    }
  await expect(page.getByText("12 of 12 sites read.")).toBeVisible({ timeout: 120_000 });
  const read = onDisk(server.database, Number(/trial\/(\d+)/.exec(page.url())?.[1]));
  expect(read.map((r) => r.raw)).toEqual(wanted);
  const sites = [...new Set(read.map((r) => r.site))];
  expect(read.map((r) => r.site)).toEqual(sites.flatMap((s) => Array(REPEATS).fill(s)));
  expect(sites).toHaveLength(12);
  faults.none();
  await endTrial(page);
});

test("what is typed behind a reading that is not taken is named, and goes nowhere else", async ({ page }) => {
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const field = page.locator("#reading");
  await expect(field).toBeFocused();
  // The first goes to a place that is not there, so that the server does not take it
  let isFirst = true;
  const typedOn = gate();
  await page.route("**/*", async (route) => {
    const body = route.request().postData();
    if (!isFirst || !body?.includes('"site"')) return route.continue();
    isFirst = false;
    await typedOn.opened;
    await route.continue({ postData: body.replace(/"site":"[^"]*"/, '"site":"nowhere"') });
  });
  await typed(page, "0.301", false);
  await typed(page, "0.302", false);
  await page.keyboard.type("0.3");
  typedOn.open();
  await expect(page.getByText("This coupon has no such place.")).toBeVisible();
  await expect(page.getByText("Typed meanwhile and not taken: 0.302, 0.3.")).toBeVisible();
  await expect(field).toHaveValue("0.301");
  await field.press("Enter");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  await expect(page.getByText(/Typed meanwhile/)).toBeHidden();
  await expect(field).toHaveValue("");
  await endTrial(page);
});
