import type { Page } from "@playwright/test";
import sharp from "sharp";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, laidOut, watch } from "./watch";

test("scan offset on the CO2 gantry, read from a picture that is dropped", async ({ page }) => {
  const faults = watch(page);
  await laidOut(page, { Speeds: "200 400", "Row length": "20" });
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();

  // One site by hand, so far off that the picture contradicts it
  await page.getByRole("button", { name: "Begin reading" }).waitFor();
  await page.getByLabel(/^Closed jaws read/).fill("0");
  await page.getByRole("button", { name: "Begin reading" }).click();
  await expect(page.getByText("reading 1 of 3")).toBeVisible();
  await page.keyboard.type("0.37");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^site 2 of 6|reading 2 of 3/)).toBeVisible();
  const href = await page.getByRole("link", { name: "Scan of the practice piece" }).getAttribute("href");
  const scan = await (await page.request.get((href ?? "").replace("1200", "600"))).body();
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await accessible(page);

  // What is no picture is refused where it was dropped
  const drop = page.getByRole("region", { name: "A picture" });
  await drop.locator("input").setInputFiles({ name: "scan.png", mimeType: "image/png", buffer: Buffer.from("<svg/>") });
  await expect(drop.getByText(/take PNG, JPEG, TIFF or WebP/)).toBeVisible();
  faults.forget(/422/);
  const carried = await page.evaluateHandle((base64) => {
    const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    const data = new DataTransfer();
    data.items.add(new File([bytes], "coupon.png", { type: "image/png" }));
    return data;
  }, scan.toString("base64"));
  await drop.dispatchEvent("drop", { dataTransfer: carried });

  const shows = page.getByRole("region", { name: "What the picture shows" });
  await expect(shows.getByRole("button", { name: /400 mm\/s, right end/ })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/^600 dots per inch, as the file says/)).toBeVisible();
  await expect(shows.getByText(/By hand 0\.370 mm was read here/)).toBeVisible();

  // Marks of a site are moved by the keyboard, and put back
  const row = shows.getByRole("button", { name: /400 mm\/s, right end/ });
  const found = await row.textContent();
  await row.click();
  const ends = page.getByRole("slider", { name: /400 mm\/s, right end: ends, second set/ });
  await ends.focus();
  await ends.press("Shift+ArrowRight");
  await expect(shows.getByText("moved by hand")).toBeVisible();
  expect(await row.textContent()).not.toBe(found);
  await accessible(page);
  await shows.getByRole("button", { name: "Put back" }).click();
  await expect(row).toHaveText(found ?? "");

  // A scale that is wrong is named, and put right
  await page.getByRole("button", { name: "Change" }).click();
  await page.getByLabel("Dots per inch, X").fill("1200");
  await page.getByLabel("Y", { exact: true }).fill("1200");
  await page.getByRole("button", { name: "Go by these" }).click();
  await expect(page.getByText(/The scale is wrong\. On the coupon, 1 mm has 0\.(499|500) times/)).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole("button", { name: /^Go by its rows: (599|600)(\.\d)? dots/ }).click();
  await expect(page.getByText(/dots per inch, from the coupon; lengths to ± 0\.60? %/)).toBeVisible();
  await expect(row).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Change" }).click();
  await page.getByLabel("Dots per inch, X").fill("some");
  await page.getByRole("button", { name: "Go by these" }).click();
  await expect(page.getByText("Type dots per inch, for example 1200.")).toBeVisible();
  await page.getByLabel("Dots per inch, X").fill("600");
  await page.getByLabel("Y", { exact: true }).fill("");
  await page.getByRole("button", { name: "Go by these" }).click();
  await expect(row).toHaveText(found ?? "", { timeout: 60_000 });

  // Taken, on disk, and enough
  await page.getByRole("button", { name: "Take these readings" }).click();
  await expect(page.getByText("6 of 6 sites read.")).toBeVisible();
  await page.reload();
  await expect(page.getByText("6 of 6 sites read.")).toBeVisible();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByRole("cell", { name: /^0\.\d+$/ }).first()).toBeVisible();
  faults.none();
});

/** The scan of what was burned last, at 600 dots per inch, taken in on the picture screen. */
async function scanned(page: Page, change: (scan: Buffer) => Promise<Buffer> | Buffer = (scan) => scan): Promise<void> {
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  const href = await page.getByRole("link", { name: "Scan of the practice piece" }).getAttribute("href");
  const scan = await (await page.request.get((href ?? "").replace("1200", "600"))).body();
  await page.getByRole("link", { name: "Read from a picture" }).click();
  const file = { name: "scan.png", mimeType: "image/png", buffer: await change(scan) };
  await page.getByRole("region", { name: "A picture" }).locator("input").setInputFiles(file);
}

