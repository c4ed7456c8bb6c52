import { parseDxf } from "../src/formats/dxf-parser";
import { parseSvgDrawing } from "../src/formats/svg-drawing";
import { expect, test } from "./bench";
import { openConcern } from "./concern";
import { pick } from "./pick";
import { accessible, beginReading, burnAndReadAll, downloaded, watch } from "./watch";

test("a line once around Bracken's roller is proved, and what was set aside for it is put back", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/machine/bracken/rotary");
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.waitForURL(/lay-out/);
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  // What is typed wrong is told at its field, with what it may be instead.
  const across = page.getByLabel("Diameter, where it is marked");
  await across.fill("188.5");
  await expect(page.getByText(/does not fit .*between 8 and 90 mm.*circumference/)).toBeVisible();
  await across.fill("2.4");
  await expect(page.getByText(/Type an inch size with its unit/)).toBeVisible();
  await across.fill("60");
  await page.getByLabel("Two lines a length apart, burned").check();
  await page.getByLabel("From line to line").fill("300");
  await expect(page.getByText(/would overlap its beginning/)).toBeVisible();
  await page.getByLabel("A line once around, and the gap that it leaves").check();
  await expect(page.getByText("Everything fits. The layout is kept.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "To the burn" }).click();
  await expect(
    page.getByText("Switch off the travel limits of Y for this burn. Switch them on again afterwards."),
  ).toBeVisible();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);

  // The words by a key, whole turns, what is typed wrong; the rest as the hand takes it.
  await expect(page.getByRole("heading", { name: "The words" })).toBeVisible();
  await page.keyboard.press("1");
  await page.getByRole("button", { name: "Take" }).click();
  await expect(page.getByRole("heading", { name: "Whole turns too many" })).toBeVisible();
  await page.keyboard.type("2.5");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/whole number/)).toBeVisible();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Line 3 to line 1" })).toBeVisible();
  await page.keyboard.type("2,,0");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").first()).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Read all that is left" }).click();
  await expect(page.getByText(/^(\d+) of \1 sites read\.$/)).toBeVisible({ timeout: 60_000 });

  await page.getByRole("link", { name: "Correct", exact: true }).last().click();
  for (const held of [/6400 steps/, /20 mm/]) {
    await page.getByRole("button", { name: "Yes, I read that back" }).first().click();
    await expect(page.getByText(held).first()).toBeVisible();
  }
  await expect(page.getByText("The workpiece returns to its starting point.")).toBeVisible();
  await expect(page.getByText("Motor, driver and gear agree with 6400 steps per revolution.")).toBeVisible();
  await page.getByText("How each number came about").click();
  await expect(page.getByText(/so it is the roller under its load/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Record" }).click();
  await page.getByLabel("I read it back from there").check();
  await page.getByRole("button", { name: "Record as entered" }).click();
  await expect(page.getByText("✓ Controller of Bracken")).toBeVisible();
  await page.getByRole("button", { name: "Burn the proof" }).click();
  await burnAndReadAll(page);
  await page.getByRole("link", { name: "Prove", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: "Proved" })).toBeVisible();
  await page.getByRole("button", { name: "Accept: proved" }).click();
  await expect(page.getByText(/^Accepted/)).toBeVisible();

  // Open on the bench until each is put back; one not after all.
  await page.goto("/");
  const waiting = page.getByRole("complementary", { name: "What waits" });
  await expect(waiting.getByText(/it was: Axis scale Y, 6\.\d+ µm/)).toBeVisible();
  for (const what of ["the travel limits of Y are off", "homing is off"]) {
    await waiting.getByRole("button", { name: `Put back ${what}` }).click();
    await expect(waiting.getByText(what)).toHaveCount(0);
  }
  await page.getByRole("button", { name: "Not after all" }).first().click();
  await expect(waiting.getByText("homing is off").first()).toBeVisible();
  await waiting.getByRole("button", { name: "Put back homing is off" }).click();
  await waiting.getByRole("button", { name: /^Entered again/ }).click();
  await expect(waiting.getByText("To put back")).toHaveCount(0);
  await accessible(page);
  faults.none();
});

