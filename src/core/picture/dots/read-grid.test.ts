/** A whole grid of dots, drawn by librsvg and pressed, cut, mirrored and joined by libvips: what scans are in practice. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import type { GreyPicture } from "../grey-picture";
import { readGrid } from "./read-grid";
import { LARGE_NODES } from "./turn-by-the-l";

const [ACROSS, PITCH, R] = [13, 46, 5.5];
const HALF = (ACROSS - 1) / 2;
const SIDE = PITCH * (ACROSS + 1);
const LARGE = new Set(LARGE_NODES.map((n) => `${n.column} ${n.row}`));

/** Rows from the front, which is below; turned by 1.7 degrees. */
const NODES = Array.from({ length: ACROSS * ACROSS }, (_, i) => {
  const [column, row] = [(i % ACROSS) - HALF, Math.floor(i / ACROSS) - HALF];
  const [x, y, turn] = [PITCH * column, PITCH * row, 0.03];
  return {
    x: SIDE / 2 + Math.cos(turn) * x - Math.sin(turn) * y,
    y: SIDE / 2 - Math.sin(turn) * x - Math.cos(turn) * y,
    r: LARGE.has(`${column} ${row}`) ? 1.5 * R : R,
    column,
    row,
  };
});

const pngOf = (nodes = NODES, more = "") =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}"><rect width="100%" height="100%" fill="#d8d8d8"/>${nodes
        .map(({ x, y, r }) => `<circle cx="${x}" cy="${y}" r="${r}" fill="#303030"/>`)
        .join("")}${more}</svg>`,
    ),
  )
    .removeAlpha()
    .greyscale()
    .blur(0.8)
    .png()
    .toBuffer();

async function greyOf(file: Buffer): Promise<GreyPicture> {
  const { data, info } = await sharp(file).greyscale().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, grey: new Uint8Array(data) };
}

const why = (picture: GreyPicture, across = ACROSS) => {
  const read = readGrid(picture, across, false);
  if (read.ok) throw new Error(`${read.dots.length} dots were read`);
  return read.why;
};

describe("a picture of a grid", () => {
  it.each([95, 60, 30])("is read with its indices through the blocks of a JPEG of quality %i", async (quality) => {
    const read = readGrid(
      await greyOf(
        await sharp(await pngOf())
          .jpeg({ quality })
          .toBuffer(),
      ),
      ACROSS,
      false,
    );
    if (!read.ok) throw new Error(read.why);
    expect(read.dots).toHaveLength(ACROSS * ACROSS);
    const off = read.dots.map((d) => Math.hypot(d.x - (NODES[d.index]?.x ?? 0), d.y - (NODES[d.index]?.y ?? 0)));
    expect(Math.max(...off)).toBeLessThan(quality > 50 ? 0.15 : 0.3);
    expect(read.missing).toEqual([]);
  });

  it("is refused where two grids lie on one scan, or where it is mirrored", async () => {
    const one = await pngOf();
    const two = await sharp(one)
      .extend({ right: SIDE, background: "#d8d8d8" })
      .composite([{ input: one, left: SIDE, top: 0 }])
      .png()
      .toBuffer();
    expect(why(await greyOf(two))).toMatch(/169 dots of the same size beside this grid\. Scan one coupon alone/);
    expect(why(await greyOf(await sharp(one).flop().toBuffer()))).toMatch(/mirrored/);
  });

  it("is refused where half of it is cut off, or where another grid was told", async () => {
    const from = async (left: number, width: number) =>
      greyOf(
        await sharp(await pngOf())
          .extract({ left: Math.round(left * SIDE), top: 0, width: Math.round(width * SIDE), height: SIDE })
          .toBuffer(),
      );
    expect(why(await from(0.38, 0.62))).toMatch(/part of the 13 × 13 dots only/);
    // Through the L
    expect(why(await from(0, 0.7))).toMatch(/scan the whole stock again\. \d+ dots touch the edge/);
    expect(why(await greyOf(await pngOf()), 11)).toMatch(/more dots than 11 × 11/);
    expect(why(await greyOf(await pngOf()), 25)).toMatch(/part of the 25 × 25/);
  });

  it("names the dots of a corner that is burnt through, and reads the others", async () => {
    const hole = `<path d="M0 0 H${3.4 * PITCH} L0 ${3.4 * PITCH} Z" fill="#151515"/>`;
    const read = readGrid(await greyOf(await pngOf(NODES, hole)), ACROSS, false);
    if (!read.ok) throw new Error(read.why);
    expect(read.missing.length).toBeGreaterThan(0);
    // Back left
    for (const index of read.missing) {
      const { column = 0, row = 0 } = NODES[index] ?? {};
      expect(column - row).toBeLessThanOrEqual(-2 * HALF + 3);
    }
    for (const d of read.dots)
      expect(Math.hypot(d.x - (NODES[d.index]?.x ?? 0), d.y - (NODES[d.index]?.y ?? 0))).toBeLessThan(0.2);
  });
});
