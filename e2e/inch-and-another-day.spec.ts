import type { Page } from "@playwright/test";
import Sqlite from "better-sqlite3";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, endTrial, threeSpeeds, watch } from "./watch";

const DAY_MS = 86_400_000;

/** What gauges that type send: digits and Enter, with no field focused. */
async function send(page: Page, digits: string): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.type(digits, { delay: 4 });
  await page.keyboard.press("Enter");
}

async function told(page: Page, message: RegExp): Promise<void> {
  await expect(page.getByRole("alert").filter({ hasText: message })).toBeVisible();
}

/** Days go by: everything in the bench's file is as much older. */
function letDaysPass(database: string, days: number): void {
  const db = new Sqlite(database);
  db.prepare("update session set begun_at = begun_at - ?").run(days * DAY_MS);
  db.prepare("update reading set taken_at = taken_at - ?").run(days * DAY_MS);
  db.close();
}

test("an inch trial with calipers that type, and a second sitting another day with another gauge", async ({
  page,
  server,
}) => {
  const faults = watch(page);
  await threeSpeeds(page);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();

  // The sitting: inch calipers whose closed jaws read half a thou, and a zero that is dirt
  await page.getByRole("radio", { name: /^Inch calipers/ }).check();
  await page.getByLabel("Closed jaws read, in").fill("0.2");
  await page.getByRole("button", { name: "Begin reading" }).click();
  await expect(page.getByText(/clean the jaws/)).toBeVisible();
  await page.getByLabel("Closed jaws read, in").fill("0.0005");
  await accessible(page);
  await page.getByRole("button", { name: "Begin reading" }).click();
  await expect(page.getByText("Inch calipers 0.0005 in · closed jaws read 0.0005 in")).toBeVisible();

  // The reference step of 0.3 mm = 0.0118 in, sent by the gauge; a slip of units is asked about once
  await send(page, "0.30");
  await told(page, /about 25 times what its neighbours read/);
  await send(page, "0.0123");
  await expect(page.getByText("site 1 of 8 · reading 2 of 2")).toBeVisible();
  await send(page, "+0.0124");
  await expect(page.getByText("site 2 of 8 · reading 1 of 2")).toBeVisible();
  await send(page, "0.0125");
  await send(page, "0.0123");
  await expect(page.getByRole("heading", { name: "100 mm/s, left end" })).toBeVisible();

  // A sign is asked for in words; then the gauge goes on
  await send(page, "0.0030");
  await told(page, /Say in words/);
  await page.keyboard.press("Alt+1");
  await page.keyboard.press("Enter");
  await expect(page.getByText("site 3 of 8 · reading 2 of 2")).toBeVisible();
  await send(page, "0.0031");
  await expect(page.getByRole("cell", { name: /^0\.00\d{2}$/ }).first()).toBeVisible();

  // Units: thou and mm are one key away, and stay chosen
  await expect(page.getByRole("columnheader", { name: "offset, in" })).toBeVisible();
  await page.keyboard.press("Alt+u");
  await expect(page.getByRole("columnheader", { name: "offset, thou" })).toBeVisible();
  await page.keyboard.press("Alt+u");
  await expect(page.getByRole("columnheader", { name: "offset, mm" })).toBeVisible();
  await page.keyboard.press("Alt+u");
  await expect(page.getByRole("columnheader", { name: "offset, in" })).toBeVisible();

  // Three days later: the jaws are looked at again, and the rest is read with another gauge
  letDaysPass(server.database, 3);
  await page.reload();
  await expect(page.getByText(/The last sitting was another day/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Go on with the sitting there is" }).click();
  await expect(page.getByText(/Inch calipers, sitting begun 3 days ago/)).toBeVisible();
  await page.getByRole("button", { name: "Another gauge or day" }).click();
  await page.getByRole("radio", { name: /^Microscope picture/ }).check();
  await expect(page.getByLabel(/Closed jaws read/)).toBeHidden();
  await page.getByRole("button", { name: "Begin reading" }).click();
  await expect(page.getByText("Microscope picture, sitting begun just now")).toBeVisible();
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("8 of 8 sites read.")).toBeVisible({ timeout: 60_000 });

  // The budget knows both gauges
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Yes, I read that back" }).click();
  const budget = page.getByRole("region", { name: "Uncertainty budget" });
  await pick(budget.getByLabel("Result"), "At 100 mm/s");
  await expect(budget.getByRole("rowheader", { name: /Repeatability, inch calipers/ })).toBeVisible();
  await expect(budget.getByRole("rowheader", { name: /Repeatability, microscope picture/ })).toBeVisible();
  await expect(budget.getByText(/What helps most:/)).toBeVisible();
  await accessible(page);
  faults.none();
  await endTrial(page);
});
