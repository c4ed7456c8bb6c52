import type { Locator, Page } from "@playwright/test";

/** Opens a folded section of a page. */
export async function openConcern(page: Page, name: string): Promise<Locator> {
  const concern = page.getByRole("region", { name, exact: true });
  const title = concern.getByRole("button", { name: new RegExp(`^${name}`) }).first();
  if ((await title.getAttribute("aria-expanded")) === "false") await title.click();
  return concern;
}
