/** An array of cells on Alder: laid out on its drawing, read from a scan, kept as marking settings, and proved. */
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import sharp from "sharp";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, beginReading, beginTrial, watch } from "./watch";

async function readFromScan(page: Page, folder: string, cells: number): Promise<void> {
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Scan of the practice piece" }).click(),
  ]);
  const path = join(folder, `scan-${cells}.png`);
  await file.saveAs(path);
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await page.waitForURL(/picture/);
  await page.locator("input[type=file]").first().setInputFiles(path);
  await expect(page.getByRole("heading", { name: `${cells} cells of ${cells}` })).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Take these scores" }).click();
  await page.waitForURL(/\/read/);
}

test("an array on Alder: laid out on its edges, read from a scan, kept for its stock", async ({ page }) => {
  const faults = watch(page);
  const folder = mkdtempSync(join(tmpdir(), "ustrina-array-"));
  await beginTrial(page, "Alder", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  // Seven values each way; the right edge is pushed in twice by its keys.
  await expect(page.getByRole("button", { name: /^Cell / })).toHaveCount(49);
  const right = page.getByRole("slider", { name: /Right edge/ });
  await right.press("ArrowLeft");
  await right.press("ArrowLeft");
  await expect(page.getByRole("button", { name: /^Cell / })).toHaveCount(35);
  await page.getByRole("button", { name: /^Cell A1/ }).focus();
  await expect(page.getByText(/^Cell A1: .* J\/mm²/)).toBeVisible();
  // A value that is there twice is refused, and comes back.
  const first = page.getByRole("textbox", { name: "Speed, value 1" });
  const was = await first.inputValue();
  const second = await page.getByRole("textbox", { name: "Speed, value 2" }).inputValue();
  await first.fill(second);
  await expect(page.getByText(/occurs twice\. Enter each value once/)).toBeVisible();
  await first.fill(was);
  // Another setting on an edge, and back.
  const across = page.getByLabel(/^From left to right/);
  await pick(across, "Row pitch");
  await expect(page.getByRole("textbox", { name: "Row pitch, value 5" })).toBeVisible();
  await pick(across, "Speed");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);

  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await readFromScan(page, folder, 35);
  await beginReading(page);
  await expect(page.getByRole("heading", { name: "Cells that are no good" })).toBeVisible();
  await page.getByRole("button", { name: "None", exact: true }).click();
  await expect(page.getByText("2 of 2 sites read.")).toBeVisible();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.waitForURL(/\/correct/);
  // The scan can be shown on the map: each cell is a part of one picture.
  const [sheet] = await Promise.all([
    page.waitForResponse(/\/rounds\/1\/cells$/),
    page.getByRole("button", { name: "Show the scan" }).click(),
  ]);
  expect(sheet.headers()["content-type"]).toBe("image/png");
  await expect(page.locator("figure image")).toHaveCount(35);
  await accessible(page);
  await page.getByRole("button", { name: "Hide the scan" }).click();
  await expect(page.locator("figure image")).toHaveCount(0);
  const response = page.getByRole("group", { name: /^Expected score/ });
  await expect(response).toBeVisible({ timeout: 30_000 });
  // The cell in hand is the chosen one; the arrow keys go on to its neighbours.
  const inHand = page.getByText(/^Cell \w+, chosen:/);
  await expect(inHand).toBeVisible();
  await response.locator('[tabindex="0"]').focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await expect(inHand).toHaveCount(0);
  await accessible(page);
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await page.getByRole("link", { name: "the card of its stock" }).click();
  await expect(page.getByRole("heading", { name: "Engrave dark on Alder" })).toBeVisible();
  await expect(page.getByText("Energy per area")).toBeVisible();
  await accessible(page);
  await expect(page.getByRole("img", { name: "The chosen cell of engrave dark" })).toBeVisible();
  // The table of all cards begins with the same settings.
  await page.getByRole("link", { name: "Similar marking settings" }).click();
  await expect(page.getByRole("row", { name: /Birch plywood 3 mm .* reference/ })).toBeVisible();
  await accessible(page);
  await page.goBack();
  // Another batch makes them due for a check.
  await page.getByLabel("A new batch came").fill("winter");
  await page.getByRole("button", { name: "Begin it" }).click();
  await expect(
    page
      .getByText("Told by batch spring.")
      .or(page.getByText(/check due/i))
      .first(),
  ).toBeVisible();
  // Marking settings are no cut: artwork for this stock goes by its kerf.
  await page.getByRole("link", { name: "Adapt a drawing" }).click();
  await page.waitForURL(/artwork/);
  await expect(page.getByText(/Empty: .* mm, as Bracken, batch .* told\./)).toBeVisible();
  faults.none();
});

