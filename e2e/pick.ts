/** One of some words, from a list that opens. */
import type { Locator } from "@playwright/test";

/** @param field the closed list */
export async function pick(field: Locator, label: string | RegExp): Promise<void> {
  await field.click();
  const exact = typeof label === "string";
  await field.page().getByRole("option", { name: label, exact }).click();
}
