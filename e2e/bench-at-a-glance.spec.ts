/** All machines are seen at once, what needs the person first; actions by pointer and by keyboard. */
import { expect, test } from "./bench";
import { tabTo } from "./keys";
import { accessible, openBench, watch } from "./watch";

test("three machines are seen at once on a desk, and in two screens on a phone", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  const height = () => page.evaluate(() => document.documentElement.scrollHeight);
  expect(await height()).toBeLessThanOrEqual(800);
  const cards = page.getByRole("article");
  await expect(cards).toHaveCount(3);
  const last = await cards.last().boundingBox();
  expect((last?.y ?? 0) + (last?.height ?? 0)).toBeLessThanOrEqual(800);
  // What needs the person comes first in its card.
  const cinder = page.getByRole("article", { name: "Cinder" });
  await expect(cinder.getByRole("listitem").first()).toContainText("out of date: the focus height was changed");
  await expect(cinder.getByText(/^Focus height$/)).toBeVisible();

  await page.setViewportSize({ width: 390, height: 844 });
  await expect(cinder.getByText(/^Focus height$/)).toBeHidden();
  await cinder.getByRole("button", { name: "2 valid" }).click();
  await expect(cinder.getByText(/^Focus height$/)).toBeVisible();
  const end = await cards.last().boundingBox();
  expect((end?.y ?? 0) + (end?.height ?? 0)).toBeLessThanOrEqual(2 * 844);
  await accessible(page);
  faults.none();
});

test("the twelve procedures of a machine fit beside one another", async ({ page }) => {
  await openBench(page);
  const alder = page.getByRole("article", { name: "Alder" });
  await alder.getByRole("button", { name: /^Only when there is a reason/ }).click();
  await expect(alder.getByRole("listitem")).toHaveCount(12);
  const lines = await alder.getByRole("listitem").all();
  const boxes = await Promise.all(lines.map((line) => line.boundingBox()));
  expect(new Set(boxes.map((box) => box?.x)).size).toBe(3);
  // Four lines a column, three machines, their gaps, and the head of the page make less than a screen.
  for (const box of boxes) expect(4 * 3 * (box?.height ?? 800) + 3 * 24 + 113).toBeLessThanOrEqual(800);
});

test("actions of a procedure are in its menu, by keys too", async ({ page }) => {
  const faults = watch(page);
  await openBench(page);
  const dots = page.getByRole("button", { name: "Actions for the axis scale of Alder" });
  await tabTo(page, dots);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitem")).toHaveText(["Begin a check", "Begin a new trial", "Open the page"]);
  await accessible(page);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("menuitem")).toHaveCount(0);
  await expect(dots).toBeFocused();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("form", { name: "Layout" })).toBeVisible();
  await expect(page.getByText(/check burn|To the burn/).first()).toBeVisible();
  faults.none();
});