test("an array on Bracken, compared two cells at a time with the arrow keys", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Bracken", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await page.getByRole("radio", { name: /two cells at a time/ }).check();
  await page.getByLabel("Comparisons", { exact: true }).fill("3");
  await expect(page.getByText(/Fewer comparisons do not show the best cell/)).toBeVisible();
  await page.getByLabel("Comparisons", { exact: true }).fill("8");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await beginReading(page);
  // The first comparison is with the cell in the middle.
  await expect(page.getByRole("button", { name: "D4 is better" })).toBeVisible();
  await page.keyboard.press("ArrowLeft");
  await expect(page.getByText(/reading 2 of 8/)).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByText(/reading 3 of 8/)).toBeVisible();
  await page.keyboard.press("Alt+z");
  await expect(page.getByText(/reading 2 of 8/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("1 of 1 sites read.")).toBeVisible({ timeout: 30_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByText(/chosen: .* won \d+ % of its comparisons/)).toBeVisible({ timeout: 30_000 });
  await accessible(page);
  faults.none();
});

test("pulse frequency by speed on Cinder: from its drawing to kept settings", async ({ page }) => {
  const faults = watch(page);
  const folder = mkdtempSync(join(tmpdir(), "ustrina-array-"));
  await beginTrial(page, "Cinder", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await pick(page.getByLabel(/^From front to back/), "Pulse frequency");
  await expect(page.getByRole("textbox", { name: "Pulse frequency, kHz, value 5" })).toBeVisible();
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  const cells = await page.getByRole("button", { name: /^Cell / }).count();
  expect(cells).toBeGreaterThan(20);
  await page.getByRole("button", { name: /^Cell A1/ }).focus();
  await expect(page.getByText(/^Cell A1: .* kHz.*pulses .* µm apart, overlap/)).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await readFromScan(page, folder, cells);
  await beginReading(page);
  await page.getByRole("button", { name: "None", exact: true }).click();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await page.getByRole("link", { name: "the card of its stock" }).click();
  await expect(page.getByRole("heading", { name: "Engrave dark on Cinder" })).toBeVisible();
  await expect(page.getByRole("rowheader", { name: "Pulse frequency" })).toBeVisible();
  faults.none();
});

test("cells to be cut through on Alder, yes or no: the fastest that passes, kept for its stock", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await page.getByRole("radio", { name: "Squares to be cut through" }).check();
  await expect(page.getByText("Darkness is read from filled cells.")).toBeVisible();
  await page.getByRole("radio", { name: /yes or no/ }).check();
  await expect(page.getByText("The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await beginReading(page);
  await expect(page.getByText("Which cells are cut through?")).toBeVisible();
  await page.getByRole("button", { name: "Look at the cells" }).click();
  await expect(page.getByText("Which cells are charred or otherwise no good?")).toBeVisible();
  await page.getByRole("button", { name: "None" }).click();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByRole("figure", { name: "Chance that a cell passes" })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/chosen: .* · cut through/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await expect(page.getByText("On the card of its stock")).toBeVisible();
  faults.none();
});

const LEAF =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">' +
  '<path d="M20 2C34 10 34 30 20 38C6 30 6 10 20 2Z"/><circle cx="20" cy="22" r="5"/></svg>';

test("a drawing of one's own in every cell on Bracken, chosen from a file and read from a scan", async ({ page }) => {
  const faults = watch(page);
  const folder = mkdtempSync(join(tmpdir(), "ustrina-array-"));
  await beginTrial(page, "Bracken", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await page.getByRole("radio", { name: "A drawing of your own, filled" }).check();
  const pick = page.getByLabel(/^Drawing.*SVG file/);
  await pick.setInputFiles({ name: "text.svg", mimeType: "image/svg+xml", buffer: Buffer.from("no drawing") });
  await expect(page.getByText(/^The file cannot be read\..* Choose another SVG file\.$/)).toBeVisible();
  await pick.setInputFiles({ name: "leaf.svg", mimeType: "image/svg+xml", buffer: Buffer.from(LEAF) });
  await expect(page.getByRole("img", { name: "The drawing of each cell" })).toBeVisible();
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);
  // The drawing is kept with the layout.
  await page.reload();
  await expect(page.getByRole("img", { name: "The drawing of each cell" })).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  await readFromScan(page, folder, 49);
  faults.none();
});

test("colours on Cinder: read from a scan beside two cards, the nearest one chosen, the palette kept", async ({
  page,
}) => {
  const faults = watch(page);
  const folder = mkdtempSync(join(tmpdir(), "ustrina-array-"));
  await beginTrial(page, "Cinder", "Test array");
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await page.getByRole("radio", { name: /^Colour, from a scan/ }).check();
  const wanted = page.getByLabel("Wanted colour", { exact: true });
  await wanted.fill("blue");
  await expect(page.getByText("Enter a colour, for example #3b5fa3.")).toBeVisible();
  await wanted.fill("#3a62a8");
  await expect(page.getByText("The layout is kept.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.waitForURL(/\/read/);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Scan of the practice piece" }).click(),
  ]);
  const path = join(folder, "colours.png");
  await file.saveAs(path);
  const { height = 0 } = await sharp(path).metadata();
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await page.waitForURL(/picture/);
  await page.locator("input[type=file]").first().setInputFiles(path);
  await expect(page.getByText("Select the middle of the white card.")).toBeVisible({ timeout: 60_000 });
  // The cards lie in front of the stock, 15 mm and 41 mm from the left, 12 mm from the lower edge of the picture.
  await page.getByText("Enter the place of a card").click();
  const place = page.getByLabel(/pixels from the left and from the top/);
  await place.fill(`177 ${height - 142}`);
  await page.getByRole("button", { name: "Place", exact: true }).click();
  await expect(page.getByText("Select the middle of the grey card.")).toBeVisible();
  // A place between two cells is no grey card, and the grey card is asked for again.
  await place.fill("600 400");
  await page.getByRole("button", { name: "Place", exact: true }).click();
  await expect(page.getByText(/The colours are not read\..*Select the middle of the grey card\./)).toBeVisible();
  await place.fill(`484 ${height - 142}`);
  await page.getByRole("button", { name: "Place", exact: true }).click();
  await expect(page.getByRole("heading", { name: "49 colours of 49" })).toBeVisible({ timeout: 60_000 });
  await accessible(page);
  await page.getByRole("button", { name: "Take these colours" }).click();
  await page.waitForURL(/\/read/);
  await beginReading(page);
  await page.getByRole("button", { name: "None", exact: true }).click();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.waitForURL(/\/correct/);
  await expect(page.getByRole("figure", { name: "Nearness to the wanted colour" })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("heading", { name: "Palette, 49 colours" })).toBeVisible();
  await page.getByLabel("Find the nearest to", { exact: true }).fill("#c8a24a");
  await expect(page.getByText(/mm\/s, .* · L\* .* · ΔE \d/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await expect(page.getByText("On the card of its stock")).toBeVisible();
  faults.none();
});
