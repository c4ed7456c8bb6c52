import { describe, expect, it } from "vitest";
import type { Piece } from "../../core/coupon/piece";
import { scaleFromCoupon, scaleFromDpi } from "../../core/picture/picture-scale";
import { placeCoupon, placementOf } from "../../core/picture/place-coupon";
import { readPicture } from "../../core/picture/read-picture";
import {
  type Burned,
  burnedLadder,
  burnedRows,
  focusBoth,
  pictureOf,
  readOf,
  rms,
  type SiteError,
  siteErrors,
} from "./picture-accuracy";

const STAGGERS = /^v\d/;
const staggers = (errors: SiteError[]) => errors.filter((e) => STAGGERS.test(e.site));

describe("a picture of a scan-offset coupon", () => {
  it("shows the stagger of forty rows to under half a micrometre, turned, unevenly lit, at 1200 and 2400 dpi", () => {
    const errors = [
      { seed: 1, speed: 300, dpi: 1200, turnDeg: 0.7 },
      { seed: 2, speed: 500, dpi: 1200, turnDeg: -5 },
      { seed: 3, speed: 100, dpi: 1200, turnDeg: 4.2 },
      { seed: 4, speed: 400, dpi: 2400, turnDeg: 1.3 },
    ].flatMap(({ seed, speed, dpi, turnDeg }) => {
      const coupon = burnedRows(seed, speed);
      return staggers(siteErrors(coupon, readOf(coupon, pictureOf(coupon, { dpi, turnDeg }, seed), dpi)));
    });
    expect(errors).toHaveLength(8);
    expect(rms(errors)).toBeLessThan(0.0005);
    // It says how well it knows them: row ends scatter by 3 um, which each of forty takes its share of.
    for (const e of errors) {
      expect(Math.abs(e.error), e.site).toBeLessThan(3 * e.u);
      expect(e.u, e.site).toBeLessThan(0.0025);
    }
  });

  it("is read any way up, and on a coupon with rows that are lost", () => {
    const coupon = burnedRows(5, 300);
    const [lost, kept] = [coupon.marks.length, coupon.marks.filter((_, i) => i % 9 !== 4)];
    expect(kept.length).toBeLessThan(lost);
    const holey: Burned = { ...coupon, marks: kept };
    const read = readOf(coupon, pictureOf(holey, { turnDeg: 180 + 2 }, 5), 1200);
    const errors = staggers(siteErrors(holey, read));
    expect(errors).toHaveLength(2);
    expect(rms(errors)).toBeLessThan(0.001);
    expect(errors.every((e) => /not seen/.test(e.note))).toBe(true);
    const sideways = siteErrors(coupon, readOf(coupon, pictureOf(coupon, { turnDeg: 88 }, 5), 1200));
    expect(rms(staggers(sideways))).toBeLessThan(0.001);
  });

  it("tells rows that went right by the witness strip where the controller began the other way", () => {
    const coupon = burnedRows(6, 400);
    const block = coupon.spec.sites.find((s) => s.measurand.kind === "distance");
    if (block?.measurand.kind !== "distance" || block.measurand.from.kind !== "row ends") throw new Error("no block");
    const { y0, y1 } = block.measurand.from.within;
    // The same coupon with every row of the block burned the other way round: what stood out stands back.
    const mirrored = coupon.marks.map((m) => {
      const y = m.y0 - coupon.at.yMm;
      if (y < y0 || y > y1) return m;
      const shift = y0 + y1 - y - y;
      return { ...m, y0: m.y0 + shift, y1: m.y1 + shift };
    });
    const [asBefore] = staggers(siteErrors(coupon, readOf(coupon, pictureOf(coupon, {}, 6), 1200)));
    const other = { ...coupon, marks: mirrored };
    const [turned] = staggers(siteErrors(other, readOf(coupon, pictureOf(other, {}, 6), 1200)));
    expect(Math.abs(asBefore?.error ?? 1)).toBeLessThan(0.0015);
    expect(Math.abs(turned?.error ?? 1)).toBeLessThan(0.0015);
  });
});

