/** Takes the pictures in docs/screenshots from the demo bench. Needs a build. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "../e2e/chromium";
import { startServer } from "./bench/server";

const PORT = 4882;
const ORIGIN = `http://127.0.0.1:${PORT}`;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

void main();

async function main(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-shots-"));
  const server = await startServer(path.join(folder, "bench.sqlite"), PORT);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: DESK });
    await loop(page);
  } finally {
    await browser.close();
    server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A scan of the practice piece, dropped and read; the readings themselves are taken by hand after that. */
async function fromPicture(page: Page): Promise<void> {
  const scan = await scanOf(page);
  await page.locator("input[type=file]").setInputFiles({ name: "A-14.png", mimeType: "image/png", buffer: scan });
  await page.getByRole("button", { name: /500 mm\/s, right end/ }).click({ timeout: 60_000 });
  await page.waitForTimeout(800);
  await shot(page, "picture");
  await page.getByRole("link", { name: "Back to reading" }).click();
}

/** The scan of a burned piece; ends on the page that reads it. */
async function scanOf(page: Page): Promise<Buffer> {
  const href = await page.getByRole("link", { name: "Scan of the practice piece" }).getAttribute("href");
  const scan = await (await page.request.get(`${ORIGIN}${href}`)).body();
  await page.getByRole("link", { name: "Read from a picture" }).click();
  await page.getByText("Drop a scan of the coupon here").waitFor();
  return scan;
}

async function loop(page: Page): Promise<void> {
  await page.goto(ORIGIN);
  await page.getByRole("button", { name: "Open the demo bench" }).click();
  await page.getByRole("button", { name: "Begin trial" }).first().click();
  await page.getByRole("form", { name: "Layout" }).waitFor();
  await shot(page, "lay-out");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByText("Before this burn").waitFor();
  await shot(page, "burn");
  await page.getByRole("link", { name: "Run sheet" }).click();
  await page.getByRole("img", { name: /^Page 2/ }).scrollIntoViewIfNeeded();
  await shot(page, "run-sheet");
  await page.getByRole("link", { name: "Back to Burn" }).click();
  await page.getByText("Before this burn").waitFor();
  await burn(page);
  for (let i = 0; i < 27; i++) await takeOne(page);
  await page.keyboard.press("Alt+m");
  await page.waitForFunction(() => (document.querySelector("#reading") as HTMLInputElement)?.value !== "");
  await page.waitForTimeout(600);
  await shot(page, "read");
  await phone(page, "phone-read");
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByText("14 of 14 sites read.").waitFor({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Yes, I read that back" }).click();
  await page.getByRole("button", { name: "Record" }).first().click();
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await page.getByText("1 holder still open").waitFor();
  await page.waitForTimeout(800);
  for (const column of await page.locator("main > div").all()) await column.evaluate((c) => c.scrollTo(0, 0));
  await shot(page, "correct");
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burn(page);
  await fromPicture(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByRole("link", { name: "See the verdict" }).click({ timeout: 60_000 });
  await page.getByRole("button", { name: "Accept: proved" }).waitFor();
  await shot(page, "prove");
  await page.goto(ORIGIN);
  await page.getByRole("heading", { name: "Bench" }).waitFor();
  await shot(page, "bench");
  await page.goto(`${ORIGIN}/machine/alder`);
  await shot(page, "machine");
  await page.goto(`${ORIGIN}/machine/bracken/scan-offset`);
  await page.getByRole("img", { name: /As-found error/ }).waitFor();
  await page.waitForTimeout(800);
  await shot(page, "checks");
  await page.goto(`${ORIGIN}/ledger?machine=bracken&setting=scan%20offset`);
  await page.getByRole("img", { name: /over time/ }).waitFor();
  await page.waitForTimeout(800);
  await shot(page, "ledger");
  await page.goto(`${ORIGIN}/practice`);
  await page.getByRole("button", { name: "Show the truth" }).first().click();
  await page.getByText("beam comes on late by").waitFor();
  await shot(page, "practice");
  await array(page);
  await page.getByText("Draw the slot").waitFor();
  await shot(page, "stock");
  await page.getByRole("link", { name: "Adapt a drawing" }).click();
  await page.getByLabel("A drawing (SVG or DXF):").setInputFiles("examples/kerf/holder.svg");
  await page.getByLabel("Make slots fit this batch").check();
  await page.getByText("ends of slots were found").waitFor();
  await shot(page, "artwork");
  await rotary(page);
  await field(page);
}

/** Two settings varied on Alder, read from a scan, and kept; ends on the card of the stock. */
async function array(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/machine/alder/test-array`);
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.getByRole("radio", { name: /Birch plywood/ }).check();
  await page.getByText("Everything fits. The layout is kept.").waitFor();
  await page.getByRole("button", { name: /^Cell D4/ }).focus();
  await shot(page, "array");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  const scan = await scanOf(page);
  await page.locator("input[type=file]").setInputFiles({ name: "scan.png", mimeType: "image/png", buffer: scan });
  await page.getByRole("button", { name: "Take these scores" }).click({ timeout: 60_000 });
  await page.getByRole("button", { name: "Begin reading" }).click();
  await page.getByRole("button", { name: "None", exact: true }).click();
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await page.getByRole("link", { name: "the card of its stock" }).waitFor();
  await page.waitForTimeout(5000);
  await shot(page, "response");
  await page.getByRole("link", { name: "the card of its stock" }).click();
}

/** Another head behind the name of Cinder: a grid of dots read from two scans, the field as it is and as it will be with a table. */
async function field(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/practice`);
  const cinder = page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: "Cinder" }) });
  await cinder.getByRole("button", { name: "Put another machine behind this name" }).click();
  await cinder.getByRole("button", { name: "Exchange it" }).click();
  await cinder.getByRole("button", { name: "Put another machine behind this name" }).waitFor();
  await page.goto(`${ORIGIN}/machine/cinder/field`);
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.getByRole("radio", { name: /A grid of dots/ }).check();
  await page.getByRole("radio", { name: "A correction table in the controller" }).check();
  await page.getByText("Everything fits. The layout is kept.").waitFor();
  await page.getByRole("link", { name: "To the burn" }).click();
  await burn(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await page.getByText("7 of 7 sites read.").waitFor({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "No table was loaded" }).click();
  await page.getByRole("region", { name: "What to enter" }).waitFor();
  await page.waitForTimeout(800);
  for (const column of await page.locator("main > div").all()) await column.evaluate((c) => c.scrollTo(0, 0));
  await shot(page, "field");
}

