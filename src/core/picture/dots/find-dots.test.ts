/** Dots drawn by a general tool: circles of an SVG, blurred, on paper with uneven light and grain. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { seeded } from "../../../practice/random";
import type { GreyPicture } from "../grey-picture";
import { type Dot, findDots } from "./find-dots";

type Drawn = { x: number; y: number; r: number };

type Paper = {
  width: number;
  height: number;
  /** Scatter of the paper, grey levels. */
  grain: number;
  blurPx: number;
  /** SVG besides the dots. */
  more?: string;
  /** Bright dots on dark metal. */
  brighter?: boolean;
};

async function drawn(dots: readonly Drawn[], { width, height, grain, blurPx, more = "", brighter }: Paper) {
  const [paper, ink] = brighter ? ["#333", "#ccc"] : ["url(#light)", "#303030"];
  const circles = dots.map(({ x, y, r }) => `<circle cx="${x}" cy="${y}" r="${r}" fill="${ink}"/>`).join("");
  const light = `<linearGradient id="light" x1="0" y1="0" x2="1" y2="0.6"><stop offset="0" stop-color="#e8e8e8"/><stop offset="1" stop-color="#bcbcbc"/></linearGradient>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${light}<rect width="100%" height="100%" fill="${paper}"/>${circles}${more}</svg>`;
  const { data } = await sharp(Buffer.from(svg)).removeAlpha().greyscale().blur(blurPx).raw().toBuffer({
    resolveWithObject: true,
  });
  const random = seeded(17);
  const grey = Uint8Array.from(data, (v) => Math.min(255, Math.max(0, Math.round(v + grain * random.normal()))));
  return { width, height, grey } satisfies GreyPicture;
}

/** A grid with places that fall anywhere within a pixel. */
function grid(n: number, pitch: number, r: number): Drawn[] {
  const random = seeded(5);
  return Array.from({ length: n * n }, (_, i) => ({
    x: pitch * (1 + (i % n)) + random.between(-0.5, 0.5),
    y: pitch * (1 + Math.floor(i / n)) + random.between(-0.5, 0.5),
    r,
  }));
}

function errors(dots: readonly Dot[], of: readonly Drawn[]) {
  return of.map((d) => {
    const near = dots.reduce<Dot | null>((best, f) => {
      const far = (p: { x: number; y: number }) => Math.hypot(p.x - d.x, p.y - d.y);
      return best === null || far(f) < far(best) ? f : best;
    }, null);
    return near ? { x: near.x - d.x, y: near.y - d.y, r: near.radiusPx / d.r } : { x: 99, y: 99, r: 0 };
  });
}

const rms = (values: readonly number[]) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);
const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

describe("dots in a picture", () => {
  it.each([
    ["300 dpi", 3.5, 52, 0.8, 0.015],
    ["600 dpi", 7, 70, 0.9, 0.02],
    ["1200 dpi", 14, 90, 1.2, 0.03],
  ] as const)("are found with their centres: a dot of 0.6 mm at %s", async (_, r, pitch, blurPx, promised) => {
    const dots = grid(9, pitch, r);
    const size = pitch * 10;
    const picture = await drawn(dots, { width: size, height: size, grain: 3, blurPx });
    const found = findDots(picture);
    expect(found.dots).toHaveLength(dots.length);
    const off = errors(found.dots, dots);
    for (const axis of ["x", "y"] as const) {
      expect(Math.abs(mean(off.map((e) => e[axis])))).toBeLessThan(promised / 2);
      expect(rms(off.map((e) => e[axis]))).toBeLessThan(promised);
    }
    expect(mean(off.map((e) => e.r))).toBeGreaterThan(0.9);
  });

  it("are found where they are brighter than the metal", async () => {
    const dots = grid(5, 60, 7);
    const picture = await drawn(dots, { width: 360, height: 360, grain: 3, blurPx: 0.9, brighter: true });
    expect(findDots(picture).dots).toHaveLength(0);
    const found = findDots(picture, true);
    expect(found.dots).toHaveLength(dots.length);
    expect(rms(errors(found.dots, dots).map((e) => e.x))).toBeLessThan(0.03);
    expect(found.dots[0]?.contrast).toBeGreaterThan(100);
  });

  it("are told from lines, letters, specks, and from what touches the edge", async () => {
    const dots = grid(4, 60, 7);
    const more = `<path d="M20 150 L280 152" stroke="#303030" stroke-width="3"/><text x="60" y="290" font-size="30">L 4</text><circle cx="299" cy="100" r="7" fill="#303030"/><circle cx="150" cy="30" r="1.6" fill="#303030"/>`;
    const picture = await drawn(dots, { width: 300, height: 300, grain: 3, blurPx: 0.8, more });
    const found = findDots(picture);
    expect(found.dots).toHaveLength(dots.length);
    expect(found.other.atEdge).toBe(1);
    expect(found.other.notRound).toBeGreaterThan(1);
    expect(found.other.specks).toBeGreaterThan(0);
  });

  it("are none on empty paper, whatever its grain", async () => {
    for (const grain of [0, 4, 12]) {
      const picture = await drawn([], { width: 300, height: 300, grain, blurPx: 0.8 });
      expect(findDots(picture).dots).toEqual([]);
    }
  });
});
