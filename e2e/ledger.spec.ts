/** The ledger: by hand with a reason, two days compared, an earlier value put back, out as files and in again. */
import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { accessible, openBench, watch } from "./watch";

async function byHand(page: Page, value: string, why: string): Promise<void> {
  await page.goto("/machine/alder");
  await page
    .getByRole("region", { name: "Settings" })
    .getByRole("button", { name: /^Office computer/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Enter by hand Scan offset per direction, Office computer" }).click();
  const form = page.getByRole("form", { name: /^Entered by hand/ });
  await form.getByLabel("Row 1, at").fill("100");
  await form.getByLabel("Row 1, value").fill(value);
  await form.getByLabel("Why it was changed").fill(why);
  await form.getByRole("button", { name: "Write it down" }).click();
}

test("a value by hand, compared, put back, taken back, exported and imported", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await byHand(page, "0.11", "");
  await expect(page.getByRole("form", { name: /^Entered by hand/ }).getByRole("alert")).toHaveText(
    "Enter the reason for the change.",
  );
  await byHand(page, "0.11", "felt late");
  await expect(page.getByText("100: 0.11").first()).toBeVisible();
  await byHand(page, "0.19", "still late");
  await expect(page.getByText("100: 0.19").first()).toBeVisible();

  await page.getByRole("region", { name: "Settings" }).getByRole("link", { name: "Ledger" }).click();
  await page
    .getByRole("navigation", { name: "Setting" })
    .getByRole("link", { name: "Scan offset per direction" })
    .click();
  await expect(
    page.getByRole("img", { name: /over time, Office computer.*100 mm\/s: none, 0\.11, 0\.19/ }),
  ).toBeVisible();
  await accessible(page);

  // Put back the first one
  const first = page.getByRole("row").filter({ hasText: "felt late" });
  await first.getByRole("button", { name: /^Put this back/ }).click();
  await expect(page.getByText("Enter it there: 100: 0.11")).toBeVisible();
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "It is put back" }).click();
  const restored = page.getByRole("row").filter({ hasText: "put back, read back" });
  await expect(restored.getByText("in force")).toBeVisible();
  await restored.getByRole("button", { name: /^Take back/ }).click();
  await expect(page.getByRole("row").filter({ hasText: "taken back" })).toHaveCount(1);

  // Two days
  await page.getByRole("link", { name: "Compare two days" }).click();
  const change = page.getByRole("region", { name: "Scan offset per direction, Office computer, second program" });
  await expect(change.getByRole("row", { name: /^100 .* 0\.19 new$/ })).toBeVisible();
  await accessible(page);
  const today = await page.getByLabel("To").inputValue();
  await page.getByLabel("From").fill(today);
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.getByText("Nothing differs.")).toBeVisible();
  await page.goBack();
  await expect(change).toBeVisible();

  // Out and in again: nothing is there twice; nonsense is refused with its reason
  await page.goto("/ledger?machine=alder");
  const rows = await page.getByRole("row").count();
  const [json] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Export (JSON)" }).click(),
  ]);
  const [csv] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Table (CSV)" }).click(),
  ]);
  expect(readFileSync(await csv.path(), "utf8")).toMatch(/,0\.19,mm,"Office computer, second program",hand,/);
  const chooser = page.getByLabel("Import a ledger (JSON):");
  await chooser.setInputFiles(await json.path());
  await expect(page.getByText(/^0 entries added, \d+ there already\.$/)).toBeVisible();
  await expect(page.getByRole("row")).toHaveCount(rows);
  const text = readFileSync(await json.path(), "utf8");
  const wrong = [
    [text.replace(/"at": "20/, '"at": "29'), /entries\[0\]\.at: That is in the future/],
    [text.replace("CO2 gantry", "galvo"), /ledger of a galvo/],
    ["{", /not valid JSON/],
  ] as const;
  for (const [content, message] of wrong) {
    await chooser.setInputFiles({ name: "l.json", mimeType: "application/json", buffer: Buffer.from(content) });
    await expect(page.getByRole("region", { name: "Files" }).getByRole("alert")).toHaveText(message);
  }
  await expect(page.getByRole("row")).toHaveCount(rows);

  // Outside of what the controller takes nothing is put back
  await page.goto("/machine/alder");
  await openConcern(page, "Machine data");
  const known = page.getByRole("form", { name: "Data of Alder" });
  const taken = known.getByRole("group", { name: "Scan offset per direction" });
  await taken.getByLabel("Smallest value").fill("-0.1");
  await taken.getByLabel("Largest value").fill("0.1");
  await page.reload();
  await expect(taken.getByLabel("Smallest value")).toHaveValue("-0.1");
  await known.getByRole("button", { name: "Keep the change" }).click();
  await expect(page.getByText(/^Kept\. Trials begun before/)).toBeVisible();
  await page.goto("/ledger?machine=alder");
  await page
    .getByRole("row")
    .filter({ hasText: "felt late" })
    .getByRole("button", { name: /^Put this back/ })
    .click();
  await page.getByRole("button", { name: "It is put back" }).click();
  await expect(page.getByRole("form", { name: /^Put back/ }).getByRole("alert")).toHaveText(
    /The value at 100 is 0\.110 mm\. Enter between −0\.100 and 0\.100 mm/,
  );
  await page.goto("/machine/alder");
  await taken.getByLabel("Smallest value").fill("");
  await taken.getByLabel("Largest value").fill("");
  await known.getByRole("button", { name: "Keep the change" }).click();
  await expect(page.getByText(/^Kept\. Trials begun before/)).toBeVisible();
  for (const why of ["still late", "felt late"]) {
    await page.goto("/ledger?machine=alder");
    await page
      .getByRole("row")
      .filter({ hasText: why })
      .getByRole("button", { name: /^Take back/ })
      .click();
    await expect(page.getByText("Taken back: what was there before is in force again.")).toBeVisible();
  }
  faults.none();
});
