/** The practice piece is seen, and measured by oneself with jaws that are set on it, by keys and by hand. */
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, watch } from "./watch";

test("jaws are set on the practice piece by keys and by dragging, and their reading is taken", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const look = page.waitForResponse((r) => r.url().includes("practice-look.png"));
  await page.getByRole("button", { name: "Measure it yourself" }).click();
  expect((await look).status()).toBe(200);
  const piece = page.getByRole("region", { name: "Practice piece, enlarged" });
  const shown = async () => Number.parseFloat((await piece.getByText(/^\d+\.\d\d mm$/).textContent()) ?? "");
  const begun = await shown();
  const [first, second] = [piece.getByRole("slider", { name: "Jaw 1" }), piece.getByRole("slider", { name: "Jaw 2" })];
  await first.focus();
  await page.keyboard.press("ArrowRight");
  expect(await shown()).toBeCloseTo(begun - 0.01, 6);
  await page.keyboard.press("Shift+ArrowRight");
  expect(await shown()).toBeCloseTo(begun - 0.11, 6);
  await second.focus();
  await page.keyboard.press("Shift+ArrowRight");
  expect(await shown()).toBeCloseTo(begun - 0.01, 6);
  await accessible(page);

  // Dragged by a quarter of the view, it moves by a quarter of what is seen
  await second.scrollIntoViewIfNeeded();
  const box = await piece.locator("svg").boundingBox();
  const line = await second.locator("line").last().boundingBox();
  if (!box || !line) throw new Error("no view");
  const before = await shown();
  const y = box.y + box.height / 2;
  await page.mouse.move(line.x + line.width / 2, y);
  await page.mouse.down();
  await page.mouse.move(line.x + line.width / 2 - box.width / 4, y, { steps: 4 });
  await page.mouse.up();
  const across = 2 * begun;
  expect(before - (await shown())).toBeGreaterThan(0.2 * across);
  expect(before - (await shown())).toBeLessThan(0.3 * across);

  // From nearer the jaws are still in sight; what they read goes into the field, and is taken like any reading
  await piece.getByRole("button", { name: "Closer" }).click();
  await expect(piece.locator("image")).toHaveAttribute("href", new RegExp(`across=${across / 2}$`));
  const reading = (await shown()).toFixed(2);
  await piece.getByRole("button", { name: "Read the jaws" }).click();
  await expect(page.locator("#reading")).toHaveValue(`${reading} mm`);
  faults.none();
});
