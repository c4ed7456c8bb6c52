/** Coupons drawn by a general-purpose renderer of SVG (librsvg), turned and blurred by libvips: nothing of the pictures is our own. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { MM_PER_INCH } from "../../core/metrology/units";
import { type Burned, burnedLadder, burnedRows, readOf, rms, siteErrors } from "./picture-accuracy";

const DPI = 1200;
const MARGIN_MM = 4;

async function rendered({ spec, marks, at }: Burned, turnDeg: number) {
  const [piece] = spec.pieces;
  if (!piece) throw new Error("nothing is burned");
  const [width, height] = [piece.widthMm + 2 * MARGIN_MM, piece.heightMm + 2 * MARGIN_MM];
  const place = (x: number, y: number) => ({ x: x - at.xMm + MARGIN_MM, y: height - MARGIN_MM - (y - at.yMm) });
  const lines = marks.map((m) => {
    const [a, b] = [place(m.x0, m.y0), place(m.x1, m.y1)];
    return `<line x1="${a.x}" y1="${a.y}" x2="${b.x}" y2="${b.y}" stroke-width="${m.widthMm}"/>`;
  });
  const [across, down] = [width, height].map((mm) => Math.round((mm * DPI) / MM_PER_INCH));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${across}" height="${down}" preserveAspectRatio="none" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="#d0d0d0"/><g stroke="#383838">${lines.join("")}</g></svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .flatten({ background: "#d0d0d0" })
    .rotate(turnDeg, { background: "#d0d0d0" })
    .blur(1.2)
    .toColourspace("b-w")
    .extractChannel(0)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, grey: new Uint8Array(data) };
}

describe("a coupon that another program drew", () => {
  it("shows the stagger of forty rows to under a micrometre", async () => {
    const coupon = burnedRows(8, 350);
    const picture = await rendered(coupon, 0);
    const errors = siteErrors(coupon, readOf(coupon, picture, DPI)).filter((e) => /^v\d/.test(e.site));
    expect(errors).toHaveLength(2);
    expect(rms(errors)).toBeLessThan(0.001);
  });

  it("does so turned by its own resampling too, which smears a little more", async () => {
    const coupon = burnedRows(9, 250);
    const errors = siteErrors(coupon, readOf(coupon, await rendered(coupon, 3), DPI)).filter((e) =>
      /^v\d/.test(e.site),
    );
    expect(errors).toHaveLength(2);
    expect(rms(errors)).toBeLessThan(0.0015);
  });

  it("shows widths to a micrometre and a half", async () => {
    const coupon = burnedLadder(2);
    const errors = siteErrors(coupon, readOf(coupon, await rendered(coupon, 0), DPI)).filter(
      (e) => !/narrow/.test(e.note),
    );
    expect(errors.length).toBeGreaterThanOrEqual(4);
    expect(rms(errors)).toBeLessThan(0.0015);
  });
});
