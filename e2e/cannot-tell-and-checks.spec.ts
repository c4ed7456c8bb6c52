import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, answersLate, beginReading, beginTrial, burnAndReadAll, openBench, watch } from "./watch";

test("a verdict that cannot be told is proved by more readings; then checks, limits and what changed", async ({
  page,
}) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByLabel("Speeds").fill("100 200 300 400 500");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndReadAll(page);
  await expect(page.getByText("12 of 12 sites read.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Yes, I read that back" }).click();

  // A slip of units in what was entered is asked about once
  await page.getByRole("button", { name: "Record" }).first().click();
  const typed = page.getByRole("textbox", { name: "300 mm/s" });
  const right = await typed.inputValue();
  for (const speed of ["100", "200", "300", "400", "500"]) {
    const field = page.getByRole("textbox", { name: `${speed} mm/s` });
    await field.fill((Number(await field.inputValue()) / 25.4).toFixed(5));
  }
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(
    page.getByRole("alert").filter({ hasText: /divided by 25\.4\. Does the controller use mm/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByRole("button", { name: "Record" }).first().click();
  await expect(typed).toHaveValue(right);
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(page.getByText("1 holder still open.")).toBeVisible();

  // The proof with a tolerance too tight for the readings there are
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "See the verdict" }).click({ timeout: 60_000 });
  await page.getByRole("button", { name: "Change" }).click();
  await page.getByLabel("Largest residual stagger").fill("nothing");
  await page.getByRole("button", { name: "Judge by this" }).click();
  await expect(page.getByRole("alert").filter({ hasText: /cannot be read/ })).toBeVisible();
  await page.getByLabel("Largest residual stagger").fill(await tightest(page));
  await page.getByRole("button", { name: "Judge by this" }).click();
  await expect(page.getByRole("heading", { name: "Undecided" })).toBeVisible();
  await accessible(page);

  // More readings, as the way out says, until it is told; on a server whose pages come late
  await answersLate(page, 800);
  for (let i = 0; i < 6; i++) {
    if (await page.getByRole("heading", { name: "Proved" }).isVisible()) break;
    await page.getByRole("button", { name: "Read them" }).first().click();
    const begin = page.getByRole("button", { name: "Begin reading" });
    const all = page.getByRole("button", { name: "Read all that is left" });
    await expect(begin.or(all)).toBeVisible();
    if (await begin.isVisible()) await beginReading(page);
    await all.click();
    await page.getByRole("link", { name: "See the verdict" }).click({ timeout: 60_000 });
    await expect(page.getByRole("region", { name: "Verdict", exact: true })).toBeVisible();
  }
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();

  // Months later: a belt is changed, and a check tells whether it still holds
  await openBench(page);
  await page.getByRole("link", { name: "Scan offset" }).first().click();
  await expect(page.getByRole("heading", { name: "Scan offset: valid" })).toBeVisible();
  await page.getByRole("link", { name: /^Something happened to/ }).click();
  await pick(page.getByLabel("What", { exact: true }), "belt changed or tightened");
  await expect(page.getByText("After that the scan offset must be measured again.")).toBeVisible();
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByText("Measure the axis scale again")).toBeVisible();
  await page.getByRole("article").getByRole("link", { name: "Scan offset", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: out of date" })).toBeVisible();
  await expect(page.getByText("The belt was changed or tightened.")).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Begin check" }).click();
  await expect(page.getByLabel("Speeds")).toHaveValue("100 300 500");
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "See the verdict" }).click({ timeout: 60_000 });
  await expect(page.getByRole("heading", { name: "Still valid" })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Accept: still valid" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  await page.getByRole("link", { name: "Alder, scan offset" }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: valid" })).toBeVisible();
  await expect(page.getByText("9 more checks until their limits can be charted")).toBeVisible();

  // Limits: what cannot be read is told at its field; what is kept makes the check due
  await page.getByLabel("Check again after, days").fill("soon");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByText(/Type whole days/)).toBeVisible();
  await page.getByLabel("Check again after, days").fill("90");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByText("Kept. Trials from now on are judged by it.")).toBeVisible();

  // The chart of a machine with years of checks
  await page.goto("/machine/bracken/scan-offset");
  await expect(page.getByRole("img", { name: /As-found error.*Mean .* limits/ })).toBeVisible();
  await accessible(page);
  faults.none();
});

/** A tolerance just beyond the largest stagger left: the uncertainty reaches over it. */
async function tightest(page: Page): Promise<string> {
  const advice = (await page.getByRole("region", { name: "Verdict", exact: true }).textContent()) ?? "";
  const found = /The largest residual stagger is ([\d.]+) ± ([\d.]+) mm/.exec(advice);
  if (!found) throw new Error(`no stagger in “${advice}”`);
  return `${(Number(found[1]) + 0.85 * Number(found[2])).toFixed(4)} mm`;
}

test("gauges are declared and changed", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await page.getByRole("link", { name: "Gauges" }).click();
  await page.getByRole("button", { name: "Declare a gauge" }).click();
  await page.getByLabel("Name").fill("Long rule");
  await pick(page.getByLabel("Kind"), "steel rule");
  await pick(page.getByLabel("Reads in"), "in");
  await page.getByLabel("Resolution").fill("");
  await page.getByRole("button", { name: "Declare it" }).click();
  await expect(page.getByText(/Enter the smallest step it shows/)).toBeVisible();
  await page.getByLabel("Resolution").fill("1/64 in");
  await page.getByLabel("Limit of error").fill("");
  await page.getByLabel("Repeatability").fill("");
  await accessible(page);
  await page.getByRole("button", { name: "Declare it" }).click();
  const row = page.getByRole("row", { name: /Long rule/ });
  await expect(row.getByRole("cell", { name: "0.01563 in", exact: true })).toBeVisible();
  await expect(row.getByRole("cell", { name: "not known" })).toBeVisible();
  await row.getByRole("button", { name: "Change" }).click();
  await page.getByLabel("Repeatability").fill("0.01 in");
  await page.getByRole("button", { name: "Keep the change" }).click();
  await expect(row.getByRole("cell", { name: "0.01 in", exact: true })).toBeVisible();
  faults.none();
});
