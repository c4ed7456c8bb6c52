/** A backup is made while the bench is in use, kept elsewhere, taken in again and put back; the bench before it as well. */
import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { expect, test } from "./bench";
import { accessible, beginTrial, watch } from "./watch";

test("the bench is backed up, restored, and the restore is undone", async ({ page, server }) => {
  const faults = watch(page);
  await page.goto("/");
  await expect(page.getByText("Last backup: never")).toBeVisible();
  await page.getByRole("link", { name: "Last backup" }).click();
  await expect(page.getByText("There is no backup of this bench yet.")).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Back up now" }).click();
  await expect(page.getByText(/^Backed up and checked: 3 machines, 21 trials, \d+ readings/)).toBeVisible();
  const rows = page.getByRole("row").filter({ has: page.getByRole("button", { name: "Restore …" }) });
  await expect(rows).toHaveCount(1);

  // What is downloaded is a bench that any SQLite opens
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^ustrina-\d{8}-\d{6}-by-hand\.sqlite$/);
  const kept = path.join(path.dirname(server.database), "kept elsewhere.sqlite");
  await download.saveAs(kept);
  const copy = new Sqlite(kept, { readonly: true });
  expect(copy.pragma("integrity_check", { simple: true })).toBe("ok");
  expect(copy.prepare("select count(*) as n from machine").get()).toEqual({ n: 3 });
  copy.close();

  // A trial is begun since, and is gone after the restore; a window that shows it says so
  await beginTrial(page, "Alder", "Scan offset");
  const trial = page.url();
  const other = await page.context().newPage();
  await other.goto("/backup");
  await other.getByRole("button", { name: "Restore …" }).click();
  await expect(other.getByRole("heading", { name: "Restore this backup?" })).toBeVisible();
  await accessible(other);
  await other.getByRole("button", { name: "Restore it" }).click();
  await expect(other.getByText(/^Restored: 3 machines, 21 trials/)).toBeVisible();
  await expect(other.getByText("the bench before another backup was put in its place")).toBeVisible();
  await page.goto(trial);
  await expect(page.getByRole("heading", { name: "There is nothing at this address." })).toBeVisible();
  faults.forget(/status of 404/);

  // Undone: the bench before is a backup as well
  await other
    .getByRole("row", { name: /the bench before another/ })
    .getByRole("button", { name: "Restore …" })
    .click();
  await other.getByRole("button", { name: "Restore it" }).click();
  await expect(other.getByText(/^Restored: 3 machines, 21 trials/)).toBeVisible();
  await page.goto(trial);
  await expect(page.getByRole("form", { name: "Layout" })).toBeVisible();

  // From a file, by another name; deleting is asked once more
  await other.getByLabel("Take in a backup (.sqlite):").setInputFiles(kept);
  await expect(other.getByText(/^Found whole: 3 machines, 21 trials/)).toBeVisible();
  const fromFile = other.getByRole("row", { name: /taken in from a file/ });
  await fromFile.getByRole("button", { name: "Delete" }).click();
  await fromFile.getByRole("button", { name: "Delete it for good" }).click();
  await expect(fromFile).toBeHidden();
  faults.none();
});

test("what is no backup is refused in words, and the bench stays", async ({ page, server }) => {
  const folder = path.dirname(server.database);
  const file = (name: string, content: Buffer | string) => {
    const at = path.join(folder, name);
    writeFileSync(at, content);
    return at;
  };
  await page.goto("/backup");
  const pick = page.getByLabel("Take in a backup (.sqlite):");
  const told = (words: RegExp) => expect(page.getByRole("alert").filter({ hasText: words })).toBeVisible();
  await pick.setInputFiles(file("picture.sqlite", readFileSync("docs/screenshots/bench.png")));
  await told(/This is no backup/);
  const bench = new Sqlite(server.database);
  bench.pragma("wal_checkpoint(TRUNCATE)");
  bench.close();
  await pick.setInputFiles(file("cut.sqlite", readFileSync(server.database).subarray(0, 400_000)));
  await told(/This backup is damaged/);
  const song = new Sqlite(path.join(folder, "song.sqlite"));
  song.exec("create table song (name text)");
  song.close();
  await pick.setInputFiles(path.join(folder, "song.sqlite"));
  await told(/a database, but not of a bench/);
  // Too large to be sent at all
  await pick.setInputFiles(file("large.sqlite", Buffer.alloc(25 * 1024 * 1024 + 1)));
  await told(/large\.sqlite is too large: at most 24 MB/);
  // Large, and sent whole
  await pick.setInputFiles(
    file("larger.sqlite", Buffer.concat([readFileSync(server.database), Buffer.alloc(18 * 1024 * 1024)])),
  );
  await expect(page.getByText(/^Found whole: 3 machines/)).toBeVisible();
  await expect(page.getByText("taken in from a file")).toBeVisible();
});

test("a bench that is damaged shows where its backups are, and one is put in its place", async ({ page, server }) => {
  await page.goto("/backup");
  await page.getByRole("button", { name: "Back up now" }).click();
  await expect(page.getByText(/^Backed up and checked/)).toBeVisible();
  await server.kill();
  writeFileSync(server.database, "spoiled ".repeat(20_000));
  await server.start();
  await page.goto("/");
  await expect(page.getByRole("alert").filter({ hasText: "is not the data of a bench" })).toBeVisible();
  await page.getByRole("link", { name: "Backups" }).click();
  await page.getByRole("button", { name: "Restore …" }).click();
  await page.getByRole("button", { name: "Restore it" }).click();
  await expect(page.getByText(/^Restored: 3 machines/)).toBeVisible();
  await page.getByRole("link", { name: "Bench" }).first().click();
  await expect(page.getByRole("heading", { name: "Alder" })).toBeVisible();
});
