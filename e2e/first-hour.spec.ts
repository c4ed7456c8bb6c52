/** The first hour: from an empty bench to a proved trial, counted in fields, presses and words. */
import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./bench";
import { accessible, watch } from "./watch";

test.use({ bench: "empty" });

class FirstHour {
  fields = 0;
  presses = 0;
  words = 0;

  constructor(private readonly page: Page) {}

  async type(field: Locator, text: string): Promise<void> {
    await field.fill(text);
    this.fields++;
  }

  async press(control: Locator): Promise<void> {
    await control.click({ timeout: 60_000 });
    this.presses++;
  }

  /** Counts the visible words of the page. */
  async read(): Promise<void> {
    // biome-ignore lint/performance/useDomNodeTextContent: what is folded is not read
    this.words += (await this.page.locator("main").innerText()).split(/\s+/).length;
  }
}

test("from an empty bench to a proved focus on a machine of which name and size are known", async ({ page }) => {
  const faults = watch(page);
  const hour = new FirstHour(page);
  const button = (name: string | RegExp) => page.getByRole("button", { name });
  await page.goto("/");
  await hour.read();
  await hour.press(page.getByRole("link", { name: "Add a machine of your own" }));
  const form = page.getByRole("form", { name: "New machine" });
  await expect(form).toBeVisible();
  await hour.read();
  await hour.type(form.getByLabel("Name", { exact: true }), "Hornbeam");
  await hour.type(form.getByLabel("Working area, X"), "900");
  await hour.type(form.getByLabel("Working area, Y"), "600");
  await hour.press(form.getByRole("button", { name: "Add it to the bench" }));

  // The plan names the first procedure, its reason, time, stock and gauge
  const plan = page.getByRole("region", { name: "Plan of the first day" });
  await expect(plan.getByText(/^0 of 4 valid · about \d.* of work$/)).toBeVisible();
  const lines = plan.getByRole("listitem");
  // The last of them is made up for tests
  await expect(lines).toHaveCount(4);
  await expect(lines.nth(0)).toContainText(/Focus height.*not done.*\d+ min.*no gauge, \d+ × \d+ mm/s);
  await expect(lines.nth(1)).toContainText(/Axis scale.*Do this before scan offset\..*Calipers/s);
  await accessible(page);
  await hour.read();
  await hour.press(button("Begin trial").first());
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await hour.read();
  await hour.press(page.getByRole("link", { name: "To the burn" }));
  await burnAndRead(page, hour);
  await hour.press(page.getByRole("link", { name: "Correct", exact: true }).last());
  await expect(button("It is not known").or(button("Yes, I read that back")).first()).toBeVisible();
  await hour.read();
  await hour.press(button("It is not known").or(button("Yes, I read that back")).first());
  await hour.press(page.getByRole("button", { name: "Record", exact: true }).first());
  await hour.press(page.getByLabel("I read it back from there"));
  await hour.press(button("Record as entered"));
  await hour.press(button("Burn the proof"));
  await burnAndRead(page, hour);
  await hour.press(page.getByRole("link", { name: "See the verdict" }));
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await hour.read();
  await hour.press(button("Accept: proved"));
  await expect(page.getByText(/^Accepted/)).toBeVisible();

  // A proof ticks it, and the next thing to do is named
  await page.goto("/machine/hornbeam");
  await expect(plan.getByText(/^1 of 4 valid · about \d.* of work$/)).toBeVisible();
  await expect(page.getByText("Measure the axis scale")).toBeVisible();
  console.log(`first hour: ${hour.fields} fields, ${hour.presses} presses, ${hour.words} words`);
  expect(hour.fields).toBe(3);
  expect(hour.presses).toBeLessThanOrEqual(20);
  expect(hour.words).toBeLessThanOrEqual(2100);
  faults.none();
});

async function burnAndRead(page: Page, hour: FirstHour): Promise<void> {
  await expect(page.getByRole("button", { name: "Burn on the practice machine" })).toBeVisible();
  await hour.read();
  await hour.press(page.getByRole("button", { name: "Burn on the practice machine" }));
  await hour.press(page.getByRole("button", { name: "Begin reading" }));
  await hour.press(page.getByRole("button", { name: "Read all that is left" }));
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
  await hour.read();
}
