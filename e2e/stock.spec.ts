/** Stock on its cards: a kerf by mates on Bracken, a slot for a part, a drawing adapted, a new batch, and cards as files. */
import { readFileSync } from "node:fs";
import { parseDxf } from "../src/formats/dxf-parser";
import { parseSvgDrawing } from "../src/formats/svg-drawing";
import { expect, test } from "./bench";
import { pick } from "./pick";
import { accessible, beginReading, burnAndReadAll, downloaded, watch } from "./watch";

test("mates on Bracken tell a kerf, which is kept on a card; a slot and a drawing come out of it", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/stock");
  await page.getByRole("button", { name: "Make a card" }).click();
  await page.getByRole("button", { name: "Make the card" }).click();
  await expect(page.getByText(/Enter the kind of stock/)).toBeVisible();
  await page.getByLabel("Kind").fill("Poplar plywood 4 mm");
  await page.getByLabel("Thickness as it is sold").fill("4 furlongs");
  await page.getByRole("button", { name: "Make the card" }).click();
  await expect(page.getByText(/As it is sold, for example 3 mm/)).toBeVisible();
  await page.getByLabel("Thickness as it is sold").fill("4 mm");
  await page.getByLabel("Batch").fill("June");
  await page.getByRole("button", { name: "Make the card" }).click();
  await expect(page.getByRole("heading", { name: "Poplar plywood 4 mm" })).toBeVisible();
  await expect(page.getByText(/Not measured\. Squeeze it/)).toBeVisible();
  const squeezed = page.getByLabel("Squeezed at several places");
  await squeezed.fill("3.92 x 3.97");
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(page.getByRole("form", { name: "Measure the thickness" }).getByText(/^x: /)).toBeVisible();
  await squeezed.fill("0.154 in");
  await pick(page.getByLabel("Read with"), "Calipers");
  await squeezed.fill("39.2");
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(page.getByText(/39\.20 mm for a stock of 4 mm: is that right/)).toBeVisible();
  await squeezed.fill("3.92 3.97 3.95 3.99 3.94");
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(page.getByText(/^3\.95 ± 0\.0\d mm, 3\.92 to 3\.99$/)).toBeVisible();
  await accessible(page);

  await page.getByRole("button", { name: "Kerf on Bracken" }).click();
  await page.waitForURL(/lay-out/);
  await expect(page.getByLabel("Poplar plywood 4 mm, batch June")).toBeChecked();
  await page.getByLabel("Mates: tongue and slot").check();
  await page.getByLabel("Piece of stock, along X").fill("100");
  await page.getByLabel("along Y").fill("60");
  await expect(page.getByText(/10 mates need .* 3 mates|10 mates need .*larger piece/)).toBeVisible();
  await page.getByLabel("Piece of stock, along X").fill("300");
  await page.getByLabel("along Y").fill("200");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  // One mate by its number, one that was lost, the others by the practice hand.
  await expect(page.getByRole("heading", { name: "Mate 1, 0.00" })).toBeVisible();
  await page.keyboard.press("1");
  await expect(page.getByLabel("loose")).toBeChecked();
  await page.getByRole("button", { name: "Take" }).click();
  await expect(page.getByText("site 1 of 10 · reading 2 of 2")).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Keep on the stock card" }).click();
  await expect(page.getByText("On the card of its stock.", { exact: true })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Prove", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await page.getByRole("button", { name: "Keep this instead" }).click();
  await expect(page.getByText("✓ On the card of its stock.")).toBeVisible();
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();

  await page.getByRole("link", { name: "the card of its stock" }).click();
  await expect(page.getByRole("heading", { name: "Kerf on Bracken" })).toBeVisible();
  await expect(page.getByText(/trial B-\d+: proved/)).toBeVisible();
  const fits = page.getByRole("region", { name: "Fits" });
  await expect(fits.getByText(/gap − 0\.\d+ kerf = 3\.\d+ mm/)).toBeVisible();
  await fits.getByLabel("Another program on the way makes up for the kerf as well").check();
  await expect(fits.getByText(/here it is not taken off again/)).toBeVisible();
  await pick(fits.getByLabel("Fit", { exact: true }), "press: held by its interference");
  await fits.getByLabel("Interference").fill("0.2 mm");
  await expect(fits.getByText(/of parts will not fit/)).toBeVisible();

  await page.getByRole("link", { name: "Adapt a drawing" }).click();
  await expect(page.getByText("Drop an SVG or DXF here.")).toBeVisible();
  await page.getByLabel("A drawing (SVG or DXF):").setInputFiles({
    name: "open.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h20v20"/></svg>',
    ),
  });
  await expect(page.getByText(/begins at X 5\.0 Y 35\.0 mm and ends at X 25\.0 Y 15\.0/)).toBeVisible();
  await page.getByLabel("Another drawing:").setInputFiles("examples/kerf/holder.svg");
  await page.getByLabel("Make slots fit this batch").check();
  await expect(page.getByText(/3 ends of slots were found/)).toHaveCount(0);
  await page.getByLabel("Slots that are drawn this wide").fill("3 mm");
  await expect(page.getByText(/3 ends of slots were found/)).toBeVisible();
  await accessible(page);
  const svg = parseSvgDrawing(await downloaded(page, "Download SVG"));
  const dxf = parseDxf(await downloaded(page, "Download DXF"));
  if (!svg.ok || !dxf.ok) throw new Error("what was downloaded cannot be read");
  expect(svg.value.paths).toHaveLength(4);
  expect(dxf.value.paths.map((p) => p.layer)).toEqual(["cut", "cut", "cut", "cut"]);
  await page.getByLabel("Offset per side").fill("5 mm");
  await expect(page.getByText("Something would vanish.").first()).toBeVisible();
  await expect(page.getByRole("button", { name: "Download SVG" })).toHaveCount(0);
  // The drawing outlives a reload.
  await page.reload();
  await expect(page.getByText("holder.svg")).toBeVisible();
  faults.none();
});

