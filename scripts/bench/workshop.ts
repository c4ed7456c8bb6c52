/** A workshop of 20 machines and 500 trials: how soon its bench is there, and how soon it answers, in Chromium on this machine. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "../../e2e/chromium";
import { type Database, openDatabase } from "../../src/data/database";
import { documentText } from "../../src/formats/json-document";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { loadDocument } from "../../src/server/trial/load-document";
import { trialDocument } from "../../src/server/trial/trial-document";
import { beginTrial } from "../../src/server/trial/trial-steps";
import { below, type Line } from "./line";
import { startServer } from "./server";

const PORT = 4883;
const [MACHINES, TRIALS] = [20, 500];
const DEMO_MACHINES = 3;
const DAY_MS = 86_400_000;
const LOADS = 7;

export async function workshop(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-workshop-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  fill(db);
  db.$client.close();
  const server = await startServer(file, PORT);
  try {
    return await looked();
  } finally {
    server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Trials run on practice machines, loaded again and again onto machines of other names. */
function fill(db: Database): void {
  const now = Date.now();
  addDemoBench(db, now);
  const documents = [1, 2, 3].map((id) => trialDocument(db, id));
  const counted = () => (db.$client.prepare("select count(*) as n from trial").get() as { n: number }).n;
  for (let i = 0; counted() < TRIALS; i++) {
    const document = documents[i % documents.length];
    if (!document) throw new Error("the demo has no trials");
    const name = `Machine ${String((i % (MACHINES - DEMO_MACHINES)) + 1).padStart(2, "0")}`;
    const begun = new Date(now - (i + 1) * DAY_MS).toISOString();
    const changed = { ...document, code: `M-${i + 1}`, begun, machine: { ...document.machine, name } };
    loadDocument(db, documentText(changed), now);
  }
  for (const slug of ["alder", "machine-01", "machine-02"]) beginTrial(db, slug, "scan-offset", now);
}

async function looked(): Promise<Line[]> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const paints: number[] = [];
    let page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    for (let i = 0; i < LOADS; i++) {
      await page.close();
      page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      paints.push(await largestPaint(page));
    }
    const answers = await slowestAnswer(page);
    const what = `bench of ${MACHINES} machines and ${TRIALS} trials`;
    return [
      { what: `${what}: largest contentful paint, median of ${LOADS}`, ...below(median(paints), 1000, "ms") },
      { what: `${what}: slowest answer to a key while finding a machine`, ...below(answers, 100, "ms") },
    ];
  } finally {
    await browser.close();
  }
}

async function largestPaint(page: Page): Promise<number> {
  await page.goto(`http://127.0.0.1:${PORT}/`, { waitUntil: "networkidle" });
  if (
    (await page
      .getByRole("listitem")
      .filter({ has: page.getByRole("heading", { level: 2 }) })
      .count()) !== MACHINES
  )
    throw new Error(`the bench does not show ${MACHINES} machines`);
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        new PerformanceObserver((list) => done(list.getEntries().at(-1)?.startTime ?? Number.NaN)).observe({
          type: "largest-contentful-paint",
          buffered: true,
        });
      }),
  );
}

/** From each key to the paint that follows it; 16 ms is the shortest that browsers tell. */
async function slowestAnswer(page: Page): Promise<number> {
  await page.evaluate(() => {
    const seen = window as typeof window & { answers: number[] };
    seen.answers = [];
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) seen.answers.push(e.duration);
    }).observe({ type: "event", durationThreshold: 16 } as PerformanceObserverInit);
  });
  await page.getByRole("searchbox", { name: "Find a machine" }).click();
  for (const key of "machine 1") await page.keyboard.press(key, { delay: 40 });
  for (let i = 0; i < 9; i++) await page.keyboard.press("Backspace", { delay: 40 });
  await page.getByText("Needs you").click();
  await page.waitForTimeout(500);
  return page.evaluate(() => Math.max(16, ...(window as typeof window & { answers: number[] }).answers));
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
}
