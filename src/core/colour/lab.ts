/**
 * Colours as an eye orders them: CIE L*a*b* under D65, from sRGB and back.
 *
 *   linear  c <= 0.04045: c/12.92, else ((c + 0.055)/1.055)^2.4        [IEC 61966-2-1:1999]
 *   L* = 116 f(Y/Yn) - 16,  a* = 500 (f(X/Xn) - f(Y/Yn)),  b* = 200 (f(Y/Yn) - f(Z/Zn))
 *   f(t) = t^(1/3) above (6/29)^3, else t/(3 (6/29)^2) + 4/29          [CIE 15:2018, 8.2.1; both from memory]
 */
export type Lab = { l: number; a: number; b: number };

/** The three numbers by the names that a person reads. */
export const LAB_KEYS = { "L*": "l", "a*": "a", "b*": "b" } as const;

/** Linear shares of the three primaries, 0 to 1. */
export type Linear = readonly [red: number, green: number, blue: number];

/** Rows X, Y, Z of the primaries of sRGB. White is the sum of each row. */
const XYZ = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
] as const;
const RGB = [
  [3.2404542, -1.5371385, -0.4985314],
  [-0.969266, 1.8760108, 0.041556],
  [0.0556434, -0.2040259, 1.0572252],
] as const;
const WHITE = XYZ.map(([r, g, b]) => r + g + b);
const EDGE = 6 / 29;

/** @param level 0 to 1 as a file has it */
export function linearOf(level: number): number {
  return level <= 0.04045 ? level / 12.92 : ((level + 0.055) / 1.055) ** 2.4;
}

function levelOf(linear: number): number {
  const c = Math.max(0, Math.min(1, linear));
  return c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055;
}

export function labOfLinear([red, green, blue]: Linear): Lab {
  const [x = 0, y = 0, z = 0] = XYZ.map(([r, g, b], i) => curve((r * red + g * green + b * blue) / (WHITE[i] ?? 1)));
  return { l: 116 * y - 16, a: 500 * (x - y), b: 200 * (y - z) };
}

function curve(t: number): number {
  return t > EDGE ** 3 ? Math.cbrt(t) : t / (3 * EDGE ** 2) + 4 / 29;
}

/** Luminance of a neutral colour, by its lightness: 1 for L* = 100. */
export function luminanceOf(l: number): number {
  return uncurved((l + 16) / 116);
}

function uncurved(f: number): number {
  return f > EDGE ? f ** 3 : 3 * EDGE ** 2 * (f - 4 / 29);
}

/** @param hex `#3b5fa3` @returns `null` if it is no colour */
export function labOfHex(hex: string): Lab | null {
  const match = /^#?([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex.trim());
  if (!match) return null;
  const [red, green, blue] = [match[1], match[2], match[3]].map((part) =>
    linearOf(Number.parseInt(part ?? "", 16) / 255),
  );
  return labOfLinear([red ?? 0, green ?? 0, blue ?? 0]);
}

/** The nearest colour that a screen shows, `#3b5fa3`. */
export function hexOfLab({ l, a, b }: Lab): string {
  const y = (l + 16) / 116;
  const xyz = [y + a / 500, y, y - b / 200].map((f, i) => uncurved(f) * (WHITE[i] ?? 1));
  const part = (row: readonly [number, number, number]) => {
    const linear = row.reduce((sum, v, i) => sum + v * (xyz[i] ?? 0), 0);
    return Math.round(255 * levelOf(linear))
      .toString(16)
      .padStart(2, "0");
  };
  return `#${RGB.map(part).join("")}`;
}
