/** Arrays of cells drawn by librsvg in uneven light, turned, pressed and mirrored by libvips: what scans are in practice. */
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import type { Rect } from "../../geometry/rect";
import type { GreyPicture } from "../grey-picture";
import { type ArrayLook, readArray } from "./read-array";

const [COLUMNS, ROWS, CELL, GAP, AT, DOT] = [6, 5, 6, 2.5, 12, 1.2];
const PITCH = CELL + GAP;
const [WIDTH, HEIGHT] = [COLUMNS * PITCH + 2 * AT, ROWS * PITCH + 2 * AT];
/** Pixels a mm, 300 dots per inch. */
const PX = 300 / 25.4;
const BLANK = 214;

const CELLS: Rect[] = Array.from({ length: COLUMNS * ROWS }, (_, i) => {
  const [x0, y0] = [AT + (i % COLUMNS) * PITCH, AT + Math.floor(i / COLUMNS) * PITCH];
  return { x0, y0, x1: x0 + CELL, y1: y0 + CELL };
});
const [LEFT, LOW] = [AT - GAP, AT - GAP];
const [RIGHT, HIGH] = [AT + COLUMNS * PITCH, AT + ROWS * PITCH];
const DOTS = [
  { x: LEFT, y: LOW },
  { x: RIGHT, y: LOW },
  { x: RIGHT, y: HIGH },
  { x: LEFT, y: HIGH },
  { x: LEFT + (RIGHT - LEFT) / 4, y: LOW },
];
const SHAPE: ArrayLook = { of: "darkness", cells: CELLS, dots: DOTS, radiusMm: DOT, gapMm: GAP };

/** From hardly marked to nearly black. */
const DARKNESS = CELLS.map((_, i) => 0.02 + (0.85 * i) / (CELLS.length - 1));

/** @param light by how much it falls off from left to right */
const svgOf = (light: number, invert = false) => {
  const grey = (d: number) => Math.round(BLANK * (1 - d));
  const ink = (g: number) => `rgb(${[g, g, g].map((v) => (invert ? 255 - v : v)).join(",")})`;
  const rects = CELLS.map(
    (c, i) =>
      `<rect x="${c.x0}" y="${HEIGHT - c.y1}" width="${CELL}" height="${CELL}" fill="${ink(grey(DARKNESS[i] ?? 0))}"/>`,
  );
  const dots = DOTS.map((d) => `<circle cx="${d.x}" cy="${HEIGHT - d.y}" r="${DOT}" fill="${ink(40)}"/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH * PX}" height="${HEIGHT * PX}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs><linearGradient id="l"><stop offset="0" stop-color="#000" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="${light}"/></linearGradient></defs>
<rect width="100%" height="100%" fill="${ink(BLANK)}"/>${rects.join("")}${dots.join("")}<rect width="100%" height="100%" fill="url(#l)"/></svg>`;
};

const pictureOf = (svg: string) => sharp(Buffer.from(svg)).removeAlpha().greyscale().blur(0.7);

async function greyOf(file: Buffer): Promise<GreyPicture> {
  const { data, info } = await sharp(file).greyscale().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, grey: new Uint8Array(data) };
}

function darknessIn(picture: GreyPicture, brighter = false): number[] {
  const read = readArray(picture, SHAPE, brighter);
  if (!read.ok) throw new Error(read.why);
  return read.scores.map((s) => s ?? Number.NaN);
}

const worst = (read: readonly number[]) => Math.max(...read.map((d, i) => Math.abs(d - (DARKNESS[i] ?? 0))));

