/** What every test in the browser watches: faults of pages, requests that leave the machine, and what axe finds. */
import { readFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

type Watched = {
  /** Fails with the faults there are. */
  none: () => void;
  /** Leaves out those that a test brings about itself. */
  forget: (known: RegExp) => void;
};

/**
 * Collects faults from now on: what pages throw or complain of, a breach of their content policy among it, and every request to
 * another host.
 *
 * @param host the one name by which the server is called
 */
export function watch(page: Page, host = "127.0.0.1"): Watched {
  let faults: string[] = [];
  page.on("pageerror", (error) => faults.push(`page: ${error.message}`));
  page.on("console", (message) => {
    if (message.type() === "error") faults.push(`console: ${message.text()} ${message.location().url}`);
  });
  page.on("request", (request) => {
    const url = new URL(request.url());
    if (/^(https?|wss?):$/.test(url.protocol) && url.hostname !== host) faults.push(`leaves the machine: ${url}`);
  });
  return {
    none: () => expect(faults).toEqual([]),
    forget(known) {
      faults = faults.filter((fault) => !known.test(fault));
    },
  };
}

/** From now on every answer takes so much longer, as over a bad radio link. */
export async function answersLate(page: Page, ms: number): Promise<void> {
  const line = await page.context().newCDPSession(page);
  await line.send("Network.enable");
  await line.send("Network.emulateNetworkConditions", {
    offline: false,
    latency: ms,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
}

/** Something waits until it is let go on. */
export function gate(): { opened: Promise<void>; open: () => void } {
  let open = () => {};
  const opened = new Promise<void>((done) => {
    open = done;
  });
  return { opened, open };
}

/** Looks at the closed jaws, where the gauge has some, and begins to read. */
export async function beginReading(page: Page): Promise<void> {
  const jaws = page.getByLabel(/^Closed jaws read/);
  const begin = page.getByRole("button", { name: "Begin reading" });
  await expect(begin).toBeVisible({ timeout: 90_000 });
  if (await jaws.isVisible()) await jaws.fill("0");
  const inside = page.getByLabel(/^Closed inside jaws read/);
  if ((await inside.isVisible()) && (await inside.inputValue()) === "") await inside.fill("0");
  await begin.click();
}

/** Burns on the practice machine, and takes every reading as the practice hand does. */
export async function burnAndReadAll(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
}

/** What comes to be saved when a button is pressed. */
export async function downloaded(page: Page, button: string): Promise<string> {
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: button }).click()]);
  return readFileSync(await file.path(), "utf8");
}

const STANDARDS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];

/** What a page passes through on its way is no fault of it: it is looked at again for so long. */
const SETTLES = { timeout: 30_000, intervals: [300, 1000, 2000] };

/** axe finds nothing on the page as it settles. @param rule the one rule to go by, where the page was seen by all of them before */
export async function accessible(page: Page, rule?: string): Promise<void> {
  await expect(async () => {
    // The title of a page that was just gone to comes with the rest of its head.
    await expect(page).toHaveTitle(/./);
    // At its end nothing of the page is half behind the line that stays at the bottom.
    await page.evaluate(() => window.scrollTo(0, document.documentElement.scrollHeight));
    // Messages come and go while it looks: half faded they are no fault, and one that stays is looked at by itself.
    const axe = new AxeBuilder({ page }).exclude("[data-sonner-toaster]");
    const analysis = await (rule ? axe.withRules(rule) : axe.withTags(STANDARDS))
      // There are no frames, for which it would go through a page of its own, twice as long.
      .setLegacyMode()
      .analyze();
    expect(found(analysis)).toEqual([]);
  }).toPass(SETTLES);
}

/** axe finds nothing on the message that is shown; the pointer on it keeps it there. */
export async function messageAccessible(page: Page): Promise<void> {
  const message = page.locator("[data-sonner-toast][data-front=true]");
  await message.hover();
  await expect(page.locator("[data-sonner-toast][data-expanded=true]").first()).toBeVisible();
  await page.waitForFunction(
    () => (document.querySelector("[data-sonner-toaster]")?.getAnimations({ subtree: true }) ?? []).length === 0,
  );
  const axe = new AxeBuilder({ page }).include("[data-sonner-toaster]").withTags(STANDARDS).setLegacyMode();
  expect(found(await axe.analyze())).toEqual([]);
  await expect(message).toBeVisible();
}

type Analysis = Awaited<ReturnType<AxeBuilder["analyze"]>>;

function found({ violations }: Analysis): string[] {
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join("; ")}`);
}

/** The demo bench, opened from the empty one the first time. */
export async function openBench(page: Page): Promise<void> {
  await page.goto("/");
  const open = page.getByRole("button", { name: "Open the demo bench" });
  if (await open.isVisible()) await open.click();
  // Opening it runs its trials, which takes a while beside other tests.
  await expect(page.getByRole("heading", { name: "Bench", exact: true })).toBeVisible({ timeout: 120_000 });
}

/** Begins a new trial of a procedure on a machine and waits for its layout. */
export async function beginTrial(page: Page, machine: string, procedure: string): Promise<void> {
  await openBench(page);
  const card = page.getByRole("article", { name: machine });
  const open = card.getByRole("link", { name: "Continue" });
  if (await open.isVisible()) {
    await open.click();
    await page.waitForURL(/\/trial\/\d+\//);
    // Every stage but Read on a phone shows how to end it.
    await page.goto(page.url().replace(/(\/trial\/\d+)\/.*/, "$1/prove"));
    await endTrial(page);
  }
  const fold = card.getByRole("button", { name: /^Only when there is a reason/ });
  if (await fold.isVisible()) await fold.click();
  await card.getByRole("button", { name: `Actions for the ${procedure.toLowerCase()} of ${machine}` }).click();
  await page.getByRole("menuitem", { name: /^Begin (a new|the first) trial$/ }).click();
  await expect(page.getByRole("form", { name: "Layout" })).toBeVisible();
}

/** A scan-offset trial on Alder, laid out with these texts by label, at its burn. */
export async function laidOut(page: Page, texts: Readonly<Record<string, string>>): Promise<void> {
  await beginTrial(page, "Alder", "Scan offset");
  for (const [label, text] of Object.entries(texts)) await page.getByLabel(label).fill(text);
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
}

/** Few speeds, and two readings a site. */
export function threeSpeeds(page: Page): Promise<void> {
  return laidOut(page, { Speeds: "100 300 500", "Readings per point": "2" });
}

/** Ends the trial in hand without a proof, so that the next test can begin one. */
export async function endTrial(page: Page): Promise<void> {
  await page.getByRole("button", { name: "End without a proof" }).click();
  await page.getByRole("button", { name: "End it" }).click();
  await expect(page.getByRole("heading", { name: "Bench", exact: true })).toBeVisible();
}
