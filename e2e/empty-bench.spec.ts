/** A trial from another computer is the first thing on a new bench. */
import { readFileSync } from "node:fs";
import { expect, test } from "./bench";
import { accessible, watch } from "./watch";

test.use({ bench: "empty" });

test("a trial is loaded on an empty bench, with its machine and its gauges", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/");
  await expect(page.getByRole("button", { name: "Open the demo bench" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Add a machine of your own" })).toHaveAttribute("href", "/machine/new");
  await accessible(page);
  await page.getByLabel("Load a trial from another computer (JSON):").setInputFiles("examples/scan-offset/trial.json");
  await expect(page.getByRole("heading", { name: "What to enter" })).toBeVisible();
  await expect(page.getByText("coupon T-1")).toBeVisible();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(page.getByText("14 of 14 sites read.")).toBeVisible();

  // Taken away again, it is the trial that came
  await page.getByText("Spreadsheet and files").click();
  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name: "The whole trial (JSON)" }).click();
  const back = JSON.parse(readFileSync(await (await coming).path(), "utf8"));
  const sent = JSON.parse(readFileSync("examples/scan-offset/trial.json", "utf8"));
  expect(back.rounds[0].readings.map((r: { reading: string }) => r.reading)).toEqual(
    sent.rounds[0].readings.map((r: { reading: string }) => r.reading),
  );
  expect(back.machine).toEqual(sent.machine);

  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Alder" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Continue" }).first()).toBeVisible();
  await accessible(page);
  faults.none();
});
