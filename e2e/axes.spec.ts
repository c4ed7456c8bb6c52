/** Axis scale, origin, squareness and fixture stops on Alder: whether 400 mm come out as 400 mm, square, and in the right place. */
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { beginByKeys, burnByKeys, press, readByKeys, tabTo } from "./keys";
import { accessible, beginTrial, burnAndReadAll, watch } from "./watch";

/** Every setting of the round that is asked for held what the ledger says. */
async function confirmAll(page: Page, settings: readonly string[]): Promise<void> {
  for (const setting of settings) {
    const card = page.getByRole("region", { name: "Read back" }).filter({ hasText: setting });
    await press(page, card.getByRole("button", { name: "Yes, I read that back" }));
    await expect(page.getByText(new RegExp(`${setting}: .* during the burn\\.$`))).toBeVisible();
  }
}

/** What is worked out is entered at the controller and read back there, one setting after the other. */
async function recordAll(page: Page, settings: readonly string[]): Promise<void> {
  for (const [i, setting] of settings.entries()) {
    const entered = page.getByRole("group", { name: setting });
    await press(page, entered.getByRole("button", { name: "Record", exact: true }).first());
    const readBack = page.getByLabel("I read it back from there");
    await tabTo(page, readBack);
    await page.keyboard.press("Space");
    await page.keyboard.press("Control+Enter");
    await expect(page.getByText(/^entered and read back/)).toHaveCount(i + 1);
    await page.keyboard.press("Escape");
  }
}

test("the axis scale of Alder by keyboard: a ladder, two numbers, proved", async ({ page }) => {
  const faults = watch(page);
  await beginByKeys(page, "axis scale on alder", "Axis scale");
  const span = page.getByLabel("Length along X");
  await tabTo(page, span);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("20");
  await expect(page.getByText(/between 37 and/)).toBeVisible();
  await tabTo(page, span);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("5 in");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.keyboard.press("Alt+Enter");
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  const settings = ["Axis scale X", "Axis scale Y"];
  await confirmAll(page, settings);
  await accessible(page);
  await recordAll(page, settings);
  await press(page, page.getByRole("button", { name: "Burn the proof" }));
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Accept: proved" }));
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  // What it makes stale is said where it stands.
  await page.goto("/machine/alder/scan-offset");
  await expect(page.getByText("the axis scale was changed")).toBeVisible();
  faults.none();
});

test("the origin of Alder by keyboard, in counts: the sense is not known, two corrections, proved", async ({
  page,
}) => {
  const faults = watch(page);
  await beginByKeys(page, "origin on alder", "Origin");
  await tabTo(page, page.getByLabel("Readings per point"));
  await page.keyboard.press("Control+a");
  await page.keyboard.type("4");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.keyboard.press("Alt+Enter");
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  const settings = ["Home offset X", "Home offset Y"];
  await expect(page.getByText("120 counts")).toBeVisible();
  await confirmAll(page, settings);
  await expect(page.getByText(/The effect of a larger offset of X is not known/)).toBeVisible();
  await accessible(page);
  await recordAll(page, settings);
  await press(page, page.getByRole("button", { name: "Burn the proof" }));
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  // One of the two went the wrong way, or both: the second correction knows.
  await expect(page.getByRole("heading", { name: "Not proved" })).toBeVisible();
  await page.goto(page.url().replace(/\/prove.*/, "/correct?round=2"));
  await press(page, page.getByRole("button", { name: "How each number came about" }).first());
  await expect(page.getByText(/as the last two burns show/).first()).toBeVisible();
  await confirmAll(page, settings);
  await recordAll(page, settings);
  await press(page, page.getByRole("button", { name: "Burn another proof" }));
  await burnByKeys(page);
  await readByKeys(page);
  await page.keyboard.press("Alt+Enter");
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await press(page, page.getByRole("button", { name: "Accept: proved" }));
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  faults.none();
});

/** Reads everything the practice hand can, with the gauge that stands first. */
test("squareness of Bracken: the beam is shifted, noted, and proved by another rectangle", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Bracken", "Squareness");
  await page.getByLabel("Readings per point").fill("4");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  await expect(page.getByRole("cell", { name: /mm (toward|away from) you|leave it/ })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "I have done this" }).click();
  await expect(page.getByText("Done, and noted as a change of Bracken.")).toBeVisible();
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Prove", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();
  await page.goto("/machine/bracken");
  await openConcern(page, "Changes");
  await expect(page.getByText(/right end of the beam .* you/).first()).toBeVisible();
  faults.none();
});

test("the stops of Alder's pallet: a cross, where they stand, another cross placed by them", async ({ page }) => {
  const faults = watch(page);
  await beginTrial(page, "Alder", "Fixture stops");
  await page.getByLabel("Arm of the cross").fill("50");
  await expect(page.getByText(/reach over the stop/).first()).toBeVisible();
  await page.getByLabel("Arm of the cross").fill("20");
  await page.getByLabel("Readings per point").fill("4");
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  for (const setting of ["Fixture stop X", "Fixture stop Y"]) {
    const card = page.getByRole("region", { name: "Read back" }).filter({ hasText: setting });
    await card.getByRole("button", { name: "It is not known" }).click();
    await expect(page.getByText(new RegExp(`${setting}: .* during the burn\\.$`))).toBeVisible();
    await page
      .getByRole("group", { name: setting })
      .getByRole("button", { name: "Record", exact: true })
      .first()
      .click();
    await page.getByRole("button", { name: "Record as entered" }).click();
    await expect(page.getByRole("group", { name: setting }).getByText(/^entered/)).toBeVisible();
  }
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Prove", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  faults.none();
});
