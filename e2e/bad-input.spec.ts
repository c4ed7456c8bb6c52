import { expect, test } from "./bench";
import { accessible, beginTrial, endTrial } from "./watch";

test("bad input is told at its place, and nothing entered is lost", async ({ page, context }) => {
  await beginTrial(page, "Alder", "Scan offset");
  const speeds = page.getByLabel("Speeds");
  const told = (message: RegExp) => expect(page.getByRole("alert").filter({ hasText: message })).toBeVisible();

  await speeds.fill("100 6000");
  await told(/If you mean 6000 mm\/min, enter 100 mm\/s/);
  await accessible(page);
  await speeds.fill("100 200 200");
  await told(/200 mm\/s is entered twice/);
  await page.getByLabel("Row length").fill("");
  await told(/Enter a length, for example 50 mm/);
  await page.getByLabel("Row length").fill("120");
  await speeds.fill("100 200");
  await told(/The stock is 90 mm wide/);
  await expect(page.getByRole("img", { name: /Drawing of Scan offset/ })).toBeVisible();
  await page.getByLabel("Row length").fill("50");
  await speeds.fill("100 600");
  const kept = page.waitForResponse((r) => /"stockAtXMm":"0"/.test(r.request().postData() ?? ""));
  await page.getByLabel("Lies at X").fill("0");
  await told(/mm are missing on the left/);
  await expect(page.getByRole("button", { name: "To the burn" })).toBeDisabled();
  await kept;
  await page.reload();
  await expect(page.getByLabel("Lies at X")).toHaveValue("0");
  await page.getByLabel("Lies at X").fill("400");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();

  // G-code from elsewhere, and a cut file, are refused and burn nothing
  const file = page.getByLabel("with an edited G-code file");
  await file.setInputFiles({ name: "other.nc", mimeType: "text/plain", buffer: Buffer.from("G21\nG0 X1 Y1\nM2\n") });
  await told(/names no coupon/);
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "G-code" }).click(),
  ]);
  const text = (await import("node:fs")).readFileSync(await saved.path(), "utf8");
  await file.setInputFiles({
    name: "cut.nc",
    mimeType: "text/plain",
    buffer: Buffer.from(`${text.split("\n").slice(0, 60).join("\n")}\n`),
  });
  await told(/cut short/);
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await page.getByRole("button", { name: "Begin reading" }).click();
  await told(/Look at the closed jaws first/);
  await page.getByLabel("Closed jaws read, mm").fill("0.0.1");
  await page.getByRole("button", { name: "Begin reading" }).click();
  await told(/one decimal mark/);
  await page.getByLabel("Closed jaws read, mm").fill("0.00");
  await page.getByRole("button", { name: "Begin reading" }).click();

  // A reading that cannot be parsed, one that is implausible, one without words, one while the server is away
  const field = page.locator("#reading");
  await field.fill("0.3x");
  await field.press("Enter");
  await told(/“x” is not a unit/);
  await expect(field).toHaveValue("0.3x");
  await field.fill("7.62");
  await field.press("Enter");
  await told(/about 25 times what its neighbours read/);
  await field.fill("0.31");
  await context.setOffline(true);
  await field.press("Enter");
  await expect(page.getByText("1 reading is not yet on disk.")).toBeVisible();
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText("1 reading is not yet on disk.")).toBeHidden();
  await expect(page.getByText("reading 2 of 3")).toBeVisible();
  await page.keyboard.press("Alt+n");
  await page.keyboard.press("Alt+n");
  await expect(page.getByRole("heading", { name: "100 mm/s, left end" })).toBeVisible();
  await page.locator("#reading").fill("0.1");
  await page.keyboard.press("Enter");
  await told(/Say in words/);
  await page.keyboard.press("Alt+2");
  await page.keyboard.press("Enter");
  await expect(page.getByText("reading 2 of 3")).toBeVisible();

  // Digits that arrive with no field focused go to the reading, as from calipers that type
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.type("0.12");
  await expect(page.locator("#reading")).toHaveValue("0.12");
  await endTrial(page);
});

test("pages that are not there, and files of trials that are not there, say so", async ({ page }) => {
  await page.goto("/trial/4711/read");
  await expect(page.getByRole("heading", { name: "There is nothing at this address." })).toBeVisible();
  const file = await page.request.get("/api/trials/4711/rounds/1/coupon.svg");
  expect(file.status()).toBe(422);
  expect(await file.text()).toBe("There is no such trial.");
  const foreign = await page.request.get("/", { headers: { Host: "evil.example" } });
  expect(foreign.status()).toBe(421);
});
