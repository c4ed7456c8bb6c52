/** A trial from another computer is the first thing on a new bench. */
import { readFileSync } from "node:fs";
import { expect, test } from "./bench";
import { accessible, beginReading, watch } from "./watch";

test.use({ bench: "empty" });

test("a trial is loaded on an empty bench, with its machine and its gauges", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/");
  await expect(page.getByRole("button", { name: "Open the demo bench" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Add a machine of your own" })).toHaveAttribute("href", "/machine/new");
  await accessible(page);
  await page.getByRole("button", { name: "Load a trial from another computer" }).click();
  await page.getByLabel("Trial file (JSON)").setInputFiles("examples/scan-offset/trial.json");
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

test("a new machine with few data, its first reading with usual gauges, and the demo bench beside it", async ({
  page,
}) => {
  const faults = watch(page);
  await page.goto("/machine/new");
  const form = page.getByRole("form", { name: "New machine" });
  await form.getByLabel("Name", { exact: true }).fill("Hornbeam");
  await form.getByLabel("Working area, X").fill("900");
  await form.getByLabel("Working area, Y").fill("600");
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(page.getByRole("heading", { name: "Hornbeam", level: 1 })).toBeVisible();
  await page.getByRole("article").getByRole("link", { name: "Scan offset", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: not done" })).toBeVisible();
  await page.getByRole("button", { name: "Begin trial" }).click();
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await expect(page.getByText(/Read the wavelength on the label of the laser/)).toBeVisible();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();

  // Usual gauges are listed, and another one is declared inside Read
  await expect(page.getByRole("radio", { name: /Calipers/ })).toBeVisible();
  await expect(page.getByRole("radio", { name: /Steel rule/ })).toBeVisible();
  await page.getByRole("button", { name: "Add a gauge" }).click();
  const gauge = page.getByRole("form", { name: /gauge/i });
  await accessible(page);
  await gauge.getByRole("button", { name: "Declare it" }).click();
  await expect(gauge.getByRole("alert").filter({ hasText: /Enter a name/ })).toBeVisible();
  await gauge.getByLabel("Name").fill("Digital calipers");
  await gauge.getByRole("button", { name: "Declare it" }).click();
  await expect(page.getByRole("radio", { name: /Digital calipers/ })).toBeChecked();
  await beginReading(page);
  await expect(page.getByRole("button", { name: "Read all that is left" })).toBeVisible();

  await page.goto("/");
  await page.getByRole("button", { name: "Open the demo bench beside these machines" }).click();
  await expect(page.getByRole("heading", { name: "Alder" })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("heading", { name: "Hornbeam" })).toBeVisible();
  await expect(page.getByRole("button", { name: /Open the demo bench/ })).toBeHidden();
  await accessible(page);
  faults.none();
});
