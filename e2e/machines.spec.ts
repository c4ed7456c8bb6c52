import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { pick } from "./pick";
import { accessible, beginReading, endTrial, openBench, watch } from "./watch";

test("a machine is added, calibrated on its practice machine, and changed later", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await page.getByRole("link", { name: "Add a machine" }).click();
  const form = page.getByRole("form", { name: "New machine" });
  await expect(form).toBeVisible();
  await accessible(page);

  // What is missing or taken is told at its field, and nothing typed is lost
  await form.getByLabel("Name", { exact: true }).fill("Bracken");
  await form.getByRole("button", { name: /^More data/ }).click();
  await form.getByLabel("Wavelength, nm").fill("blue");
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  // All faults at once
  for (const told of [/Another machine has this name/, /for example 900 mm/, /for example 600 mm/, /in nm, 150 to/])
    await expect(form.getByRole("alert").filter({ hasText: told })).toBeVisible();
  await form.getByLabel("Name", { exact: true }).fill("Damson");
  await pick(form.getByLabel("Kind"), "diode gantry");
  await form.getByLabel("Wavelength, nm").fill("");
  await expect(form.getByText(/Usual: 455/)).toBeVisible();
  await form.getByLabel("Working area, X").fill("400");
  await form.getByLabel("Working area, Y").fill("400 mm");
  await form.getByLabel("Top speed").fill("18000 mm/min");
  await form.getByLabel("Speeds of daily work").fill("60 100 mm/s");
  await pick(form.getByLabel("Its table is"), "interpolated");
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(page.getByRole("heading", { name: "Damson", level: 1 })).toBeVisible();
  await accessible(page);

  // Its first scan offset, whose controller nobody has read back yet
  await page.getByRole("article").getByRole("link", { name: "Scan offset", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: not done" })).toBeVisible();
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.getByRole("form", { name: "Layout" }).getByLabel("Speeds").fill("60 100 160");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^The table of the controller during the burn is not known/)).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: /hold during the burn/ }).first()).toBeVisible();
  await accessible(page);
  await endTrial(page);

  // A trial begun keeps what it began with; the machine is another from now on
  await page.goto("/machine/damson");
  await openConcern(page, "Machine data");
  const change = page.getByRole("form", { name: "Data of Damson" });
  await expect(change.getByLabel("Top speed")).toHaveValue("300 mm/s");
  await expect(change.getByLabel("Kind")).toBeDisabled();
  await change.getByLabel("Acceleration").fill("2500");
  await change.getByRole("button", { name: "Keep the change" }).click();
  await expect(page.getByText(/Kept\. Trials begun before/)).toBeVisible();
  await page.reload();
  await expect(change.getByLabel("Acceleration")).toHaveValue("2500");
  faults.none();
});

test("a machine with a name of any letters gives its files, and a layout waits for a server that is away", async ({
  page,
  context,
}) => {
  const faults = watch(page);
  await openBench(page);
  await page.getByRole("link", { name: "Add a machine" }).click();
  const form = page.getByRole("form", { name: "New machine" });
  await form.getByLabel("Name", { exact: true }).fill("Ölmühle №3");
  await form.getByLabel("Working area, X").fill("900");
  await form.getByLabel("Working area, Y").fill("600");
  // Top speed, wavelength and sense may be not known
  await form.getByRole("button", { name: /^More data/ }).click();
  await expect(form.getByLabel("A larger entry").first()).toHaveText("not known");
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(page.getByRole("heading", { name: "Ölmühle №3", level: 1 })).toBeVisible();
  await page.getByRole("article").getByRole("link", { name: "Scan offset", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: not done" })).toBeVisible();
  await page.getByRole("button", { name: "Begin trial" }).click();
  const layout = page.getByRole("form", { name: "Layout" });
  await expect(layout).toBeVisible();

  faults.none();

  // Away: the way on stays closed, what was typed stays, and it is kept by itself when the server is back
  await context.setOffline(true);
  await layout.getByLabel("Speeds").fill("100 300");
  await expect(page.getByText(/^Not on disk: the server does not answer/)).toBeVisible();
  await expect(page.getByRole("button", { name: "To the burn" })).toBeDisabled();
  await context.setOffline(false);
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.reload();
  await expect(layout.getByLabel("Speeds")).toHaveValue("100 300");
  await page.getByRole("link", { name: "To the burn" }).click();
  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name: "G-code", exact: true }).click();
  expect((await coming).suggestedFilename()).toBe("ölmühle №3-ö-1.nc");
  await endTrial(page);
});
