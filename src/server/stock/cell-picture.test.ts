/** An array on a practice machine, scored from its scan and stored on the card: the card shows its cell and its state. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { SHEET_CELL_PX, SHEET_COLUMNS } from "../../core/picture/array/cell-sheet";
import { readArray } from "../../core/picture/array/read-array";
import { CHARRED_SITE, SCAN_SITE } from "../../core/procedures/test-array/coupon";
import { resultsOfTrial } from "../../data/stocks";
import { decodePicture } from "../../formats/picture-decoder";
import { demoCopy, NOW } from "../../testing/test-bench";
import { cellSheetPng } from "../pictures/array-picture";
import { acceptPicture, takePicture } from "../pictures/picture-steps";
import { burnOnPractice } from "../trial/burn-on-practice";
import { practiceScan } from "../trial/practice-scan";
import { fullTrial, readingStamp, roundOf } from "../trial/trial-record";
import { beginTrial } from "../trial/trial-steps";
import { keepForStock } from "../trial/trial-stock";
import { cellPicture } from "./cell-picture";
import { stockView } from "./stock-view";

const BIRCH = "birch-plywood-3-mm";

describe("marking settings on a card", () => {
  it("show the chosen cell in its picture, and the state of their trial", async () => {
    const db = demoCopy();
    const id = beginTrial(db, "alder", "test-array", NOW, `${BIRCH}/spring`);
    burnOnPractice(db, id, 1, null, NOW);
    const scan = await practiceScan(db, fullTrial(db, id), 1, 300);
    const { id: picture } = await takePicture(db, id, 1, "scan.png", scan, NOW);
    const spec = roundOf(fullTrial(db, id), 1).spec;
    const look = spec?.sites.find((s) => s.id === SCAN_SITE)?.measurand;
    if (look?.kind !== "cell look") throw new Error("no array");
    const read = readArray(await decodePicture(scan), look);
    if (!read.ok) throw new Error(read.why);
    const readings = [
      { site: SCAN_SITE, scores: read.scores, edited: false },
      { site: CHARRED_SITE, blank: true as const },
    ];
    acceptPicture(db, { trialId: id, n: 1, picture, readings, key: "a cell picture" }, NOW);
    keepForStock(db, id, 1, readingStamp(fullTrial(db, id), 1), NOW);
    const [kept] = resultsOfTrial(db, id);
    const png = await cellPicture(db, kept?.id ?? 0);
    if (!png) throw new Error("no picture");
    const { data, info } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
    expect(Math.max(info.width, info.height)).toBeLessThanOrEqual(220);
    const at = (x: number, y: number) =>
      data[(Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels] ?? 0;
    // The middle is the mark, the corners are blank stock.
    const middle = (at(0.45, 0.45) + at(0.5, 0.5) + at(0.55, 0.55)) / 3;
    const around = (at(0.05, 0.05) + at(0.95, 0.95) + at(0.05, 0.95)) / 3;
    expect(middle).toBeLessThan(0.85 * around);
    // The sheet of all cells has the chosen one in its place, as dark as its cut-out.
    const sheet = await cellSheetPng(db, id, 1);
    if (!sheet) throw new Error("no sheet");
    const all = await sharp(sheet).raw().toBuffer({ resolveWithObject: true });
    expect(all.info.width).toBe(SHEET_COLUMNS * SHEET_CELL_PX);
    expect(all.info.height).toBe(Math.ceil(look.cells.length / SHEET_COLUMNS) * SHEET_CELL_PX);
    const darkest = read.scores.reduce<number>((a, score, i) => ((score ?? 0) > (read.scores[a] ?? 0) ? i : a), 0);
    const palest = read.scores.reduce<number>((a, score, i) => ((score ?? 1) < (read.scores[a] ?? 1) ? i : a), 0);
    const meanOf = (k: number) => {
      const [left, top] = [(k % SHEET_COLUMNS) * SHEET_CELL_PX, Math.floor(k / SHEET_COLUMNS) * SHEET_CELL_PX];
      let sum = 0;
      for (let y = 8; y < SHEET_CELL_PX - 8; y++)
        for (let x = 8; x < SHEET_CELL_PX - 8; x++)
          sum += all.data[((top + y) * all.info.width + left + x) * all.info.channels] ?? 0;
      return sum / (SHEET_CELL_PX - 16) ** 2;
    };
    expect(meanOf(darkest)).toBeLessThan(0.7 * meanOf(palest));
    const shown = stockView(db, BIRCH, NOW)?.results.find((r) => r.id === kept?.id);
    expect(shown).toMatchObject({ pictured: true, standing: { state: "open" } });
    expect(await cellPicture(db, 999_999)).toBeNull();
  });
});
