/** Colours of a practice array of steel, from the scan of a scanner with a tint of its own. Bare oxide colours are known to the practice machine alone. */
import { describe, expect, it } from "vitest";
import { colourScanOfArray } from "../../burning/scanned-colours";
import { colourDifference } from "../../core/colour/difference";
import { labOfLinear, linearOf } from "../../core/colour/lab";
import { colourPng } from "../../formats/png-writer";
import { cellLooks } from "../../practice/cell-look";
import { oxideColour } from "../../practice/oxide-colour";
import { demoCopy, NOW } from "../../testing/test-bench";
import { burnOnPractice, practiceBurnOf } from "../trial/burn-on-practice";
import { fullTrial, roundOf } from "../trial/trial-record";
import { beginTrial, keepDraft } from "../trial/trial-steps";
import { cellColours } from "./array-picture";
import { takePicture } from "./picture-steps";

const STOCK = "birch-plywood-3-mm/spring";

async function scanned() {
  const db = demoCopy();
  const trialId = beginTrial(db, "cinder", "test-array", NOW, STOCK);
  keepDraft(db, trialId, 1, { ...roundOf(fullTrial(db, trialId), 1).draft, score: "colour" });
  burnOnPractice(db, trialId, 1, null, NOW);
  const full = fullTrial(db, trialId);
  const round = roundOf(full, 1);
  const burn = practiceBurnOf(db, full, round);
  const look = round.spec?.sites.find((s) => s.measurand.kind === "cell colour")?.measurand;
  const [piece] = round.spec?.pieces ?? [];
  if (!burn || !piece || look?.kind !== "cell colour") throw new Error("not burned");
  const scan = colourScanOfArray({ ...burn, piece, machine: full.machine }, look, 300, 5);
  const { id } = await takePicture(db, trialId, 1, "colours.png", await colourPng(scan), NOW);
  const surface = { seed: burn.seed, stock: piece.stockKey ?? "", topSpeedMmPerS: full.machine.topSpeedMmPerS };
  const truth = cellLooks(look.cells, burn.marks, burn.corner, surface).map((cell) => {
    const [red, green, blue] = oxideColour(cell?.oxideNm ?? 0).map(linearOf);
    return labOfLinear([red ?? 0, green ?? 0, blue ?? 0]);
  });
  return { db, trialId, picture: id, cards: scan.cards, truth };
}

describe("colours in a scan of a practice array", () => {
  it("are those of the cells, within what an eye hardly sees", async () => {
    const { db, trialId, picture, cards, truth } = await scanned();
    const read = await cellColours(db, { trialId, n: 1, picture, cards });
    if (!read.ok) throw new Error(read.why);
    const off = read.colours.map((colour, i) => {
      const own = truth[i];
      return colour && own ? colourDifference(colour, own) : Number.NaN;
    });
    const sorted = [...off].sort((a, b) => a - b);
    expect(sorted).toHaveLength(49);
    expect(sorted[24] ?? 9).toBeLessThan(2);
    expect(sorted.at(-1) ?? 9).toBeLessThan(4);
    // Cells differ far more from each other.
    const [first, last] = [truth[0], truth.at(-1)];
    expect(first && last ? colourDifference(first, last) : 0).toBeGreaterThan(15);
  });

  it("are refused without the cards, and for a picture that is not of this round", async () => {
    const { db, trialId, picture, cards } = await scanned();
    const beside = { ...cards, grey: { x: 400, y: 400 } };
    expect(await cellColours(db, { trialId, n: 1, picture, cards: beside })).toMatchObject({ ok: false });
    await expect(cellColours(db, { trialId, n: 1, picture: picture + 1, cards })).rejects.toThrow(
      /does not show the colours/,
    );
  });
});