/** Bracken's rollers: a line once around, as its gap is read; then artwork for a taper on them. */
async function rotary(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/machine/bracken/rotary`);
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.getByText("Everything fits. The layout is kept.").waitFor();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.getByRole("button", { name: "Begin reading" }).waitFor();
  for (const jaws of await page.getByLabel(/jaws read/i).all()) await jaws.fill("0");
  await page.getByRole("button", { name: "Begin reading" }).click();
  await page.getByRole("radio", { name: "as drawn" }).check();
  await page.getByRole("button", { name: "Take" }).click();
  await page.getByRole("heading", { name: "Whole turns too many" }).waitFor();
  await page.locator("#reading").fill("0");
  await page.keyboard.press("Enter");
  await page.getByRole("heading", { name: "Line 3 to line 1" }).waitFor();
  for (let i = 0; i < 5; i++) await takeOne(page);
  await page.getByRole("heading", { name: "Gap to line 1" }).waitFor();
  await page.keyboard.press("Alt+m");
  await page.waitForFunction(() => (document.querySelector("#reading") as HTMLInputElement)?.value !== "");
  await page.waitForTimeout(600);
  await shot(page, "rotary");
}

async function burn(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.getByLabel(/^Closed jaws read/).fill("0");
  await page.getByRole("button", { name: "Begin reading" }).click();
  await page.locator("#reading").waitFor();
}

async function takeOne(page: Page): Promise<void> {
  await page.keyboard.press("Alt+m");
  await page.waitForFunction(() => (document.querySelector("#reading") as HTMLInputElement)?.value !== "");
  const isTaken = () =>
    page.waitForFunction(() => (document.querySelector("#reading") as HTMLInputElement)?.value === "", null, {
      timeout: 2000,
    });
  await page.keyboard.press("Enter");
  // A reading that stands off the others is asked about once.
  await isTaken().catch(() => page.keyboard.press("Enter").then(isTaken));
}

async function shot(page: Page, name: string): Promise<void> {
  // Nothing lies under the pointer.
  await page.mouse.move(0, 0);
  await page.waitForTimeout(300);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
}

async function phone(page: Page, name: string): Promise<void> {
  await page.setViewportSize(PHONE);
  await shot(page, name);
  await page.setViewportSize(DESK);
}