describe("a picture of a height ladder", () => {
  it("shows widths to under a micrometre where they are wider than four blurs, and says so where they are not", () => {
    const errors = [1, 2].flatMap((seed) => {
      const coupon = burnedLadder(seed);
      return siteErrors(coupon, readOf(coupon, pictureOf(coupon, { turnDeg: seed === 1 ? 0.7 : -4 }, seed), 1200));
    });
    const isNarrow = (e: SiteError) => /narrow/.test(e.note);
    const [wide, narrow] = [errors.filter((e) => !isNarrow(e)), errors.filter(isNarrow)];
    expect(wide.length).toBeGreaterThanOrEqual(8);
    expect(rms(wide)).toBeLessThan(0.001);
    expect(narrow.length).toBeGreaterThanOrEqual(2);
    for (const e of narrow) expect(Math.abs(e.error), e.site).toBeLessThan(2 * e.u);
    const mean = (of: SiteError[]) => of.reduce((sum, e) => sum + e.u, 0) / of.length;
    expect(mean(narrow)).toBeGreaterThan(2 * mean(wide));
  });

  it.each([
    { seed: 1, dpi: 600, blurPx: 1.1, most: 0.005 },
    { seed: 4, dpi: 600, blurPx: 0.8, most: 0.005 },
    { seed: 5, dpi: 300, blurPx: 1.1, most: 0.012 },
  ])(
    "reads lines that are all narrow by their shape, at $dpi dpi, within what it says",
    ({ seed, dpi, blurPx, most }) => {
      const coupon = burnedLadder(seed);
      const errors = siteErrors(coupon, readOf(coupon, pictureOf(coupon, { dpi, blurPx }, seed), dpi));
      expect(errors.length).toBeGreaterThanOrEqual(4);
      for (const e of errors) {
        expect(e.note).toMatch(/narrow/);
        expect(Math.abs(e.error), e.site).toBeLessThan(2 * e.u);
      }
      expect(rms(errors)).toBeLessThan(most);
    },
  );

  it.each([
    { seed: 1, dpi: 600 },
    { seed: 3, dpi: 600 },
    { seed: 5, dpi: 1200 },
  ])("gives the focus height that the true widths give, at $dpi dpi", ({ seed, dpi }) => {
    const coupon = burnedLadder(seed);
    const focus = focusBoth(coupon, readOf(coupon, pictureOf(coupon, { dpi }, seed), dpi));
    // A hundredth of a mm, where cells are half a mm apart.
    expect(Math.abs((focus.seen ?? 0) - (focus.true ?? 1))).toBeLessThan(0.01);
  });

  it("tells cells that did not mark from those that did", () => {
    const coupon = burnedLadder(1);
    const read = readOf(coupon, pictureOf(coupon, {}, 1), 1200);
    if (!read.ok) throw new Error(read.why);
    const blank = read.sites.filter((s) => !s.ok && s.isBlank).map((s) => s.site);
    expect(blank).toContain("width-1");
    expect(blank).toContain("width-17");
    expect(blank).not.toContain("width-9");
  });
});

describe("a picture that does not show the coupon as said", () => {
  const coupon = burnedLadder(3);
  const picture = pictureOf(coupon, { dpi: 600 }, 3);
  const whyOf = (read: ReturnType<typeof readOf>) => (read.ok ? "read" : read.why);

  const scaled = [coupon, burnedRows(1, 300)].map((burned) => ({
    piece: burned.spec.pieces[0] as Piece,
    seen: pictureOf(burned, { dpi: 600, turnDeg: 2 }, 3),
  }));

  it("is refused by name: another coupon, none at all, half of it, mirrored, another scale", () => {
    const other = burnedRows(3, 300);
    expect(whyOf(readOf(other, picture, 600))).toMatch(/was not found/);
    const blank = { ...picture, grey: picture.grey.map((_, i) => 200 + (i % 7)) };
    expect(whyOf(readOf(coupon, blank, 600))).toMatch(/was not found/);
    const whole = pictureOf(other, { dpi: 600 }, 3);
    const height = Math.round(whole.height * 0.7);
    const half = { width: whole.width, height, grey: whole.grey.slice(0, whole.width * height) };
    expect(whyOf(readOf(other, half, 600))).toMatch(/shows only \d+ % of the coupon/);
    const mirrored = picture.grey.map((_, i) => {
      const column = i % picture.width;
      return picture.grey[i - column + picture.width - 1 - column] as number;
    });
    expect(whyOf(readOf(coupon, { ...picture, grey: mirrored }, 600))).toMatch(/mirrored/);
    expect(whyOf(readOf(coupon, picture, 1200))).toMatch(/The scale is wrong.*0\.500 times/);
  });

  it.each([0.012, 0.02, -0.01, -0.03])("is read with a scale that is wrong by %f, and says by how much", (off) => {
    const dpi = 600 * (1 + off);
    for (const { piece, seen } of scaled) {
      const placed = placeCoupon(seen, piece, scaleFromDpi(dpi, dpi, "typed"));
      if (!placed.ok) throw new Error(placed.why);
      const { scaleError } = placementOf(placed, piece);
      expect(Math.abs((scaleError ?? 1) - (1 / (1 + off) - 1))).toBeLessThan(0.001);
      // By its rows it has the scale that the scan has.
      const { xPixelsPerMm } = scaleFromCoupon(scaleFromDpi(dpi, dpi), 1 + (scaleError ?? 1));
      expect(Math.abs((xPixelsPerMm * 25.4) / 600 - 1)).toBeLessThan(0.001);
    }
  });

  it("tells by how much the scale is wrong, so that the coupon itself can be gone by", () => {
    const [piece] = coupon.spec.pieces;
    if (!piece) throw new Error("nothing is burned");
    const said = scaleFromDpi(1200, 1200);
    const read = readPicture(picture, piece, coupon.spec.sites, said);
    if (read.ok || read.scaleTimes === null) throw new Error("the scale is not told");
    const again = readPicture(picture, piece, coupon.spec.sites, scaleFromCoupon(said, read.scaleTimes));
    expect(again.ok && Math.abs(again.scaleError ?? 1)).toBeLessThan(0.0005);
  });
});
