/** A picture dropped on a page in Chromium: when the page first shows what, its longest task meanwhile, and its memory. */
import { chromium } from "@playwright/test";
import { CHROMIUM } from "../../e2e/chromium";
import { peakFromNow, peakMemory } from "./peak-memory";
import { startServer } from "./server";

/** Notes that the page makes of itself. */
type Noted = { tasks: number[]; first: Record<string, number> };

export type Dropped = {
  /** Milliseconds from the picture being decoded until what was waited for is seen, by its name. */
  first: (name: string) => number;
  /** 0 = none of 50 ms. */
  longestTaskMs: number;
  memoryMb: number;
};

const PORT = 4884;
const MOST_WAIT_MS = 120_000;

/** @param seen selectors of what is waited for, by name @param last the one that ends the wait */
export async function droppedPicture(
  database: string,
  trialId: number,
  pictureFile: string,
  seen: Readonly<Record<string, string>>,
  last: string,
): Promise<Dropped> {
  const server = await startServer(database, PORT);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${PORT}/trial/${trialId}/picture`, { waitUntil: "networkidle" });
    await page.evaluate((selectors) => {
      const noted = window as typeof window & Noted;
      noted.tasks = [];
      noted.first = {};
      new PerformanceObserver((list) => noted.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
        type: "longtask",
      });
      // By the page's own clock: one that asks from outside hears of it late.
      new MutationObserver(() => {
        const now = performance.now();
        const said = [...document.querySelectorAll("[role=status]")].map((e) => e.textContent);
        if (said.some((text) => text?.startsWith("Looking for"))) noted.first.decoded ??= now;
        for (const [name, selector] of Object.entries(selectors))
          if (document.querySelector(selector)) noted.first[name] ??= now;
      }).observe(document.body, { subtree: true, childList: true, characterData: true });
    }, seen);
    const before = peakFromNow();
    // From a file, as a user drops it: the page would unpack a message itself.
    await page.locator("input[type=file]").setInputFiles(pictureFile);
    await page
      .locator(seen[last] ?? "body")
      .first()
      .waitFor({ timeout: MOST_WAIT_MS });
    const { tasks, first } = await page.evaluate(() => {
      const { tasks, first } = window as typeof window & Noted;
      return { tasks, first };
    });
    const { decoded = Number.NaN } = first;
    return {
      first: (name) => (first[name] ?? Number.POSITIVE_INFINITY) - decoded,
      longestTaskMs: Math.max(0, ...tasks),
      memoryMb: peakMemory() - before,
    };
  } finally {
    await browser.close();
    server.stop();
  }
}
