/** Colours against libvips, and differences against the published table. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { colourDifference } from "./difference";
import { hexOfLab, labOfHex, labOfLinear, linearOf, luminanceOf } from "./lab";

describe("a colour", () => {
  it.each(["#ffffff", "#808080", "#3b5fa3", "#c8963c", "#00ff00", "#0a0206"])(
    "%s is what libvips makes of it",
    async (hex) => {
      const bytes = Uint8Array.from(Buffer.from(hex.slice(1), "hex"));
      const { data } = await sharp(bytes, { raw: { width: 1, height: 1, channels: 3 } })
        .toColourspace("lab")
        .raw({ depth: "float" })
        .toBuffer({ resolveWithObject: true });
      const vips = new Float32Array(data.buffer, data.byteOffset, 3);
      const lab = labOfHex(hex);
      if (!lab) throw new Error(hex);
      // Its tables of eight bits and its white have four digits.
      expect(Math.abs(lab.l - (vips[0] ?? 0))).toBeLessThan(0.1);
      expect(Math.abs(lab.a - (vips[1] ?? 0))).toBeLessThan(0.15);
      expect(Math.abs(lab.b - (vips[2] ?? 0))).toBeLessThan(0.15);
      expect(hexOfLab(lab)).toBe(hex);
    },
  );

  it("is neutral where all primaries are equal, and as light as its luminance", () => {
    for (const share of [0.002, 0.05, 0.18, 1]) {
      const { l, a, b } = labOfLinear([share, share, share]);
      expect(Math.hypot(a, b)).toBeLessThan(1e-9);
      expect(luminanceOf(l)).toBeCloseTo(share, 9);
    }
    // A grey card of 18 %.
    expect(labOfLinear([0.18, 0.18, 0.18]).l).toBeCloseTo(49.5, 1);
    expect(linearOf(0.02)).toBeCloseTo(0.02 / 12.92, 12);
  });

  it("is refused if it is none", () => {
    for (const text of ["", "#12", "blue", "#12345g"]) expect(labOfHex(text)).toBeNull();
  });
});

/** Pairs 1, 3, 4, 7, 9, 13, 17 to 20, 25, 29 and 34 of the table. */
const PAIRS = [
  [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
  [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
  [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
  [[50, 0, 0], [50, -1, 2], 2.3669],
  [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
  [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
  [[50, 2.5, 0], [73, 25, -18], 27.1492],
  [[50, 2.5, 0], [61, -5, 29], 22.8977],
  [[50, 2.5, 0], [56, -27, -3], 31.903],
  [[50, 2.5, 0], [58, 24, 15], 19.4535],
  [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
  [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
  [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
] as const;

describe("the difference of two colours", () => {
  // [Sharma, Wu and Dalal, Color Res. Appl. 30 (2005) 21, table 1; from memory]
  it.each(PAIRS)("of %j and %j is %d, whichever comes first", ([l, a, b], [l2, a2, b2], difference) => {
    const [one, other] = [
      { l, a, b },
      { l: l2, a: a2, b: b2 },
    ];
    expect(colourDifference(one, other)).toBeCloseTo(difference, 4);
    expect(colourDifference(other, one)).toBeCloseTo(difference, 4);
    expect(colourDifference(one, one)).toBe(0);
  });
});
