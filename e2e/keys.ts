/** A person with a keyboard alone. */
import { expect, type Locator, type Page } from "@playwright/test";

/** Goes on with Tab, as a person does, until this has the focus. */
export async function tabTo(page: Page, target: Locator, most = 80): Promise<void> {
  await expect(target).toBeVisible();
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`no way by Tab to ${target}`);
}

export async function press(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press("Enter");
}

/** Goes to a procedure of a machine by the palette and begins a trial there. */
export async function beginByKeys(page: Page, words: string, title: string): Promise<void> {
  await page.goto("/");
  await page.keyboard.press("Control+k");
  await page.keyboard.type(words);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: new RegExp(`^${title}: `) })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Begin trial" }));
}

/** From the layout, or from the burn of a proof, to the reading of the burned coupon. */
export async function burnByKeys(page: Page): Promise<void> {
  await expect(page.getByText("Before this burn")).toBeVisible();
  await press(page, page.getByRole("button", { name: "Burn on the practice machine" }));
  await expect(page.getByRole("heading", { name: "What do you read with?" })).toBeVisible();
}

/** Jaws checked, one reading with the keys of the field, the rest as the practice hand takes them. */
export async function readByKeys(page: Page): Promise<void> {
  const zero = page.getByLabel(/^Closed jaws read/);
  await tabTo(page, zero);
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await expect(page.locator("#reading")).toBeFocused();
  await page.keyboard.press("Alt+m");
  await expect(page.locator("#reading")).not.toHaveValue("");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^site (1 of \d+ · reading 2|2 of \d+ · reading 1) of \d+$/)).toBeVisible();
  await press(page, page.getByRole("button", { name: "Read all that is left" }));
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
}
