/** Text as strokes, so that a label is burned as it is drawn. */
import type { CouponPoint } from "../geometry/frames";
import { CAPITAL_UNITS, GLYPHS } from "./glyphs";

export type Anchor = "start" | "middle" | "end";

/**
 * Polylines of a text.
 *
 * @param text characters without a glyph become `?`
 * @param at end of the baseline on the side of `anchor`, mm
 * @param heightMm height of a capital
 */
export function letterStrokes(
  text: string,
  at: CouponPoint,
  heightMm: number,
  anchor: Anchor = "start",
): CouponPoint[][] {
  const scale = heightMm / CAPITAL_UNITS;
  const width = textWidthMm(text, heightMm);
  const shift = anchor === "start" ? 0 : anchor === "middle" ? width / 2 : width;
  const strokes: CouponPoint[][] = [];
  let pen = at.x - shift;
  for (const character of text) {
    const [advance, encoded] = glyph(character);
    for (const stroke of encoded.split("|")) {
      if (stroke === "") continue;
      const points = stroke.split(" ").map((pair) => {
        const [x, y] = pair.split(",");
        return { x: pen + Number(x) * scale, y: at.y + Number(y) * scale };
      });
      if (points.length > 1) strokes.push(points);
    }
    pen += advance * scale;
  }
  return strokes;
}

/** Length of a text along its baseline, mm. */
export function textWidthMm(text: string, heightMm: number): number {
  let units = 0;
  for (const character of text) units += glyph(character)[0];
  return (units * heightMm) / CAPITAL_UNITS;
}

/** The height of letters at which a text is no longer than `longestMm`, and no higher than `mostMm`. */
export function fittingLetters(text: string, longestMm: number, mostMm: number): number {
  return Math.min(mostMm, (longestMm / textWidthMm(text, mostMm)) * mostMm);
}

/** Drawn for a letter that is not there. */
const UNKNOWN = GLYPHS["?"] ?? ([10, "1,0 9,0 9,21 1,21 1,0"] as const);

function glyph(character: string): readonly [number, string] {
  return GLYPHS[character] ?? UNKNOWN;
}