test("other parts come out of what was proved, and artwork is made for a taper", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/machine/bracken");
  await (await openConcern(page, "Rotary")).getByRole("link", { name: "Round parts" }).click();
  const follows = page.getByRole("region", { name: "What follows" });
  await expect(follows.getByText("188.50 mm")).toBeVisible();
  await expect(follows.getByText(/π × 20 mm ÷ 6400 steps/)).toBeVisible();
  await page.getByLabel("Across, where marked").fill("0");
  await expect(page.getByText("It must be larger than 0.")).toBeVisible();
  await page.getByLabel("Across, where marked").fill("30");
  await page.getByLabel("Artwork is long, around").fill("100");
  await expect(follows.getByText(/overlaps by 5\.75 mm/)).toBeVisible();
  await pick(page.getByLabel("The part is"), "A neck: it lies on another diameter");
  await page.getByLabel("Across, on the rollers").fill("60");
  await expect(follows.getByText("2.0000 along Y")).toBeVisible();

  await page.getByLabel("A drawing (SVG or DXF):").setInputFiles({
    name: "none.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from("<svg>not to its end"),
  });
  await expect(page.getByRole("alert").first()).toBeVisible();
  await page.getByLabel(/Another drawing:/).setInputFiles("examples/rotary/label.svg");
  await expect(page.getByText(/runs over its own beginning/)).toBeVisible();
  await pick(page.getByLabel("The part is"), "A taper: a cup, a cone");
  await expect(page.getByText(/leaves a gap of/)).toBeVisible();
  await expect(follows.getByText(/4\.98° to the axis/)).toBeVisible();
  await accessible(page);
  const svg = parseSvgDrawing(await downloaded(page, "Download SVG"));
  const dxf = parseDxf(await downloaded(page, "Download DXF"));
  if (!svg.ok || !dxf.ok) throw new Error("what was downloaded cannot be read");
  expect(svg.value.paths).toHaveLength(7);
  expect(dxf.value.paths.map((p) => p.layer)).toContain("scale");
  // A straight row of the label is bent as it is sent.
  const row = svg.value.paths.find((p) => p.within.some((n) => n.attributes.id === "scale"))?.points ?? [];
  expect(Math.max(...row.map((p) => p.x)) - Math.min(...row.map((p) => p.x))).toBeGreaterThan(1);
  // It is there after a reload.
  await page.reload();
  await expect(page.getByText(/^label\.svg/)).toBeVisible();
  faults.none();
});

test("a rotary is described, refused where it contradicts itself, and fitted", async ({ page }) => {
  const faults = watch(page);
  await page.goto("/machine/alder");
  const card = await openConcern(page, "Rotary");
  await card.getByRole("button", { name: "Add a rotary" }).click();
  const form = page.getByRole("form", { name: "New rotary" });
  await form.getByLabel("Name").fill("Stake chuck");
  await pick(form.getByLabel("Drive"), "a chuck holds it");
  await form.getByLabel("Full steps of its motor").fill("200");
  await form.getByLabel("Microsteps").fill("16.5");
  await form.getByLabel("Turns of the motor").fill("60/20");
  await form.getByRole("button", { name: "Add it" }).click();
  await expect(form.getByText(/Pulses are whole/)).toBeVisible();
  await form.getByLabel("Microsteps").fill("16");
  await form.getByLabel("Steps per revolution").fill("5000");
  await form.getByRole("button", { name: "Add it" }).click();
  await expect(form.getByText(/make 9600, not 5000/)).toBeVisible();
  await form.getByLabel("Steps per revolution").fill("");
  await form.getByLabel("Travel limits of the axis").check();
  await form.getByLabel("And besides").fill("the red fan is off");
  await accessible(page);
  await form.getByRole("button", { name: "Add it" }).click();
  await expect(form).toHaveCount(0);
  await card.getByRole("button", { name: "Fit a rotary" }).click();
  await pick(card.getByLabel("Now fitted"), "Stake chuck");
  await card.getByRole("button", { name: "It is swapped" }).click();
  await expect(card.getByText(/chuck, 9600 steps per revolution, in the place of Y/).first()).toBeVisible();
  await page.goto("/machine/alder/rotary");
  await page.getByRole("button", { name: "Begin trial" }).click();
  await page.waitForURL(/lay-out/);
  await expect(page.getByLabel("A chuck holds it")).toBeChecked();
  await expect(page.getByLabel("Runout")).toBeVisible();
  await page.getByRole("link", { name: "To the burn" }).click();
  await expect(page.getByText("Set for this burn: the red fan is off. Restore it afterwards.")).toBeVisible();
  faults.none();
});
