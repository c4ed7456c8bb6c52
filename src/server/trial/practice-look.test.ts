import sharp from "sharp";
import { expect, it } from "vitest";
import type { Site } from "../../core/coupon/site";
import { betweenJaws, type Jaw, jawsOnPiece } from "../../core/measuring/jaws-on-piece";
import type { Db } from "../../data/database";
import { demoCopy, NOW } from "../../testing/test-bench";
import { Refusal } from "../refusal";
import { burnOnPractice, readOnPractice } from "./burn-on-practice";
import { LOOK_MM, practiceLook } from "./practice-look";
import { fullTrial, roundOf } from "./trial-record";
import { beginTrial, openSession } from "./trial-steps";

/** Sets each jaw on the middle of the dark mark in its view. */
async function setBySight(
  db: Db,
  trial: number,
  jaws: NonNullable<ReturnType<typeof jawsOnPiece>>,
): Promise<[Jaw, Jaw]> {
  const [first, second] = await Promise.all(
    jaws.views.map(async (at, view): Promise<Jaw> => {
      const png = await practiceLook(db, fullTrial(db, trial), 1, at, jaws.acrossMm);
      const { data, info } = await sharp(png).extractChannel(0).raw().toBuffer({ resolveWithObject: true });
      let [sum, weight] = [0, 0];
      // Only a strip through the middle, in the direction of the jaws
      for (let i = 0; i < info.width; i++)
        for (let k = -20; k <= 20; k++) {
          const [x, y] = jaws.along.x === 1 ? [i, info.height / 2 + k] : [info.width / 2 + k, info.height - 1 - i];
          const dark = Math.max(0, 130 - (data[y * info.width + x] ?? 255));
          sum += dark * (i + 0.5);
          weight += dark;
        }
      return { view, offMm: (sum / weight / info.width - 0.5) * jaws.acrossMm };
    }),
  );
  if (!first || !second) throw new Error("two views");
  return [first, second];
}

it("the picture of a practice coupon agrees with the practice hand along X and along Y", async () => {
  const db = demoCopy();
  const trial = beginTrial(db, "alder", "axis-scale", NOW);
  burnOnPractice(db, trial, 1, null, NOW + 1);
  const calipers = fullTrial(db, trial).available.find((g) => g.kind === "calipers")?.id ?? "";
  openSession(db, trial, 1, calipers, { outside: 0, inside: 0 }, NOW + 2);
  const sites = roundOf(fullTrial(db, trial), 1).spec?.sites ?? [];
  const longest = (along: "x" | "y") =>
    sites.findLast((s: Site) => s.measurand.kind === "distance" && s.measurand.along === along);
  for (const along of ["x", "y"] as const) {
    const site = longest(along);
    const jaws = site && jawsOnPiece(site);
    if (!site || !jaws) throw new Error(along);
    const { input } = readOnPractice(db, trial, 1, site.id);
    if (input.kind !== "quantity") throw new Error(input.kind);
    const seen = betweenJaws(jaws, await setBySight(db, trial, jaws));
    expect(seen).toBeGreaterThan(50);
    // The hand scatters, and its gauge has a systematic error.
    expect(Math.abs(seen - Number.parseFloat(input.text)), along).toBeLessThan(0.1);
    // A view 0.8 mm further along shows the mark at the same point of the coupon.
    const [from, to] = jaws.views;
    if (!from || !to) throw new Error("two views");
    const further = { x: to.x + 0.8 * jaws.along.x, y: to.y + 0.8 * jaws.along.y };
    const moved = { ...jaws, views: [from, further] };
    expect(betweenJaws(moved, await setBySight(db, trial, moved)), along).toBeCloseTo(seen, 1);
  }
});

it("a picture that cannot be drawn is refused with the limit", async () => {
  const db = demoCopy();
  const trial = beginTrial(db, "alder", "axis-scale", NOW);
  const at = { x: 10, y: 10 };
  await expect(practiceLook(db, fullTrial(db, trial), 1, at, 5)).rejects.toThrow(/not burned on the practice machine/);
  burnOnPractice(db, trial, 1, null, NOW + 1);
  for (const across of [0, LOOK_MM.most + 1, Number.NaN])
    await expect(practiceLook(db, fullTrial(db, trial), 1, at, across)).rejects.toBeInstanceOf(Refusal);
  await expect(practiceLook(db, fullTrial(db, trial), 1, { x: Number.NaN, y: 0 }, 5)).rejects.toThrow(
    /The point is not a number/,
  );
});
