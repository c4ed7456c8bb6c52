/**
 * Where a coupon lies in a picture: decided between places a row pitch apart, refused where it cannot be decided or the picture contradicts
 * the coupon. Pictures are the practice scan, padded and turned, and coupons that librsvg drew, some through a perspective view.
 */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { burnFile } from "../../burning/practice-burn";
import { MM_PER_INCH } from "../../core/metrology/units";
import { scaleFromDpi } from "../../core/picture/picture-scale";
import { readPicture } from "../../core/picture/read-picture";
import type { ScanOffsetPlan } from "../../core/procedures/scan-offset/plan";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import { practiceFromSeed } from "../../practice/practice-truth";
import { SAMPLE_MACHINE } from "../sample-machine";
import { type Burned, pictureOf, siteErrors } from "./picture-accuracy";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "A-14", inForce: {} };
const DPI = 600;

function burnedWith(seed: number, change: Partial<ScanOffsetPlan> = {}): Burned {
  const plan = { ...scanOffset.plan(context).defaults, ...change };
  const spec = scanOffset.round(plan, context, "measure");
  const truth = { ...practiceFromSeed(seed, SAMPLE_MACHINE), axes: undefined };
  const { name, gcode: dialect } = SAMPLE_MACHINE;
  const text = gcodeOf(spec, { couponCode: "A-14", machineName: name, dialect, bed: SAMPLE_MACHINE });
  const burn = burnFile(text, "A-14", SAMPLE_MACHINE, truth, { table: [], switchedOn: true }, spec);
  if (!burn.ok) throw new Error(burn.message);
  return { spec, marks: burn.marks, at: burn.corner };
}

type Grey = { width: number; height: number; grey: Uint8Array };

function quarterTurned({ width, height, grey }: Grey, turns: number): Grey {
  if (turns === 0) return { width, height, grey };
  const turned = new Uint8Array(grey.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + height - 1 - y] = grey[y * width + x] as number;
  return quarterTurned({ width: height, height: width, grey: turned }, turns - 1);
}

function padded({ width, height, grey }: Grey, across: number, down: number): Grey {
  const [w, h] = [width + 2 * across, height + 2 * down];
  const all = Uint8Array.from({ length: w * h }, (_, i) => 200 + ((i * 7919) % 5));
  for (let y = 0; y < height; y++) all.set(grey.subarray(y * width, (y + 1) * width), (y + down) * w + across);
  return { width: w, height: h, grey: all };
}

type View = { marginMm?: number; turnDeg?: number; stretchX?: number; tilt?: number; from?: "side"; bright?: boolean };

/** The marks as librsvg draws them; with `tilt`, scale falls off by that share from the bottom to the top, or to one side. */
async function drawn({ spec, marks, at }: Burned, view: View = {}): Promise<Grey> {
  const { marginMm = 4, turnDeg = 0, stretchX = 1, tilt = 0, from, bright = false } = view;
  const [piece] = spec.pieces;
  if (!piece) throw new Error("nothing is burned");
  const { widthMm: w, heightMm: h } = piece;
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  const seen = (x: number, y: number): [number, number] => {
    const [u, v] = [(x - w / 2) * stretchX, y - h / 2];
    const nearer = 1 + tilt * (from === "side" ? u / w : v / h);
    return [(c * u - s * v) / nearer, (s * u + c * v) / nearer];
  };
  const corners = [seen(0, 0), seen(w, 0), seen(w, h), seen(0, h)];
  const x0 = Math.min(...corners.map(([x]) => x)) - marginMm;
  const y1 = Math.max(...corners.map(([, y]) => y)) + marginMm;
  const [across, down] = [
    Math.max(...corners.map(([x]) => x)) + marginMm - x0,
    y1 - Math.min(...corners.map(([, y]) => y)) + marginMm,
  ];
  const lines = marks.map((m) => {
    const [a, b] = [seen(m.x0 - at.xMm, m.y0 - at.yMm), seen(m.x1 - at.xMm, m.y1 - at.yMm)];
    return `<line x1="${a[0] - x0}" y1="${y1 - a[1]}" x2="${b[0] - x0}" y2="${y1 - b[1]}" stroke-width="${m.widthMm}"/>`;
  });
  const [stock, mark] = bright ? ["#505050", "#d0d0d0"] : ["#d0d0d0", "#383838"];
  const [pixelsX, pixelsY] = [across, down].map((mm) => Math.round((mm * DPI) / MM_PER_INCH));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${pixelsX}" height="${pixelsY}" preserveAspectRatio="none" viewBox="0 0 ${across} ${down}"><rect width="100%" height="100%" fill="${stock}"/><g stroke="${mark}">${lines.join("")}</g></svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .flatten({ background: stock })
    .blur(1.1)
    .toColourspace("b-w")
    .extractChannel(0)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, grey: new Uint8Array(data) };
}

function readOf({ spec }: Burned, picture: Grey, { dpi = DPI, brighter = false } = {}) {
  const [piece] = spec.pieces;
  if (!piece) throw new Error("nothing is burned");
  return readPicture(picture, piece, spec.sites, scaleFromDpi(dpi, dpi), brighter);
}

function whyOf(burned: Burned, picture: Grey, how?: Parameters<typeof readOf>[2]): string {
  const read = readOf(burned, picture, how);
  return read.ok ? "read" : read.why;
}

/** Nothing is delivered wrong: each reading is within 10 um or four times its own uncertainty, signs among them. */
function expectRight(burned: Burned, picture: Grey, least: number): void {
  const errors = siteErrors(burned, readOf(burned, picture));
  expect(errors.length).toBeGreaterThanOrEqual(least);
  for (const e of errors) expect(Math.abs(e.error), e.site).toBeLessThan(Math.max(0.01, 4 * e.u));
}

