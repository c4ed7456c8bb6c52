/** Microscope shots, and parts of scans, that show one place of a coupon each. */
import { describe, expect, it } from "vitest";
import type { Site } from "../../core/coupon/site";
import { scaleFromDpi } from "../../core/picture/picture-scale";
import { isSeen, readPart } from "../../core/picture/read-part";
import type { SiteRead } from "../../core/picture/read-picture";
import { burnedLadder, burnedRows, pictureOf, readOf, rms, type SiteError, siteErrors } from "./picture-accuracy";

/** Distance of the one-way rows above a block, mm. */
const WITNESS_MM = 3;

/** A box around the found marks, with a margin in mm, part of the rows, and the one-way rows above a block. */
function boxAround(
  { site, marks }: SiteRead,
  { width, height }: { width: number; height: number },
  perMm: number,
  above = WITNESS_MM,
) {
  const points = marks.flatMap((m) => (m.kind === "point" ? [m.at] : [m.from, m.to]));
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return {
    x0: Math.max(0, Math.floor(Math.min(...xs) - 6 * perMm)),
    x1: Math.min(width, Math.ceil(Math.max(...xs) + 6 * perMm)),
    y0: Math.max(0, Math.floor(Math.min(...ys) - (/^v\d/.test(site) ? above : 0.8) * perMm)),
    y1: Math.min(height, Math.ceil(Math.max(...ys) + 0.8 * perMm)),
  };
}

describe("a part of a picture that shows one place of the coupon", () => {
  const DPI = 1200;
  const perMm = DPI / 25.4;
  const scale = scaleFromDpi(DPI, DPI);
  const cases = [
    { name: "ends of rows", burned: burnedRows(2, 400), turnDeg: 4 },
    { name: "ends of rows, upright", burned: burnedRows(1, 300), turnDeg: 0.7 },
    { name: "widths of lines", burned: burnedLadder(2), turnDeg: -3 },
  ];

  it.each(cases)("is read as well as with all of it: $name", ({ burned, turnDeg }) => {
    const picture = pictureOf(burned, { dpi: DPI, turnDeg }, 2);
    const [piece] = burned.spec.pieces;
    const whole = readOf(burned, picture, DPI);
    if (!piece || !whole.ok) throw new Error("nothing is read");
    const readable = whole.sites.filter((s) => s.ok && !/narrow/.test(s.note));
    expect(readable.length).toBeGreaterThanOrEqual(4);
    const parts = readable.map((s) => {
      const site = burned.spec.sites.find((q) => q.id === s.site) as Site;
      return readPart(picture, piece, site, boxAround(s, picture, perMm), scale).read;
    });
    const errors = siteErrors(burned, { ...whole, sites: parts });
    expect(errors.length).toBeGreaterThanOrEqual(readable.length - 1);
    for (const e of errors) expect(Math.abs(e.error), e.site).toBeLessThan(3 * e.u);
    expect(rms(staggersOrWidths(errors))).toBeLessThan(0.001);
  });

  it("is refused where a line goes on beyond its place, which nothing tells then, as on a ramp", () => {
    const burned = burnedRows(1, 300);
    const picture = pictureOf(burned, { dpi: 300 }, 1);
    const [piece] = burned.spec.pieces;
    const row = burned.spec.sites.find((s) => s.measurand.kind === "distance");
    if (!piece || row?.measurand.kind !== "distance" || row.measurand.from.kind !== "row ends")
      throw new Error("no rows");
    const { x0, x1, y0, y1 } = row.measurand.from.within;
    const middle = { x0: x0 + (x1 - x0) / 3, x1: x1 - (x1 - x0) / 3, y0, y1 };
    const widthIn = (within: typeof middle): Site => ({
      ...row,
      measurand: { kind: "width", of: { kind: "line", within } },
    });
    const part = widthIn(middle);
    expect(isSeen(piece, part)).toBe(false);
    // Whole lines are seen, one of them alone is not.
    const whole = { x0: x0 - 5, x1: x1 + 5, y0, y1 };
    expect(isSeen(piece, widthIn(whole))).toBe(true);
    expect(isSeen(piece, widthIn({ ...whole, y1: y0 + 0.6 }))).toBe(false);
    expect(isSeen(piece, row)).toBe(true);
    const box = { x0: 0, y0: 0, x1: picture.width, y1: picture.height };
    const { read } = readPart(picture, piece, part, box, scaleFromDpi(300, 300));
    expect(read.ok ? "" : read.why).toMatch(/take one of the whole coupon/);
  });

  it("is refused where not all marks of the place are there, or others", () => {
    const burned = burnedRows(1, 300);
    const picture = pictureOf(burned, { dpi: DPI }, 1);
    const [piece] = burned.spec.pieces;
    const whole = readOf(burned, picture, DPI);
    if (!piece || !whole.ok) throw new Error("nothing is read");
    const read = whole.sites.find((s) => s.site === "v300-right") as SiteRead;
    const site = burned.spec.sites.find((s) => s.id === read.site) as Site;
    const box = boxAround(read, picture, perMm);
    const middle = Math.round((box.y0 + box.y1) / 2);
    const whyOf = (of: typeof box) => {
      const part = readPart(picture, piece, site, of, scale).read;
      return part.ok ? "read" : part.why;
    };
    expect(whyOf(box)).toBe("read");
    // Nothing else in such a shot shows which rows went right.
    expect(whyOf(boxAround(read, picture, perMm, 0.4))).toMatch(/one-way rows/);
    expect(whyOf({ ...box, y1: middle })).toMatch(/box/);
    expect(whyOf({ x0: 0, y0: 0, x1: 60, y1: 60 })).toMatch(/not found in this box/);
    expect(() => whyOf({ ...box, x1: picture.width + 1 })).toThrow(/does not lie in the picture/);
  });
});

/** Steps of the reference, by six rows alone, are known to some micrometres: by what they say, above. */
function staggersOrWidths(errors: SiteError[]): SiteError[] {
  return errors.filter((e) => !e.site.startsWith("reference"));
}
