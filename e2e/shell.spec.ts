/** What is there on every page: the palette, help on keys, theme and unit that stay, the way back, finding among many machines. */

import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { accessible, gate, openBench, watch } from "./watch";

test("the palette reaches machines, trials and settings; ? shows the keys of the screen", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  await page.keyboard.press("Control+k");
  const field = page.getByPlaceholder("Go to a machine, trial, setting…");
  await expect(field).toBeFocused();
  await page.keyboard.type("brack");
  await expect(page.getByRole("option", { name: /^Bracken/ }).first()).toHaveAttribute("aria-selected", "true");
  await accessible(page);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Bracken", level: 1 })).toBeVisible();

  await page.getByRole("button", { name: /^Go to/ }).click();
  await page.keyboard.type("b-1 proved");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/trial\/\d+\//);
  await page.keyboard.press("Control+k");
  await page.keyboard.type("offset alder over time");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/ledger\?machine=alder/);
  await page.goBack();
  await page.waitForURL(/\/trial\/\d+\//);
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Bracken", level: 1 })).toBeVisible();

  // Enter before the list is there is answered once it is; arrows choose another than the first
  const list = gate();
  await page.route("**/api/places", async (route) => {
    await list.opened;
    await route.continue();
  });
  await page.keyboard.press("Control+k");
  await page.keyboard.type("alder");
  await page.keyboard.press("Enter");
  list.open();
  await expect(page.getByRole("heading", { name: "Alder", level: 1 })).toBeVisible();
  // So is what is typed before the palette itself has come
  const palette = gate();
  await page.route("**/_next/static/**", async (route) => {
    const response = await route.fetch();
    if ((await response.text()).includes("cmdk-input")) await palette.opened;
    await route.fulfill({ response });
  });
  // The palette may be fetched before everything else is there, which would wait for it.
  await page.goto("/gauges", { waitUntil: "domcontentloaded" });
  await page.waitForFunction(() =>
    Object.keys(document.querySelector("header button") ?? {}).some((key) => key.startsWith("__reactProps")),
  );
  await page.keyboard.press("Control+k");
  await page.keyboard.type("alder");
  await expect(field).toBeHidden();
  palette.open();
  await expect(field).toHaveValue("alder");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Alder", level: 1 })).toBeVisible();
  await page.unroute("**/_next/static/**");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("bracken");
  await expect(page.getByRole("option", { name: /^Bracken/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("option", { name: /^Focus height on Bracken/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Bracken", level: 1 })).toBeVisible();

  await page.keyboard.press("Control+k");
  await page.keyboard.type("nothing is called this");
  await expect(page.getByText("Nothing is called that.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(field).toBeHidden();
  // In a field it is a character like any other
  await openConcern(page, "Changes");
  await page.getByLabel("Note", { exact: true }).first().press("?");
  await expect(page.getByLabel("Note", { exact: true }).first()).toHaveValue("?");
  await page.getByLabel("Note", { exact: true }).first().fill("");
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await accessible(page);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  faults.none();
});

test("theme and unit of lengths are remembered, and follow the system until they are chosen", async ({ page }) => {
  const faults = watch(page);
  const paper = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
  // The browser stores a cookie a moment after the page has set it.
  const stored = (name: string, value: string) =>
    expect.poll(async () => (await page.context().cookies()).find((c) => c.name === name)?.value).toBe(value);
  await openBench(page);
  const light = await paper();
  await page.emulateMedia({ colorScheme: "dark" });
  const dark = await paper();
  expect(dark).not.toBe(light);
  await page.getByRole("button", { name: "Light or dark" }).click();
  expect(await paper()).toBe(light);
  await stored("theme", "light");
  await page.reload();
  expect(await paper()).toBe(light);
  await page.emulateMedia({ colorScheme: "light" });
  await page.getByRole("button", { name: "Light or dark" }).click();
  expect(await paper()).toBe(dark);
  await stored("theme", "dark");
  await page.reload();
  expect(await paper()).toBe(dark);

  await expect(page.getByText(/± 0\.\d+ mm/).first()).toBeVisible();
  await page.getByRole("button", { name: /unit of lengths/ }).click();
  await expect(page.getByText(/± 0\.\d+ in/).first()).toBeVisible();
  await stored("unit", "in");
  await page.reload();
  await expect(page.getByText(/± 0\.\d+ in/).first()).toBeVisible();
  // Dates stand whole behind what is said of them
  await expect(page.locator("time").first()).toHaveAttribute("title", /^\d{1,2} \w+ \d{4}, \d\d:\d\d$/);
  faults.none();
});

test("the machine that is sought is found by name, kind and state, and the address keeps it", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  // Enough of them that finding is offered
  for (let i = 1; (await page.getByRole("heading", { level: 2 }).count()) < 9 && i < 7; i++) {
    await page.goto("/machine/new");
    const form = page.getByRole("form", { name: "New machine" });
    await form.getByLabel("Name", { exact: true }).fill(`Sorrel ${i}`);
    await form.getByLabel("Working area, X").fill("300");
    await form.getByLabel("Working area, Y").fill("300");
    await form.getByRole("button", { name: /^More data/ }).click();
    await form.getByLabel("Top speed").fill("300");
    await form.getByRole("button", { name: "Add it to the bench" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(`Sorrel ${i}`);
    await page.goto("/");
  }
  // Where several ways go on, the key that goes on means none of them
  const sent: string[] = [];
  page.on("request", (request) => request.method() === "POST" && sent.push(request.url()));
  await page.keyboard.press("Alt+Enter");
  await page.keyboard.press("/");
  const field = page.getByRole("searchbox", { name: "Find a machine" });
  await expect(field).toBeFocused();
  await page.keyboard.type("diode valid");
  await expect(page.getByRole("heading", { name: "Bracken" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Alder" })).toBeHidden();
  await page.reload();
  await expect(field).toHaveValue("diode valid");
  await expect(page.getByRole("heading", { name: "Alder" })).toBeHidden();
  await field.fill("no such thing");
  await expect(page.getByText("No machine fits that.")).toBeVisible();
  expect(sent).toEqual([]);
  await field.fill("");
  await page.getByRole("radio", { name: /^Never done/ }).check();
  await expect(page.getByRole("heading", { name: "Bracken" })).toBeHidden();
  await accessible(page);
  faults.none();
});