describe("a scan of the usual scan-offset coupon", () => {
  const coupon = burnedWith(1);
  const scan = pictureOf(coupon, { dpi: DPI, turnDeg: 0.6 }, 1);

  // Found before a row pitch off with these paddings, every stagger inverted.
  it.each([
    { turns: 0, padding: 13 },
    { turns: 0, padding: 47 },
    { turns: 1, padding: 160 },
    { turns: 2, padding: 60 },
    { turns: 2, padding: 400 },
    { turns: 3, padding: 29 },
  ])("is read right with $padding pixels around it, turned by $turns quarters", ({ turns, padding }) => {
    expectRight(coupon, padded(quarterTurned(scan, turns), padding, Math.round(0.7 * padding)), 12);
  });
});

describe("a coupon that another program drew", () => {
  it.each([
    { change: { speedsMmPerS: [200, 400], rowLengthMm: 20 }, turnDeg: 0, marginMm: 3.3 },
    { change: { speedsMmPerS: [200, 400], rowLengthMm: 20 }, turnDeg: -3, marginMm: 1 },
    { change: { way: "bare strokes" as const }, turnDeg: 177, marginMm: 2.2 },
    { change: { rowPitchMm: 0.5, rowsPerBlock: 12 }, turnDeg: 270, marginMm: 7.7 },
  ])("is found on its own rows: $change, turned by $turnDeg", async ({ change, turnDeg, marginMm }) => {
    const coupon = burnedWith(5, change);
    expectRight(coupon, await drawn(coupon, { turnDeg, marginMm }), 4);
  });

  it("whose dots per inch are off is refused with how many times a mm has as many pixels", async () => {
    const coupon = burnedWith(4);
    const picture = await drawn(coupon);
    for (const off of [0.05, -0.05, 0.03]) {
      const read = readOf(coupon, picture, { dpi: DPI * (1 + off) });
      expect(read.ok ? "read" : read.why).toMatch(/^The scale is wrong/);
      expect(Math.abs((read.ok ? 0 : (read.scaleTimes ?? 0)) * (1 + off) - 1)).toBeLessThan(0.003);
    }
  });

  it("that is stretched one way is refused with by how much", async () => {
    const coupon = burnedWith(4);
    expect(whyOf(coupon, await drawn(coupon, { stretchX: 1.05 }))).toMatch(
      /(4\.[6-9]|5\.[0-3]) % longer along its rows/,
    );
  });

  it("that was photographed at an angle is refused with by how much, from below or from the side", async () => {
    const coupon = burnedWith(6);
    // The rows reach over 84 of the 120 mm: 0.08 times that share, less what the rows themselves move.
    expect(whyOf(coupon, await drawn(coupon, { tilt: 0.08 }))).toMatch(
      /at an angle\. .* [45]\.\d % narrower at the top/,
    );
    expect(whyOf(coupon, await drawn(coupon, { tilt: 0.08, from: "side" }))).not.toBe("read");
    expect(whyOf(coupon, await drawn(coupon, { tilt: -0.04, turnDeg: 90 }))).toMatch(/at an angle/);
  });

  it("whose marks are not as bright as said is refused, and says which way they are", async () => {
    const coupon = burnedWith(7, { rowPitchMm: 0.5, rowsPerBlock: 12 });
    expect(whyOf(coupon, await drawn(coupon), { brighter: true })).toMatch(/darker than the stock .* Switch off/);
    const bright = await drawn(coupon, { bright: true });
    expect(whyOf(coupon, bright)).toMatch(/brighter than the stock .* Switch on/);
    expect(whyOf(coupon, bright, { brighter: true })).toBe("read");
  });
});

describe("which rows went right", () => {
  const coupon = burnedWith(3);
  const [piece] = coupon.spec.pieces;
  const blocks = coupon.spec.sites.flatMap((site) => {
    if (site.measurand.kind !== "distance" || site.measurand.from.kind !== "row ends") return [];
    return /^v\d/.test(site.id) ? [{ id: site.id, within: site.measurand.from.within }] : [];
  });

  /** All rows of one block burned the other way round, those of the others as they were. */
  function withBlockTurned({ y0, y1 }: { y0: number; y1: number }): Burned {
    const marks = coupon.marks.map((m) => {
      const y = m.y0 - coupon.at.yMm;
      const shift = y0 + y1 - 2 * y;
      return y < y0 || y > y1 ? m : { ...m, y0: m.y0 + shift, y1: m.y1 + shift };
    });
    return { ...coupon, marks };
  }

  it("is told in every block by its own one-way rows, also where one controller began the other way", async () => {
    for (const block of [blocks[2], blocks[blocks.length - 1]]) {
      if (!block || !piece) throw new Error("no block");
      const turned = withBlockTurned(block.within);
      const read = readOf(coupon, await drawn(turned));
      const error = siteErrors(turned, read).find((e) => e.site === block.id);
      expect(Math.abs(error?.error ?? 1), block.id).toBeLessThan(0.006);
    }
  });

  it("is not told without them: no number with a sign comes then, and the reading says why", async () => {
    const fastest = blocks[blocks.length - 1];
    if (!fastest) throw new Error("no block");
    const { y1 } = fastest.within;
    const isWitness = (y: number) => y > y1 && y < y1 + 4;
    const blind = { ...coupon, marks: coupon.marks.filter((m) => !isWitness(m.y0 - coupon.at.yMm)) };
    const read = readOf(coupon, await drawn(blind));
    if (!read.ok) throw new Error(read.why);
    const seen = read.sites.find((s) => s.site === fastest.id);
    expect(seen?.ok ? "read" : seen?.why).toMatch(/one-way rows .* by hand/);
  });
});
