/** A person sets jaws on the picture of a practice coupon, with keys and by dragging. */
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, watch } from "./watch";

test("jaws are set on the practice coupon with keys and by dragging, and the reading goes into the field", async ({
  page,
}) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const look = page.waitForResponse((r) => r.url().includes("practice-look.png"));
  await page.getByRole("button", { name: "Set the jaws yourself" }).click();
  expect((await look).status()).toBe(200);
  const piece = page.getByRole("region", { name: "Practice coupon, enlarged" });
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

  // A drag by a quarter of the view moves the jaw by a quarter of its width
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

  // Zooming in keeps the jaws in view, and the button puts the reading into the field
  await piece.getByRole("button", { name: "Zoom in" }).click();
  await expect(piece.locator("image")).toHaveAttribute("href", new RegExp(`across=${across / 2}$`));
  const reading = (await shown()).toFixed(2);
  await piece.getByRole("button", { name: "Use this reading" }).click();
  await expect(page.locator("#reading")).toHaveValue(`${reading} mm`);
  faults.none();
});
