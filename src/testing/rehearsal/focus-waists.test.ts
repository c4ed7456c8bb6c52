/** Heads whose waists along X and Y are apart, on ladders with lines both ways. Seeds 32000 to 32059; errors as in `focus-ladder`. */
import { describe, expect, it } from "vitest";
import { expandedUncertainty } from "../../core/metrology/measured";
import { focus } from "../../core/procedures/focus/procedure";
import { focusOf } from "../../practice/gantry-truth";
import { shownFocus } from "../../practice/head-height";
import { ladderHead, widthLadder } from "./focus-ladder";

const SEEDS = Array.from({ length: 60 }, (_, i) => 32_000 + i);
/** Three standard deviations below 95 %. */
const HELD = 0.95 - 3 * Math.sqrt((0.05 * 0.95) / SEEDS.length);

/** Seeds 33000 on, of lines along X. */
const MORE = 200;

function headsApart(apartMm: number) {
  return SEEDS.map((seed) => {
    const truth = ladderHead(seed, apartMm);
    const outcome = focus.solve(widthLadder(truth, { marks: "lines both ways" }) as never);
    if (outcome.status !== "solved") throw new Error(`seed ${seed}: ${outcome.status}`);
    const middle = outcome.estimates.find((e) => e.id === "focus")?.quantity;
    if (!middle) throw new Error(`seed ${seed}: no focus`);
    const isHeld = Math.abs(middle.value - shownFocus(focusOf(truth))) <= expandedUncertainty(middle);
    return { isSaid: outcome.findings.some((f) => f.id === "two waists"), isHeld };
  });
}
const share = (of: readonly boolean[]) => of.filter(Boolean).length / of.length;

describe("two waists on a ladder", () => {
  it.each([
    [0.3, 0.8],
    [0.45, 0.95],
    [0.6, 0.95],
  ])("%f mm apart are said in a share of at least %f, and the middle is right", (apartMm, said) => {
    const heads = headsApart(apartMm);
    expect(share(heads.map((h) => h.isSaid))).toBeGreaterThanOrEqual(said);
    expect(share(heads.map((h) => h.isHeld))).toBeGreaterThanOrEqual(HELD);
  });

  it("are not said where there is one, but for one head in twenty, within what chance allows", () => {
    expect(share(headsApart(0).map((h) => h.isSaid))).toBeLessThanOrEqual(0.05 + 3 * Math.sqrt((0.05 * 0.95) / 60));
  });
});

describe("the focus by widths of lines along X", () => {
  it("is held by its interval on heads with texture, hand-set heights and astigmatism", () => {
    const held = Array.from({ length: MORE }, (_, i) => {
      const truth = ladderHead(33_000 + i);
      const outcome = focus.solve(widthLadder(truth) as never);
      const found = outcome.status === "solved" ? outcome.estimates.find((e) => e.id === "focus")?.quantity : undefined;
      return found !== undefined && Math.abs(found.value - shownFocus(focusOf(truth))) <= expandedUncertainty(found);
    });
    expect(share(held)).toBeGreaterThanOrEqual(0.95 - 3 * Math.sqrt((0.05 * 0.95) / MORE));
  });
});
