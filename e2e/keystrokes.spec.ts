/** How many keys a first trial takes, from the bench to the accepted proof. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { CountedKeys } from "./counted-keys";
import { beginReading, openBench, threeSpeeds, watch } from "./watch";

/** What the jaws show at this point: read beside the count, as a person reads the gauge. */
async function lookAtGauge(page: Page): Promise<{ text: string; words: string | null; chosen: string | null }> {
  const field = page.locator("#reading");
  const before = await chosenWords(page);
  await field.fill("");
  await page.keyboard.press("Alt+m");
  await expect(field).not.toHaveValue("");
  const text = await field.inputValue();
  const words = await chosenWords(page);
  await field.fill("");
  await field.focus();
  return { text, words, chosen: before };
}

async function chosenWords(page: Page): Promise<string | null> {
  const chosen = page.getByRole("region", { name: "Reading" }).getByRole("radio", { checked: true });
  return (await chosen.count()) > 0 ? await chosen.textContent() : null;
}

async function readAll(page: Page, keys: CountedKeys): Promise<void> {
  await expect(page.getByLabel(/^Closed jaws read/)).toBeFocused();
  await keys.press("0");
  await keys.press("Enter");
  await expect(page.locator("#reading")).toBeFocused();
  const card = page.getByRole("region", { name: "Reading" });
  const head = card.getByText(/^site \d+ of \d+ · reading \d+/);
  const done = page.getByText(/^(\d+) of \1 sites read\.$/);
  while (!(await done.isVisible())) {
    const before = (await head.textContent()) ?? "";
    const look = await lookAtGauge(page);
    // The words stay with the sign of the last reading.
    if (look.words !== null && look.words !== look.chosen && Number(look.text) !== 0) {
      const first = await card.getByRole("radio").first().textContent();
      await keys.press(look.words === first ? "Alt+1" : "Alt+2");
    }
    // As short as it is taken: without the zero before the point.
    await keys.read(look.text.replace(/^0(?=\.)/, ""));
    const asked = card.getByRole("alert");
    const moved = done.or(head.filter({ hasNotText: before })).first();
    await expect(asked.or(moved).first()).toBeVisible();
    // A reading that is asked about is taken by the same key again.
    if (!(await moved.isVisible())) await keys.press("Enter");
    await expect(moved).toBeVisible();
  }
}

test("a first trial takes at most 350 keys, 40 of them beside the readings, and three Tabs to any next step", async ({
  page,
}) => {
  const faults = watch(page);
  await openBench(page);
  await page.reload();
  const keys = new CountedKeys(page);
  await keys.reach(page.getByRole("article", { name: "Alder" }).getByRole("button", { name: "Begin trial" }));
  const layout = page.getByRole("form", { name: "Layout" });
  await expect(layout.getByRole("textbox").first()).toBeFocused();
  await expect(page.getByRole("link", { name: "To the burn" })).toBeVisible();
  await keys.press("Enter");
  await keys.reach(page.getByRole("button", { name: "Burn on the practice machine" }));
  await readAll(page, keys);
  await keys.reach(page.getByRole("link", { name: "Correct", exact: true }).last());
  await keys.reach(page.getByRole("button", { name: "Yes, I read that back" }));
  await keys.reach(page.getByRole("button", { name: "Record", exact: true }).first());
  await keys.reach(page.getByLabel("I read it back from there"), "Space");
  await keys.press("Enter");
  await expect(page.getByText(/^entered and read back/)).toBeVisible();
  await keys.reach(page.getByRole("button", { name: "Burn the proof" }));
  await keys.reach(page.getByRole("button", { name: "Burn on the practice machine" }));
  await readAll(page, keys);
  await keys.reach(page.getByRole("link", { name: "See the verdict" }));
  await keys.reach(page.getByRole("button", { name: "Accept: proved" }));
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  console.log(`keys: ${keys.readings} for readings, ${keys.beside} beside them, ${keys.tabs} of these Tab`);
  expect(keys.beside).toBeLessThanOrEqual(40);
  expect(keys.readings + keys.beside).toBeLessThanOrEqual(350);
  faults.none();
});

test("readings of one point are typed in one line", async ({ page }) => {
  const faults = watch(page);
  await threeSpeeds(page);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const field = page.locator("#reading");
  await field.fill("0.29 0.30 0.28");
  await page.keyboard.press("Enter");
  await expect(
    page.getByText("You entered 3 numbers. This point needs 2 more readings. Enter at most 2."),
  ).toBeVisible();
  await expect(field).toHaveValue("0.29 0.30 0.28");
  await field.fill("0.29 0.30");
  await page.keyboard.press("Enter");
  await expect(page.getByText("site 2 of 8 · reading 1 of 2")).toBeVisible();
  // One that is asked about stays in the field; what came before it is on disk.
  await field.fill("0.29 29");
  await page.keyboard.press("Enter");
  await expect(page.getByText("site 2 of 8 · reading 2 of 2")).toBeVisible();
  await expect(field).toHaveValue("29");
  await expect(page.getByRole("region", { name: "Reading" }).getByRole("alert")).toBeVisible();
  await page.reload();
  await expect(page.getByText("site 2 of 8 · reading 2 of 2")).toBeVisible();
  faults.none();
});
