import { expect, test } from "./bench";
import { accessible, beginReading, beginTrial, endTrial, watch } from "./watch";

test("a procedure nobody has written yet works on every screen: the made-up square asks in all ten ways", async ({
  page,
}) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Made-up square");
  await expect(page.getByText("Everything fits")).toBeVisible();
  await page.getByLabel("Size").fill("80");
  await expect(page.getByText("40 mm is the largest square.")).toBeVisible();
  await page.getByLabel("Size").fill("20 mm");
  await expect(page.getByText("Everything fits")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "It is burned: go on to reading" }).click();
  await page.getByLabel("Closed inside jaws read, mm").fill("0.01");
  await beginReading(page);

  const head = (kind: string) => expect(page.getByRole("heading", { name: `Site for a ${kind}` })).toBeVisible();
  const take = () => page.getByRole("button", { name: "Take", exact: true }).click();
  await head("quantity");
  await page.locator("#reading").fill("19.8");
  await page.keyboard.press("Enter");
  await head("count");
  await page.locator("#reading").fill("many");
  await take();
  await expect(page.getByText("Type a whole number")).toBeVisible();
  await page.locator("#reading").fill("4");
  await take();
  await head("ordinal");
  await page.getByText("clear", { exact: true }).click();
  await accessible(page);
  await take();
  await head("choice");
  await page.getByText("upper right").click();
  await take();
  await head("cells");
  await page.getByRole("button", { name: "B", exact: true }).click();
  await page.getByRole("button", { name: "C", exact: true }).click();
  await accessible(page);
  await take();
  await head("pair");
  await page.getByLabel(/tongue/).fill("3.02");
  await page.getByLabel(/slot/).fill("3.1");
  await accessible(page);
  await take();
  await head("points");
  for (const [i, text] of ["10", "10.1", "30", "29.9"].entries())
    await page
      .getByLabel(/^point/)
      .nth(i)
      .fill(text);
  await take();
  await head("comparison");
  await accessible(page);
  await page.getByRole("button", { name: "B is better" }).click();
  await head("scores");
  await page.getByRole("button", { name: "Enter the scores" }).click();
  await page.getByLabel(/^Scores of 2 cells/).fill("0.25");
  await take();
  await expect(page.getByText("Enter 2 scores, one for each cell.")).toBeVisible();
  await page.getByLabel(/^Scores of 2 cells/).fill("0.25 ?");
  await accessible(page);
  await take();
  await head("vector");
  await page.getByLabel(/to the right/).fill("-0.1");
  await page.getByLabel(/away from you/).fill("0.2");
  await take();
  await expect(page.getByText("10 of 10 sites read.")).toBeVisible();

  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await page.getByRole("button", { name: "Say what it held" }).click();
  await page.getByLabel("Made-up length").fill("1.5");
  await page.getByRole("button", { name: "That is what it held" }).click();
  await expect(page.getByRole("cell", { name: "1.70" })).toBeVisible();
  await page.getByRole("button", { name: "Record" }).first().click();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(page.getByText(/Recorded; 1 holder still open/)).toBeVisible();
  faults.none();
  await endTrial(page);
});