test("a new batch makes the kerf due for a check, which is begun on it", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/stock/birch-plywood-3-mm");
  const label = page.getByLabel("A new batch came");
  await label.fill("spring");
  await page.getByRole("button", { name: "Begin it" }).click();
  await expect(page.getByText("There is a batch of this name already.")).toBeVisible();
  await label.fill("autumn");
  await page.getByRole("button", { name: "Begin it" }).click();
  await expect(page.getByRole("heading", { name: "Thickness, batch autumn" })).toBeVisible();
  await expect(page.getByText("check due: a new batch of the stock was begun.")).toBeVisible();
  await page.goto("/");
  await expect(page.getByText("Check the kerf")).toBeVisible();
  await expect(page.getByText("Birch plywood 3 mm: a new batch of the stock was begun").first()).toBeVisible();
  await page.goto("/machine/bracken/kerf");
  await expect(page.getByText("1 stock, 1 due")).toBeVisible();
  await accessible(page);
  const byStock = page.getByRole("region", { name: "By stock" });
  await byStock.getByRole("button", { name: "Begin check" }).click();
  await page.waitForURL(/lay-out/);
  await expect(page.getByLabel("Birch plywood 3 mm, batch autumn")).toBeChecked();
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Prove", exact: true }).last().click();
  const end = page.getByRole("button", { name: /Accept: still valid|End the check here/ });
  await end.click();
  // It is on disk once the page no longer offers it.
  await expect(end).toHaveCount(0);
  await page.goto("/machine/bracken/kerf");
  await expect(page.getByText(/Kerf: (valid|check due)/)).toBeVisible();
  faults.none();
});

test("cards are searched, taken away as files, and come back from them", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/stock");
  const search = page.getByLabel("Search the cards");
  await search.fill("bracken birch");
  await expect(page.getByRole("heading", { level: 2, name: /mm$/ })).toHaveText(["Birch plywood 3 mm"]);
  await search.fill("granite");
  await expect(page.getByText(/No card says “granite”/)).toBeVisible();
  await search.fill("");
  const file = async (link: string) => {
    const [taken] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: link }).click()]);
    return readFileSync(await taken.path(), "utf8");
  };
  const [json, csv] = [await file("Export (JSON)"), await file("Table (CSV)")];
  expect(JSON.parse(json).cards).toHaveLength(2);
  const load = async (name: string, text: string) =>
    page
      .getByLabel("Import cards (JSON or CSV):")
      .setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  await load("stock.json", json);
  await expect(page.getByText("New: 0 cards, 0 batches, 0 readings, 0 results. The rest was there.")).toBeVisible();
  await load("stock.csv", csv.replaceAll("Birch plywood 3 mm", "Beech plywood 3 mm"));
  await expect(page.getByText("New: 1 card, 1 batch, 5 readings, 1 result. The rest was there.")).toBeVisible();
  await load("stock.csv", csv.replace("birch", "").replace(",card,", ",shelf,"));
  await expect(page.getByText(/Line 2, column 1/)).toBeVisible();
  await page.getByRole("link", { name: "Beech plywood 3 mm" }).click();
  await expect(page.getByText("from a file")).toBeVisible();
  await expect(page.getByText(/^2\.99 ± /)).toBeVisible();
  await page.getByRole("button", { name: "Take 2.94 back" }).click();
  await expect(page.getByRole("button", { name: "Take 2.94 back" })).toHaveCount(0);
  await page.getByRole("button", { name: "Put away" }).click();
  await expect(page.getByRole("button", { name: "Bring back" })).toBeVisible();
  await page.goto("/machine/alder/kerf");
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.waitForURL(/lay-out/);
  await expect(page.getByLabel(/Beech plywood/)).toHaveCount(0);
  faults.none();
});