test("a picture without a scale, one place of it, reading that is stopped; the proof beside it", async ({ page }) => {
  const faults = watch(page);
  await laidOut(page, { Speeds: "200 400", "Row length": "20" });
  await scanned(page, (scan) => sharp(scan).withMetadata({ density: 72 }).png().toBuffer());
  await expect(page.getByText("No scale yet.")).toBeVisible();
  await accessible(page);

  // A scale that is nearly right is put right by the rows
  await page.getByLabel("Dots per inch, X").fill("618");
  await page.getByRole("button", { name: "Go by these" }).click();
  await expect(page.getByText(/Rows lie (2\.\d|3) % closer together than drawn/)).toBeVisible({ timeout: 60_000 });
  await page
    .getByRole("button", { name: /^Go by its rows/ })
    .first()
    .click();
  await expect(page.getByText(/^(599|600)(\.\d)? dots per inch, from the coupon/)).toBeVisible();
  const shows = page.getByRole("region", { name: "What the picture shows" });
  const row = shows.getByRole("button", { name: /400 mm\/s, right end/ });
  await expect(row).toBeVisible({ timeout: 60_000 });
  const number = async () => Number.parseFloat((await row.locator("b").textContent()) ?? "");
  const whole = await number();

  // Stopped, it waits until it is asked for again
  const brighter = page.getByLabel(/^Marks are brighter/);
  await brighter.check();
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Read it" })).toBeVisible();
  await brighter.uncheck();
  await expect(row).toBeVisible({ timeout: 60_000 });

  // The same place, from a box around it alone
  await row.click();
  await page.getByRole("button", { name: "It shows a part of the coupon only" }).click();
  const part = page.getByRole("region", { name: "Which part is which" });
  await pick(part.getByLabel("Place"), "400 mm/s, right end");
  await part.getByRole("button", { name: "Two corners around it" }).click();
  // The box includes the one-way rows of the block
  await page.getByRole("button", { name: "Further away" }).click();
  const view = page.getByRole("group", { name: /^scan\.png/ });
  const { width, height } = (await view.boundingBox()) ?? { width: 0, height: 0 };
  await view.click({ position: { x: 0.08 * width, y: 0.06 * height } });
  await view.click({ position: { x: 0.85 * width, y: 0.9 * height } });
  await part.getByRole("button", { name: "It shows this place" }).click();
  await expect(page.getByText("1 of 6 sites read in scan.png.")).toBeVisible({ timeout: 60_000 });
  await accessible(page);
  // Within the uncertainty of both readings
  expect(Math.abs((await number()) - whole)).toBeLessThan(0.004);
  await part.getByRole("button", { name: "It shows the whole coupon" }).click();
  await expect(page.getByText("6 of 6 sites read in scan.png.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Take these readings" }).click();
  await expect(page.getByText("6 of 6 sites read.")).toBeVisible();

  // The proof is held against it, place by place
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Yes, I read that back" }).click();
  await page.getByRole("button", { name: "Record" }).first().click();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await scanned(page);
  await row.click({ timeout: 60_000 });
  const both = page.getByRole("region", { name: "Before and after" });
  await expect(both.getByText(/^400 mm\/s, right end, 12 mm across/)).toBeVisible();
  const dark = () =>
    both.locator("canvas").evaluateAll((all) =>
      all.map((c) => {
        const canvas = c as HTMLCanvasElement;
        const { data } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
        return data.filter((value, i) => i % 4 === 0 && value < 120 && (data[i + 3] ?? 0) > 0).length;
      }),
    );
  // Rows show in both.
  await expect.poll(async () => Math.min(...(await dark())), { timeout: 30_000 }).toBeGreaterThan(500);
  await both.getByRole("button", { name: "Blink" }).click();
  const now = both.getByText("now", { exact: true });
  await expect(now).toBeHidden();
  await expect(now).toBeVisible();
  await both.getByRole("button", { name: "Side by side" }).click();
  await accessible(page);
  await page.getByRole("button", { name: "Take these readings" }).click();
  await page.getByRole("link", { name: "See the verdict" }).click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  faults.none();
});
