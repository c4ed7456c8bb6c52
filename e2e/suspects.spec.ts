/** A reading that contradicts the others: named, left out, brought back, accepted with a reason, and read again. */
import { expect, test } from "./bench";
import { accessible, beginReading, watch } from "./watch";

test("a tick of Alder read 1 mm wrong is named and holds its axis back until it is settled", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/machine/alder/axis-scale");
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.waitForURL(/lay-out/);
  await page.getByLabel("Length along X").fill("100");
  await page.getByLabel("Length along Y").fill("90");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  // What the layout can tell is said before the burn, and one press makes it enough.
  const forecast = page.getByRole("region", { name: "Forecast" });
  await expect(
    forecast.getByText(/Expected: ± 0\.0\d+ % for the scale of [XY]|Expected: ± 0\.0\d+ %/).first(),
  ).toBeVisible();
  const readings = page.getByLabel("Readings per point");
  const asked = await readings.inputValue();
  await readings.fill("1");
  await expect(forecast.getByText(/A proof succeeds if the residual error is at most/)).toBeVisible();
  await forecast.getByRole("button", { name: "Use the longest lengths that fit" }).click();
  await expect(page.getByLabel("Length along X")).not.toHaveValue("100");
  await expect(forecast.getByRole("button")).toHaveCount(0);
  // Ticks at whole tens for what follows.
  await page.getByLabel("Length along X").fill("100");
  await page.getByLabel("Length along Y").fill("90");
  await readings.fill(asked);
  await accessible(page);
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  // Tick 1 lies at 20 mm. Nothing is read yet, so only what is usual of a machine speaks against 21 mm.
  await expect(page.getByRole("heading", { name: /^X, tick 1/ })).toBeVisible();
  await page.keyboard.type("21");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/The other readings say about 20\.\d\d mm here/)).toBeVisible();
  await page.getByRole("button", { name: /Take/ }).first().click();
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();

  const findings = page.getByRole("region", { name: "Readings that contradict the others" });
  await expect(findings.getByText("Reading 1 of X, tick 1 contradicts the others.")).toBeVisible();
  await expect(findings.getByText(/Effect on “Error of length, X”: 0\.\d+ %/)).toBeVisible();
  const enter = page.getByRole("region", { name: "What to enter" });
  await expect(enter.first().getByRole("link", { name: "read again" })).toBeVisible();
  const noticed = page.getByRole("region", { name: "Errors that would be noticed" });
  await expect(noticed).toHaveCount(0);
  await accessible(page);

  await findings.getByRole("button", { name: "Leave it out" }).click();
  await expect(findings.getByText(/^Left out: X, tick 1 at 20 mm, 21 mm$/)).toBeVisible();
  await expect(findings.getByText(/contradicts the others/)).toHaveCount(0);
  await expect(noticed).toBeVisible();
  // The page itself does not scroll: all that is long scrolls within it.
  expect(await page.evaluate(() => document.documentElement.scrollHeight - innerHeight)).toBeLessThanOrEqual(0);
  await findings.getByRole("button", { name: /^Undo/ }).click();
  await expect(findings.getByText(/contradicts the others/)).toBeVisible();

  await findings.getByRole("button", { name: "Accept", exact: true }).click();
  await findings.getByRole("button", { name: "Accept it" }).click();
  await expect(findings.getByText("Enter why these readings are right.")).toBeVisible();
  await findings.getByLabel("Reason").fill("the tick really lies there");
  await findings.getByRole("button", { name: "Accept it" }).click();
  await expect(findings.getByText("Accepted: the tick really lies there").first()).toBeVisible();
  await expect(enter.first().getByRole("link", { name: "read again" })).toHaveCount(0);
  await findings.getByRole("button", { name: /^Undo/ }).click();
  await findings.getByRole("link", { name: "Read again" }).click();
  await expect(page.getByRole("heading", { name: /^X, tick 1/ })).toBeVisible();
  faults.none();
});
