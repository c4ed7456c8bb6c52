/** What can befall the disk, the file and the clock: said in words, nothing acknowledged is lost, and it goes on when it is cured. */
import { spawnSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import type { Page } from "@playwright/test";
import Sqlite from "better-sqlite3";
import { expect, test } from "./bench";
import { openConcern } from "./concern";
import type { OwnServer } from "./own-server";
import { accessible, beginReading, beginTrial } from "./watch";

const DAY_MS = 86_400_000;

/** Compiles what stands in for a disk with a fault. */
function preload(folder: string): string {
  const library = path.resolve(folder, "disk-fault.so");
  const made = spawnSync("gcc", ["-shared", "-fPIC", "-o", library, "e2e/disk-fault.c", "-ldl"], { encoding: "utf8" });
  if (made.status !== 0) throw new Error(`disk-fault.c cannot be compiled: ${made.stderr}`);
  return library;
}

function readingsOn({ database }: OwnServer): string[] {
  const db = new Sqlite(database, { readonly: true });
  const rows = db
    .prepare("select raw from reading where taken_back_at is null and client_key not like 'demo-%' order by id")
    .all();
  const whole = db.pragma("integrity_check", { simple: true });
  db.close();
  expect(whole).toBe("ok");
  return (rows as { raw: string }[]).map((r) => r.raw);
}

async function beginToRead(page: Page): Promise<(text: string) => Promise<void>> {
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const field = page.locator("#reading");
  return async (text) => {
    await field.fill(text);
    await field.press("Enter");
  };
}

/** A form of another screen, which says what is wrong and keeps what was typed. */
async function noteToPutBack(page: Page, what: string): Promise<void> {
  await openConcern(page, "To put back");
  await page.getByLabel("Set for a while").fill(what);
  await page.getByLabel("Set for a while").press("Enter");
}

for (const [fault, words] of [
  ["full", "The disk with the data of the bench is full."],
  ["read-only", "The data of the bench cannot be written: its disk, folder or file is read-only."],
  ["broken", "The disk with the data of the bench does not answer as it should."],
] as const)
  test(`a disk that is ${fault} is told, and readings wait until it no longer is`, async ({ page, server }) => {
    const folder = path.resolve(path.dirname(server.database));
    const switched = path.join(folder, "..", `${path.basename(folder)}.fault`);
    const library = preload(folder);
    await server.kill();
    await server.start({ LD_PRELOAD: library, DISK_FAULT: switched, DISK_FAULT_BELOW: folder });
    const type = await beginToRead(page);
    await type("0.301");
    await expect(page.getByText("reading 2 of 3")).toBeVisible();

    writeFileSync(switched, fault);
    await type("0.302");
    await expect(page.getByText("1 reading is not yet on disk.")).toBeVisible();
    await expect(page.getByRole("status").filter({ hasText: words })).toBeVisible();
    await type("0.303");
    await expect(page.getByText("2 readings are not yet on disk.")).toBeVisible();
    await accessible(page);
    const other = await page.context().newPage();
    await other.goto("/machine/alder");
    await noteToPutBack(other, "soft limits off");
    await expect(other.getByRole("alert").filter({ hasText: words })).toContainText("Nothing was changed.");
    expect(readingsOn(server)).toEqual(["0.301 mm"]);

    rmSync(switched);
    await expect(page.getByText(/^\d readings? (is|are) not yet on disk/)).toBeHidden();
    expect(readingsOn(server)).toEqual(["0.301 mm", "0.302 mm", "0.303 mm"]);
    await expect(other.getByLabel("Set for a while")).toHaveValue("soft limits off");
    await other.getByLabel("Set for a while").press("Enter");
    await expect(other.getByRole("button", { name: "Put back soft limits off" })).toBeVisible();
    expect(server.printed()).toContain("SQLITE_");
  });

test("a bench that another program holds is told, and goes on when it no longer does", async ({ page, server }) => {
  const type = await beginToRead(page);
  await type("0.301");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  const holder = new Sqlite(server.database);
  holder.exec("begin immediate");
  await type("0.302");
  await expect(page.getByRole("status").filter({ hasText: "Another program holds the data" })).toBeVisible();
  holder.exec("rollback");
  holder.close();
  await expect(page.getByText(/^\d readings? (is|are) not yet on disk/)).toBeHidden();
  expect(readingsOn(server)).toEqual(["0.301 mm", "0.302 mm"]);
});

test("a bench of a newer Ustrina is refused on every page in words, and is there again for the newer one", async ({
  page,
  server,
}) => {
  await server.kill();
  const db = new Sqlite(server.database);
  db.exec("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
  db.close();
  await server.start();
  await expect.poll(server.printed).toContain("A newer Ustrina has kept this bench");
  await page.goto("/");
  await expect(page.getByRole("alert").filter({ hasText: "A newer Ustrina has kept this bench" })).toBeVisible();
  await accessible(page);
  // Its backups are reached all the same
  await page.getByRole("link", { name: "Backups" }).click();
  await expect(page.getByRole("heading", { name: "Backup", level: 1 })).toBeVisible();
  const again = new Sqlite(server.database);
  again.exec("delete from __drizzle_migrations where hash = 'later'");
  again.close();
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
});

test("a clock that is set back is told on every page, and what is taken meanwhile stands behind what was", async ({
  page,
  server,
}) => {
  await server.kill();
  await server.start({
    NODE_OPTIONS: `--require ${path.resolve("e2e/other-clock.cjs")}`,
    CLOCK_OFF_BY_MS: String(-9000 * DAY_MS),
  });
  const type = await beginToRead(page);
  const told = page.getByRole("alert").filter({ hasText: "The clock of this computer is set back." });
  await expect(told).toBeVisible();
  await accessible(page);
  await type("0.301");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  const db = new Sqlite(server.database, { readonly: true });
  const rows = db.prepare("select taken_at as at, client_key as key from reading order by id").all() as {
    at: number;
    key: string;
  }[];
  db.close();
  expect(rows.at(-1)?.at).toBeGreaterThan(Math.max(...rows.slice(0, -1).map((r) => r.at)));
  await server.kill();
  await server.start();
  await page.reload();
  // By the right clock that was days ago: the jaws are looked at again
  await expect(page.getByText(/The last sitting was another day/)).toBeVisible();
  await expect(told).toBeHidden();
});