describe("a picture of an array", () => {
  let upright: Buffer;
  beforeAll(async () => {
    upright = await pictureOf(svgOf(0)).png().toBuffer();
  });

  it("shows the darkness of every cell", async () => {
    expect(worst(darknessIn(await greyOf(upright)))).toBeLessThan(0.004);
  });

  it.each([2, -3.4, 180, 91])("does so turned by %i degrees", async (turn) => {
    const turned = await sharp(upright).rotate(turn, { background: "#d6d6d6" }).png().toBuffer();
    expect(worst(darknessIn(await greyOf(turned)))).toBeLessThan(0.01);
  });

  it("does so in light that falls off by a third, where the picture alone would be wrong by a quarter", async () => {
    const picture = await greyOf(await pictureOf(svgOf(0.33)).png().toBuffer());
    expect(worst(darknessIn(picture))).toBeLessThan(0.015);
    // The grey of the last column against the blank stock on the left.
    const at = (x: number, y: number) =>
      picture.grey[Math.floor((HEIGHT - y) * PX) * picture.width + Math.floor(x * PX)] ?? 0;
    const last = CELLS[COLUMNS - 1];
    if (!last) throw new RangeError("no cell");
    const naive = 1 - at(last.x0 + 3, last.y0 + 3) / at(2, last.y0 + 3);
    expect(Math.abs(naive - (DARKNESS[COLUMNS - 1] ?? 0))).toBeGreaterThan(0.2);
  });

  it("does so through the blocks of a JPEG", async () => {
    const jpeg = await sharp(upright).jpeg({ quality: 70 }).toBuffer();
    expect(worst(darknessIn(await greyOf(jpeg)))).toBeLessThan(0.01);
  });

  it("does so where marks are brighter than the stock", async () => {
    const read = readArray(await greyOf(await pictureOf(svgOf(0, true)).png().toBuffer()), SHAPE, true);
    if (!read.ok) throw new Error(read.why);
    const order = read.scores.map((s) => s ?? Number.NaN);
    for (let i = 1; i < order.length; i++) expect(order[i]).toBeGreaterThan(order[i - 1] ?? 0);
  });

  it("tells an even cell from a streaky one, and a sharp edge from a soft one", async () => {
    const [even, streaky] = [CELLS[20], CELLS[22]];
    if (!even || !streaky) throw new RangeError("no cell");
    const streaks = Array.from(
      { length: 4 },
      (_, i) =>
        `<rect x="${streaky.x0}" y="${HEIGHT - streaky.y1 + i * 1.5}" width="${CELL}" height="0.75" fill="#fff" fill-opacity="0.35"/>`,
    );
    const svg = svgOf(0).replace("</svg>", `${streaks.join("")}</svg>`);
    const scoresOf = async (file: Buffer, of: ArrayLook["of"]) => {
      const read = readArray(await greyOf(file), { ...SHAPE, of });
      return read.ok ? read.scores : [];
    };
    const evenness = await scoresOf(await pictureOf(svg).png().toBuffer(), "evenness");
    expect(evenness[20]).toBeGreaterThan(0.97);
    expect(evenness[22]).toBeLessThan(0.9);
    // Blur of 0.7 px is an edge of 2.563 x 0.7 px from 10 to 90 %.
    const sharpPx = PX / ((await scoresOf(upright, "sharpness"))[20] ?? Number.NaN);
    const softPx =
      PX / ((await scoresOf(await sharp(upright).blur(3).png().toBuffer(), "sharpness"))[20] ?? Number.NaN);
    expect(sharpPx).toBeGreaterThan(1.4);
    expect(sharpPx).toBeLessThan(2.6);
    expect(softPx / 2.563).toBeGreaterThan(2.7);
    expect(softPx / 2.563).toBeLessThan(3.5);
  });

  it("is refused mirrored, cut off, of another array, and blank", async () => {
    const why = async (file: Buffer, shape = SHAPE) => {
      const read = readArray(await greyOf(file), shape);
      return read.ok ? "read" : read.why;
    };
    expect(await why(await sharp(upright).flop().png().toBuffer())).toMatch(/mirrored/);
    const { width, height } = await greyOf(upright);
    const half = { left: 0, top: 0, width: Math.round(0.6 * width), height };
    expect(await why(await sharp(upright).extract(half).png().toBuffer())).toMatch(/five dots .* not visible/);
    const other = { ...SHAPE, dots: DOTS.map((d) => ({ x: 1.3 * d.x, y: d.y })) };
    expect(await why(upright, other)).toMatch(/whole array of this coupon/);
    const blank = sharp({ create: { width: 800, height: 800, channels: 3, background: "#ddd" } });
    expect(await why(await blank.png().toBuffer())).toMatch(/no marks/);
  });
});
