/**
 * Colour of every cell of an array, by a white and a grey card in the same picture.
 *
 * Each channel is made linear as sRGB, then brought to what both cards are known to be:
 *
 *   R = R_white (c/c_white)^k,   k = ln(R_grey/R_white) / ln(c_grey/c_white)
 *
 * c is the mean of the middle of a cell or of a card. A scanner that follows sRGB has k = 1 in every channel; k outside 0.5 to 2 is a picture with changed
 * contrast, or a wrong card.
 */
import { type Lab, type Linear, labOfLinear, linearOf, luminanceOf } from "../../colour/lab";
import type { PlanePoint } from "../../fitting/plane-map";
import { type Projective, projected } from "../../fitting/projective";
import type { Rect } from "../../geometry/rect";

/** Three bytes a pixel, row by row from the top. It may be smaller than the picture in which places are known. */
export type ColourPicture = { width: number; height: number; rgb: Uint8Array };

/** A card: its place in the picture, and its lightness L*. */
export type Card = { at: PlanePoint; l: number };

export type Cards = { white: Card; grey: Card };

export type ColoursRead = { ok: true; colours: (Lab | null)[] } | { ok: false; card: "white" | "grey"; why: string };

/** Of the side of a cell: its rim is not looked at. */
const RIM = 0.2;
/** Samples along each side of a cell. */
const SAMPLES = 24;
/** Half of the side of the part of a card that is read, as a share of the longer side of the picture. */
const CARD = 0.006;
const POWER = { least: 0.5, most: 2 };
/** Scatter of a card that is no even surface, share of its level. */
const UNEVEN = 0.12;
const [DARKEST, BRIGHTEST] = [8, 253];

/** @param toPicture from mm of the coupon to pixels of the picture @param scale pixels of `picture` for one of those */
export function readColours(
  picture: ColourPicture,
  toPicture: Projective,
  scale: number,
  cells: readonly Rect[],
  { white, grey }: Cards,
): ColoursRead {
  const seen = { white: cardAt(picture, white.at, scale), grey: cardAt(picture, grey.at, scale) };
  for (const card of ["white", "grey"] as const) {
    const why = cardFault(seen[card], card);
    if (why !== null) return { ok: false, card, why };
  }
  const [bright, dim] = [seen.white.linear, seen.grey.linear];
  const known = { white: luminanceOf(white.l), grey: luminanceOf(grey.l) };
  const powers = bright.map((c, i) => Math.log(known.grey / known.white) / Math.log((dim[i] ?? 1) / c));
  if (powers.some((k) => !(k >= POWER.least && k <= POWER.most)))
    return {
      ok: false,
      card: "grey",
      why: "The two cards contradict each other. Check the places and the lightness of both cards, and switch off automatic contrast of the scanner.",
    };
  const share = (c: number, i: number) => known.white * (c / (bright[i] ?? 1)) ** (powers[i] ?? 1);
  return {
    ok: true,
    colours: cells.map((cell) => {
      const mean = meanIn(picture, toPicture, scale, cell);
      return mean && labOfLinear([share(mean[0], 0), share(mean[1], 1), share(mean[2], 2)]);
    }),
  };
}

type Seen = { linear: [number, number, number]; uneven: number; least: number; most: number };

function cardFault({ uneven, least, most, linear }: Seen, card: "white" | "grey"): string | null {
  if (linear.some(Number.isNaN)) return `The ${card} card is outside the picture. Select its middle.`;
  if (uneven > UNEVEN) return `This surface is not even. Select the middle of the ${card} card.`;
  if (most > BRIGHTEST) return `The ${card} card is too bright in this picture. Scan again with less brightness.`;
  return least < DARKEST ? `The ${card} card is black in this picture. Select its middle, or scan again.` : null;
}

function cardAt({ width, height, rgb }: ColourPicture, at: PlanePoint, scale: number): Seen {
  const half = Math.max(2, Math.round(CARD * Math.max(width, height)));
  const [x, y] = [Math.floor(at.x * scale), Math.floor(at.y * scale)];
  const sum = new Float64Array(3);
  const squares = new Float64Array(3);
  let [least, most, count] = [255, 0, 0];
  for (let row = Math.max(0, y - half); row <= Math.min(height - 1, y + half); row++)
    for (let column = Math.max(0, x - half); column <= Math.min(width - 1, x + half); column++) {
      count++;
      for (let i = 0; i < 3; i++) {
        const level = rgb[3 * (row * width + column) + i] ?? 0;
        sum[i] = (sum[i] ?? 0) + level;
        squares[i] = (squares[i] ?? 0) + level * level;
      }
    }
  const means = Array.from(sum, (s) => s / count);
  least = Math.min(least, ...means);
  most = Math.max(most, ...means);
  const uneven = Math.max(
    ...means.map((mean, i) => Math.sqrt(Math.max(0, (squares[i] ?? 0) / count - mean * mean)) / Math.max(1, mean)),
  );
  const [r = Number.NaN, g = Number.NaN, b = Number.NaN] = means.map((mean) => linearOf(mean / 255));
  return { linear: [r, g, b], uneven, least, most };
}

/** Linear mean of the middle of a cell; `null` where any of it lies outside the picture. */
function meanIn(
  { width, height, rgb }: ColourPicture,
  toPicture: Projective,
  scale: number,
  { x0, y0, x1, y1 }: Rect,
): Linear | null {
  const sum: [number, number, number] = [0, 0, 0];
  for (let k = 0; k < SAMPLES * SAMPLES; k++) {
    const u = RIM + ((1 - 2 * RIM) * ((k % SAMPLES) + 0.5)) / SAMPLES;
    const v = RIM + ((1 - 2 * RIM) * (Math.floor(k / SAMPLES) + 0.5)) / SAMPLES;
    const at = projected(toPicture, { x: x0 + u * (x1 - x0), y: y0 + v * (y1 - y0) });
    const [column, row] = [Math.floor(at.x * scale), Math.floor(at.y * scale)];
    if (column < 0 || row < 0 || column >= width || row >= height) return null;
    const from = 3 * (row * width + column);
    for (const i of [0, 1, 2] as const) sum[i] += linearOf((rgb[from + i] ?? 0) / 255);
  }
  const count = SAMPLES * SAMPLES;
  return [sum[0] / count, sum[1] / count, sum[2] / count];
}
