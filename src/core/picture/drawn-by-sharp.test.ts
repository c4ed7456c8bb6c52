/** Edges, lines and rows in pictures that a general imaging library drew and blurred: the places are known from the drawing. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import type { Affine } from "../geometry/affine";
import { inverseOf } from "../geometry/affine";
import { fitEdge, fitLine } from "./edge-fit";
import type { GreyPicture } from "./grey-picture";
import { eachPixel, pixelMm } from "./picture-window";
import { ProfileGathering } from "./profile";
import { rowAcross } from "./row-profile";

const [WIDTH, HEIGHT] = [240, 160];
const PX_PER_MM = 20;
/** Drawn this many times larger, so that edges may lie at shares of a pixel. */
const FINER = 8;

/** Rectangles in pixels of the picture, on light stock; blurred by a Gaussian of this many pixels. */
async function drawn(
  boxes: readonly { x: number; y: number; w: number; h: number }[],
  { blurPx = 1.5, ink = 40, stock = 210 } = {},
): Promise<GreyPicture> {
  const rects = boxes.map(
    ({ x, y, w, h }) =>
      `<rect x="${x * FINER}" y="${y * FINER}" width="${w * FINER}" height="${h * FINER}" fill="rgb(${ink},${ink},${ink})"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH * FINER}" height="${HEIGHT * FINER}"><rect width="100%" height="100%" fill="rgb(${stock},${stock},${stock})"/>${rects.join("")}</svg>`;
  const fine = await sharp(Buffer.from(svg))
    .greyscale()
    .blur(blurPx * FINER)
    .raw()
    .toBuffer();
  const { data } = await sharp(fine, { raw: { width: WIDTH * FINER, height: HEIGHT * FINER, channels: 1 } })
    .resize(WIDTH, HEIGHT, { kernel: "linear" })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: WIDTH, height: HEIGHT, grey: new Uint8Array(data) };
}

/** Coupon mm to pixels: its Y goes up, that of the picture down. */
const POSE: Affine = { a: PX_PER_MM, b: 0, c: 0, d: -PX_PER_MM, e: 0, f: HEIGHT };

/** Grey along X between two heights, places in pixels. */
function along(picture: GreyPicture, rows: { from: number; to: number }, span: { from: number; to: number }) {
  const gathering = new ProfileGathering(span.from, span.to, 0.5);
  for (let row = rows.from; row < rows.to; row++)
    for (let column = span.from; column < span.to; column++)
      gathering.add(column + 0.5, picture.grey[row * picture.width + column] ?? Number.NaN);
  return gathering.profile();
}

describe("an edge", () => {
  it.each([100, 100.25, 100.5, 100.8])("at %d px is found to a twentieth of a pixel, with its blur", async (edge) => {
    const picture = await drawn([{ x: edge, y: 0, w: 200, h: HEIGHT }]);
    const fit = fitEdge(along(picture, { from: 40, to: 120 }, { from: 85, to: 116 }), { at: 99, blur: 2 });
    expect(Math.abs((fit?.at ?? 0) - edge)).toBeLessThan(0.05);
    expect(fit?.blur).toBeGreaterThan(1.2);
    expect(fit?.blur).toBeLessThan(2);
    // From light stock to dark ink: it falls.
    expect(fit?.height).toBeLessThan(-150);
  });

  it("is none where nothing changes, nor beyond the picture", async () => {
    const blank = await drawn([]);
    const profile = along(blank, { from: 40, to: 120 }, { from: 85, to: 116 });
    expect(fitEdge(profile, { at: 130, blur: 2 })).toBeNull();
    expect(fitEdge(along(blank, { from: 40, to: 120 }, { from: 85, to: 90 }), { at: 87, blur: 2 })).toBeNull();
  });
});

describe("a line", () => {
  it.each([
    [8, 40, 210],
    [12.4, 40, 210],
    [10, 220, 60],
  ])("of %d px, ink %d on stock %d, has its width and middle", async (width, ink, stock) => {
    const picture = await drawn([{ x: 110.3, y: 0, w: width, h: HEIGHT }], { ink, stock });
    const profile = along(picture, { from: 40, to: 120 }, { from: 90, to: 140 });
    const fit = fitLine(profile, { centre: 115, width: 9, blur: 2 }, null);
    expect(Math.abs((fit?.width ?? 0) - width)).toBeLessThan(0.1);
    expect(Math.abs((fit?.centre ?? 0) - (110.3 + width / 2))).toBeLessThan(0.05);
    expect(Math.sign(fit?.depth ?? 0)).toBe(ink < stock ? 1 : -1);
  });
});

describe("a row of the coupon", () => {
  const back = inverseOf(POSE);
  const line = { y0: 4, y1: 4, x0: 2, x1: 10, row: true } as never;
  const span = { fromX: 3, toX: 9, reachMm: 0.9 };

  it("that lies 0.15 mm above where it is drawn has that offset, and its width", async () => {
    const [middleMm, widthMm] = [4.15, 0.4];
    const y = HEIGHT - (middleMm + widthMm / 2) * PX_PER_MM;
    const picture = await drawn([{ x: 40, y, w: 160, h: widthMm * PX_PER_MM }]);
    const seen = rowAcross(picture, POSE, back, line, span);
    expect(seen?.offset).toBeCloseTo(0.15, 2);
    expect(Math.abs((seen?.width ?? 0) - widthMm)).toBeLessThan(0.06);
    expect(seen?.depth).toBeGreaterThan(100);
  });

  it("that is brighter than its stock is seen as well; on blank stock, or outside the picture, there is none", async () => {
    const y = HEIGHT - 4.2 * PX_PER_MM;
    const bright = await drawn([{ x: 40, y, w: 160, h: 8 }], { ink: 220, stock: 60 });
    expect(rowAcross(bright, POSE, back, line, span)?.depth).toBeLessThan(-100);
    expect(rowAcross(await drawn([]), POSE, back, line, span)).toBeNull();
    const away: Affine = { ...POSE, e: 5000 };
    expect(rowAcross(bright, away, inverseOf(away), line, span)).toBeNull();
  });
});

describe("pixels of an area", () => {
  it("have the places that the pose gives their middles, turned as well", async () => {
    const picture = await drawn([{ x: 100, y: 60, w: 20, h: 20 }], { blurPx: 0.3 });
    const turned: Affine = { a: 0, b: PX_PER_MM, c: PX_PER_MM, d: 0, e: 0, f: 0 };
    expect(pixelMm(turned)).toBeCloseTo(0.05, 12);
    const dark: { x: number; y: number }[] = [];
    const share = eachPixel(picture, turned, inverseOf(turned), { x0: 2, x1: 5, y0: 4, y1: 7 }, (x, y, grey) => {
      if (grey < 100) dark.push({ x, y });
    });
    expect(share).toBe(1);
    // X of the coupon runs down the picture, Y along it.
    const mean = (of: (p: { x: number; y: number }) => number) => dark.reduce((s, p) => s + of(p), 0) / dark.length;
    expect(mean((p) => p.x)).toBeCloseTo(70 / PX_PER_MM, 2);
    expect(mean((p) => p.y)).toBeCloseTo(110 / PX_PER_MM, 2);
  });

  it("are a share of the area where it reaches beyond the picture, and refuse a flat pose", async () => {
    const share = eachPixel(await drawn([]), POSE, inverseOf(POSE), { x0: -1, x1: 1, y0: 1, y1: 2 }, () => undefined);
    expect(share).toBeCloseTo(0.5, 2);
    expect(() => inverseOf({ a: 1, b: 2, c: 2, d: 4, e: 0, f: 0 })).toThrow(RangeError);
  });
});
