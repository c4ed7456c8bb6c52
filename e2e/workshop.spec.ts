/** What a workshop writes down beside its trials: optics, changes, holders, what must be put back, machines that go. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { pick } from "./pick";
import { accessible, messageAccessible, openBench, watch } from "./watch";

async function addMachine(page: Page, name: string): Promise<void> {
  await page.goto("/machine/new");
  const form = page.getByRole("form", { name: "New machine" });
  await form.getByLabel("Name", { exact: true }).fill(name);
  await pick(form.getByLabel("Kind"), "diode gantry");
  await form.getByLabel("Working area, X").fill("300");
  await form.getByLabel("Working area, Y").fill("300");
  await form.getByRole("button", { name: /^More data/ }).click();
  await form.getByLabel("Top speed").fill("300");
  await pick(form.getByLabel("Home corner"), "back right");
  await pick(form.getByLabel("X counts up", { exact: true }), "to the left");
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(page.getByRole("heading", { name, level: 1 })).toBeVisible();
}

/** A moment as the field for day and time takes it. */
function fieldText(at: Date): string {
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

test("the first visit: every setting is read back and written down, also as not known", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await addMachine(page, "Elm");
  await openConcern(page, "Machine data");
  await expect(page.getByRole("img", { name: /home back right; X counts up to the left/ })).toBeVisible();
  const settings = page.getByRole("region", { name: "Settings" });
  await expect(settings.getByText("5 values are not written down.", { exact: false })).toBeVisible();

  const height = page.getByRole("form", { name: /^What it holds: Focus height, Controller of Elm$/ });
  await height.getByRole("button", { name: "Not known" }).click();
  await expect(settings.getByText("4 values are not written down.", { exact: false })).toBeVisible();
  const across = page.getByRole("form", { name: /^What it holds: Axis scale X, Controller of Elm$/ });
  await across.getByLabel("Axis scale X, µm").fill("6.25");
  await across.getByRole("button", { name: "That is what it holds" }).click();
  await expect(settings.getByText("6.25 µm").first()).toBeVisible();
  const away = page.getByRole("form", { name: /^What it holds: Axis scale Y, Controller of Elm$/ });
  await away.getByRole("button", { name: "Not known" }).click();
  const controller = page.getByRole("form", { name: /^What it holds: Scan offset.*, Controller of Elm$/ });
  await controller.getByLabel("Row 1, at").fill("100");
  await controller.getByLabel("Row 1, value").fill("0..1");
  await controller.getByRole("button", { name: "That is what it holds" }).click();
  await expect(controller.getByRole("alert")).toBeVisible();
  await controller.getByLabel("Row 1, value").fill("0.1");
  await controller.getByLabel("Row 2, at").fill("300 mm/s");
  // Nothing typed is lost by a reload
  await page.reload();
  await expect(controller.getByLabel("Row 2, at")).toHaveValue("300 mm/s");
  await controller.getByLabel("Row 2, value").fill("-0.02");
  await accessible(page);
  await controller.getByRole("button", { name: "That is what it holds" }).click();
  await expect(settings.getByText("100: 0.1 · 300: −0.02 mm").first()).toBeVisible();
  await expect(settings.getByText("One value is not written down.", { exact: false })).toBeVisible();
  const own = page.getByRole("form", { name: /Ustrina's own G-code$/ });
  await own.getByRole("button", { name: "Not known" }).click();
  await expect(settings.getByText("not known", { exact: true })).toHaveCount(3);
  await expect(settings.getByText(/not written down/)).toHaveCount(0);
  faults.none();
});

test("an optic is swapped in one dated action, is on one machine at a time, and never in the future", async ({
  page,
}) => {
  const faults = watch(page);
  await openBench(page);
  await addMachine(page, "Fir");
  const optic = await openConcern(page, "Optic");
  await optic.getByRole("button", { name: "Add an optic" }).click();
  const part = page.getByRole("form", { name: "New optic" });
  await part.getByLabel("Name").fill("50.8");
  await part.getByRole("button", { name: "Add it" }).click();
  await expect(part.getByRole("alert")).toHaveText(/Another lens or rotary has this name/);
  await part.getByLabel("Name").fill("38.1");
  await part.getByLabel("Focal length").fill("1.5 in");
  await part.getByRole("button", { name: "Add it" }).click();
  await optic.getByRole("button", { name: "Fit an optic" }).click();
  const swap = page.getByRole("form", { name: "Swap the optic" });
  await pick(swap.getByLabel("Now fitted"), "50.8 (fitted to Alder)");
  await swap.getByRole("button", { name: "It is swapped" }).click();
  await expect(swap.getByRole("alert")).toHaveText(/fitted to Alder: it cannot be on two machines/);
  await pick(swap.getByLabel("Now fitted"), "38.1");
  await swap.getByLabel("Since").fill(fieldText(new Date(Date.now() + 86_400_000)));
  await swap.getByRole("button", { name: "It is swapped" }).click();
  await expect(swap.getByRole("alert")).toHaveText(/in the future/);
  await swap.getByLabel("Since").fill(fieldText(new Date(Date.now() - 3 * 86_400_000)));
  await swap.getByRole("button", { name: "It is swapped" }).click();
  await expect(optic.getByText("fitted 3 days ago")).toBeVisible();
  await expect(optic.getByText("38.1 f 38.1 mm").first()).toBeVisible();

  const rotary = await openConcern(page, "Rotary");
  await rotary.getByRole("button", { name: "Add a rotary" }).click();
  const rollers = page.getByRole("form", { name: "New rotary" });
  await rollers.getByLabel("Name").fill("Rollers");
  await rollers.getByLabel("Roller diameter").fill("25 mm");
  await rollers.getByRole("button", { name: "Add it" }).click();
  await rotary.getByRole("button", { name: "Fit a rotary" }).click();
  await pick(page.getByRole("form", { name: "Swap the rotary" }).getByLabel("Now fitted"), "Rollers");
  await page.getByRole("button", { name: "It is swapped" }).click();
  await expect(rotary.getByText("roller, Ø 25 mm").first()).toBeVisible();
  await accessible(page);
  faults.none();
});

test("what happened says what it makes stale, on the machine, the bench and the trial, and is taken back", async ({
  page,
}) => {
  const faults = watch(page);
  await openBench(page);
  await page.goto("/machine/bracken");
  const happened = await openConcern(page, "Changes");
  await pick(happened.getByLabel("What", { exact: true }), "bed moved");
  await expect(happened.getByText("After that the focus height must be measured again.")).toBeVisible();
  await pick(happened.getByLabel("What", { exact: true }), "belt changed or tightened");
  await expect(happened.getByText("After that the scan offset must be measured again.")).toBeVisible();
  await happened.getByLabel("When").fill(fieldText(new Date(Date.now() + 7_200_000)));
  await happened.getByRole("button", { name: "Note it" }).click();
  await expect(happened.getByRole("alert")).toHaveText(/in the future/);
  await happened.getByLabel("When").fill("");
  await happened.getByLabel("Note", { exact: true }).fill("a tooth was worn");
  await happened.getByRole("button", { name: "Note it" }).click();
  await expect(happened.getByText("a tooth was worn")).toBeVisible();
  await expect(page.getByText("the belt was changed or tightened").first()).toBeVisible();
  await page.getByRole("article").getByRole("link", { name: "Scan offset", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Scan offset: out of date" })).toBeVisible();
  await page.getByRole("region", { name: "Checks" }).getByRole("link").first().click();
  await expect(page.getByText("This result is out of date.")).toBeVisible();
  await accessible(page);
  await page.goto("/");
  const card = page.getByRole("article", { name: "Bracken" });
  await expect(card.getByText("Measure the axis scale again")).toBeVisible();
  await page.goto("/machine/bracken");
  await happened.getByRole("button", { name: "Take back belt" }).click();
  await expect(page.getByText("every procedure is valid")).toBeVisible();

  // A gauge found wrong takes with it what was proved with it
  await page.goto("/gauges");
  await page.getByRole("button", { name: "Found wrong Calipers", exact: true }).click();
  await page.getByLabel("What is wrong").fill("reads 0.08 mm short");
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByText(/found wrong .*: reads 0\.08 mm short/)).toBeVisible();
  await page.goto("/machine/bracken/scan-offset");
  await expect(page.getByText("A gauge that it was read with was found wrong.")).toBeVisible();
  await page.goto("/gauges");
  await page.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByText(/found wrong .*: reads/)).toBeHidden();
  faults.none();
});

test("what must be put back stays on the bench until it is, and a second program is kept in step", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await page.goto("/machine/alder");
  const card = await openConcern(page, "To put back");
  await card.getByLabel(/^Set for a while/).fill("Travel limits off");
  await page.reload();
  await expect(card.getByLabel(/^Set for a while/)).toHaveValue("Travel limits off");
  await card.getByRole("button", { name: "Remember it" }).click();
  await page.goto("/");
  await page.getByRole("button", { name: "Put back Travel limits off" }).click();
  await expect(page.getByRole("heading", { name: "To put back" })).toBeHidden();
  await page.getByRole("button", { name: "Not after all" }).click();
  await page.getByRole("button", { name: "Put back Travel limits off" }).click();
  await expect(page.getByRole("heading", { name: "To put back" })).toBeHidden();

  await page.goto("/machine/alder");
  await page.getByText(/^Where they are kept/).click();
  await page.getByLabel("Another place that keeps a copy").fill("Laptop");
  await page.getByRole("button", { name: "Add it", exact: true }).click();
  await page.getByRole("button", { name: "Remove Laptop" }).click();
  await expect(page.getByText("Laptop is gone.")).toBeVisible();
  faults.none();
});

test("a machine with a history is archived instead of deleted, and comes back; one without is deleted", async ({
  page,
}) => {
  const faults = watch(page);
  await openBench(page);
  await page.goto("/machine/bracken");
  await page.getByRole("button", { name: "Take Bracken off the bench" }).click();
  await page.getByRole("button", { name: "Delete it" }).click();
  await expect(
    page.getByRole("alert").filter({ hasText: /deleting it would take them along. Archive it/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Archive it" }).click();
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Bracken" })).toBeHidden();
  await messageAccessible(page);
  await page.getByRole("link", { name: "Bracken" }).click();
  const archived = page.getByRole("region", { name: "Archived" });
  await expect(archived.getByText("Bracken is archived.")).toBeVisible();
  await accessible(page);
  await archived.getByRole("button", { name: "Bring it back onto the bench" }).click();
  await expect(archived).toBeHidden();
  // Its optic was set free
  await (await openConcern(page, "Optic")).getByRole("button", { name: "Fit an optic" }).click();
  await pick(page.getByLabel("Now fitted"), "fixed, 45 mm");
  await page.getByRole("button", { name: "It is swapped" }).click();
  await expect(page.getByText(/^fitted just now/)).toBeVisible();

  await addMachine(page, "Mistake");
  await page.getByRole("button", { name: "Take Mistake off the bench" }).click();
  await page.getByRole("button", { name: "Delete it" }).click();
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await expect(page.getByText("Mistake", { exact: true })).toBeHidden();
  faults.none();
});
