/** The server is killed while readings are typed: they wait in the page, over a reload too, and are on disk in order when it is back. */
import Sqlite from "better-sqlite3";
import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial } from "./watch";

function readingsIn(database: string): string[] {
  const db = new Sqlite(database, { readonly: true });
  const rows = db
    .prepare("select raw from reading where taken_back_at is null and client_key not like 'demo-%' order by id")
    .all();
  db.close();
  return (rows as { raw: string }[]).map((r) => r.raw);
}

test("readings typed while the server is killed wait, are counted, and are taken once it runs again", async ({
  page,
  server,
}) => {
  const onDisk = () => readingsIn(server.database);
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  const field = page.locator("#reading");
  const type = async (text: string) => {
    await field.fill(text);
    await field.press("Enter");
  };
  await type("0.301");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();

  await server.kill();
  await type("0.302");
  await expect(page.getByText("1 reading is not yet on disk.")).toBeVisible();
  await type("0.303");
  await expect(page.getByText("2 readings are not yet on disk.")).toBeVisible();
  await expect(page.getByText("site 2 of 14 · reading 1 of 3")).toBeVisible();
  await type("0.311");
  await type("0.312");
  await expect(page.getByText("4 readings are not yet on disk.")).toBeVisible();
  await accessible(page);
  // The last one was wrong: what was never sent is simply not sent
  await page.keyboard.press("Alt+z");
  await expect(page.getByText("3 readings are not yet on disk.")).toBeVisible();
  expect(onDisk()).toEqual(["0.301 mm"]);

  await server.start();
  await expect(page.getByText(/^\d readings? (is|are) not yet on disk/)).toBeHidden();
  expect(onDisk()).toEqual(["0.301 mm", "0.302 mm", "0.303 mm", "0.311 mm"]);
  await page.reload();
  await expect(page.getByText("site 2 of 14 · reading 2 of 3")).toBeVisible();

  // What waits outlives the page: it is left while the server is away, and sent by another page of this browser
  await server.kill();
  await type("0.313");
  await expect(page.getByText("1 reading is not yet on disk.")).toBeVisible();
  await field.fill("0.3");
  await page.goto("about:blank");
  await server.start();
  await page.goto("/");
  await expect.poll(onDisk).toEqual(["0.301 mm", "0.302 mm", "0.303 mm", "0.311 mm", "0.313 mm"]);
  // What was half typed stands in the field again, at its place
  await page.getByRole("link", { name: "Continue" }).click();
  await expect(page.getByText("site 2 of 14 · reading 3 of 3")).toBeVisible();
  await expect(field).toHaveValue("0.3");
});

test("a form that is sent while the server is away keeps what was typed, and says so", async ({ page, server }) => {
  await page.goto("/machine/new");
  const form = page.getByRole("form", { name: "New machine" });
  await form.getByLabel("Name", { exact: true }).fill("Hazel");
  await form.getByLabel("Working area, X").fill("300");
  await form.getByLabel("Working area, Y").fill("300");
  await form.getByRole("button", { name: /^More data/ }).click();
  await form.getByLabel("Top speed").fill("300");
  await server.kill();
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(form.getByRole("alert")).toHaveText("The server does not answer. Nothing was changed.");
  await expect(form.getByLabel("Name", { exact: true })).toHaveValue("Hazel");
  await server.start();
  await form.getByRole("button", { name: "Add it to the bench" }).click();
  await expect(page.getByRole("heading", { name: "Hazel", level: 1 })).toBeVisible();
});

test("a page that is asked for while the server is away comes when it is back, and the one that is there stays", async ({
  page,
  server,
}) => {
  await page.goto("/machine/new");
  const form = page.getByRole("form", { name: "New machine" });
  await form.getByLabel("Name", { exact: true }).fill("Hazel");
  await server.kill();
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Gauges" }).click();
  await expect(page.getByText("The server does not answer. The page comes when it is back.")).toBeVisible();
  await expect(form.getByLabel("Name", { exact: true })).toHaveValue("Hazel");
  await server.start();
  await expect(page.getByRole("heading", { name: "Gauges", level: 1 })).toBeVisible();
  await expect(page.getByText("The server does not answer.")).toBeHidden();
});
