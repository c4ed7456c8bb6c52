/** The field of Cinder by a grid of dots: scans read as pictures, a table proved; and bent drawings, proved by the same grid. */
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { test, expect as usually } from "./bench";
import { pick } from "./pick";
import { accessible, beginReading, beginTrial, watch } from "./watch";

/** A grid is solved on the page and on the server: beside other tests on two cores it takes longer than most. */
const expect = usually.configure({ timeout: 90_000 });

async function layOutGrid(page: Page, taken: string, dots: string): Promise<void> {
  await beginTrial(page, "Cinder", "Field");
  await page.getByRole("radio", { name: /A grid of dots/ }).check();
  await page.getByRole("radio", { name: taken }).check();
  await page.getByLabel("Dots along each side").fill(dots);
}

/** A scan of the practice coupon, as it would come from a scanner. */
async function scan(page: Page, which: 1 | 2, folder: string): Promise<string> {
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: `Practice scan ${which}` }).click(),
  ]);
  const path = join(folder, `scan-${which}.png`);
  await file.saveAs(path);
  return path;
}

async function takeScan(page: Page, file: string, count: RegExp): Promise<void> {
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await page.waitForURL(/picture/);
  await page.locator("input[type=file]").first().setInputFiles(file);
  await expect(page.getByRole("heading", { name: count })).toBeVisible({ timeout: 60_000 });
}

async function takeDots(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Take these dots" }).click();
  await page.waitForURL(/\/read/);
  await expect(page.getByText(/^225 dots taken from the picture\.$/).first()).toBeVisible();
}

/** The same grid once more, under the recorded correction. */
async function prove(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("7 of 7 sites read.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "See the verdict" }).click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();
}

test("a grid on Cinder: two scans, calipers, a table of nodes, proved by the same grid", async ({ page }) => {
  test.setTimeout(420_000);
  const faults = watch(page);
  const folder = mkdtempSync(join(tmpdir(), "grid-"));
  await layOutGrid(page, "A correction table in the controller", "12");
  // An even number is refused at its field; its neighbour is taken
  await expect(page.getByText("12 is even. Enter 11 or 13.")).toBeVisible();
  await page.getByLabel("Dots along each side").fill("15");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await expect(page.getByRole("heading", { name: "Distance along X" })).toBeVisible();
  const files = [await scan(page, 1, folder), await scan(page, 2, folder)] as const;

  // Nonsense is refused, and the first scan is read: a dot left out comes back
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await page.waitForURL(/picture/);
  const nonsense = { name: "nonsense.png", mimeType: "image/png", buffer: Buffer.from("no picture") };
  await page.locator("input[type=file]").first().setInputFiles(nonsense);
  await expect(page.getByText(/take PNG, JPEG, TIFF or WebP/)).toBeVisible();
  faults.forget(/422/);
  await page.locator("input[type=file]").first().setInputFiles(files[0]);
  await expect(page.getByRole("heading", { name: "225 dots of 225" })).toBeVisible({ timeout: 60_000 });
  await accessible(page);
  const first = page.getByRole("button", { name: /^Column/ }).first();
  await first.click();
  await page.getByRole("button", { name: "Leave this dot out" }).click();
  await expect(page.getByText(/224 dots, dots in the first scan/)).toBeVisible();
  await page.getByRole("button", { name: "Use this dot" }).click();
  // Moved by the keyboard, and as it was again
  await page.getByRole("button", { name: /move with the arrow keys/ }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByText("· moved")).toBeVisible();
  await page.getByRole("button", { name: "Undo all changes" }).click();
  await expect(page.getByText("· moved")).toHaveCount(0);
  await expect(page.getByText(/225 dots, dots in the first scan/)).toBeVisible();
  await takeDots(page);
  await takeScan(page, files[1], /225 dots of 225/);
  await expect(page.getByLabel("This picture shows")).toHaveText("Dots in the second scan");
  await takeDots(page);

  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("7 of 7 sites read.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "No table was loaded" }).click();
  const card = page.getByRole("region", { name: "What to enter" });
  await expect(card).toContainText("made from 1 burn");
  await accessible(page);
  // The file in another order and unit, as the form says
  await pick(page.getByRole("combobox", { name: "Order of the nodes" }), "From the back left, along X first");
  await page.getByLabel("Counts per mm (empty for mm)").fill("none");
  await page.getByRole("form", { name: "Files of the table" }).getByRole("button", { name: "Work it out" }).click();
  await expect(page.getByText(/Counts per mm: /)).toBeVisible();
  await page.getByLabel("Counts per mm (empty for mm)").fill("500");
  await page.getByRole("form", { name: "Files of the table" }).getByRole("button", { name: "Work it out" }).click();
  await expect(page.getByText(/in counts, 500 per mm/)).toBeVisible();
  const [csv] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "CSV" }).click()]);
  const lines = readFileSync(await csv.path(), "utf8")
    .trim()
    .split("\r\n");
  expect(lines).toHaveLength(65 * 65 + 1);
  expect(lines[0]).toContain("500 counts per mm");
  expect(lines[1]).toMatch(/^-\d+(\.\d+)?,\d/);

  await page.getByRole("button", { name: "Record", exact: true }).first().click();
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await prove(page);

  // With the table loaded, drawings are not bent as well
  await page.goto("/machine/cinder/bent-drawings");
  await expect(page.getByText("A correction table is loaded in the controller.")).toBeVisible();
  faults.none();
});

test("a grid on Cinder: bent drawings, proved, and a drawing with a text bent for its lens", async ({ page }) => {
  test.setTimeout(420_000);
  const faults = watch(page);
  await layOutGrid(page, "Bent artwork", "11");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText("7 of 7 sites read.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "The drawing was not bent" }).click();
  await page.getByRole("button", { name: "Record", exact: true }).first().click();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await prove(page);

  await page.goto("/machine/cinder/bent-drawings");
  await accessible(page);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">
<g id="frame"><rect x="2" y="2" width="116" height="56"/></g><text x="10" y="30" font-size="8">Salix</text></svg>`;
  await page
    .locator("input[type=file]")
    .first()
    .setInputFiles({
      name: "tag.svg",
      mimeType: "image/svg+xml",
      buffer: Buffer.from(svg),
    });
  await expect(page.getByText(/mm of lines lie outside the measured field/)).toBeVisible();
  await expect(page.getByText(/frame: \d/)).toBeVisible();
  await expect(page.getByText("1 text is moved and turned, not bent.")).toBeVisible();
  await accessible(page);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Download SVG" }).click(),
  ]);
  const bent = readFileSync(await file.path(), "utf8");
  expect(file.suggestedFilename()).toBe("tag-bent.svg");
  expect(bent).toContain('<g id="frame">');
  expect(bent).toContain("Salix");
  faults.none();
});
