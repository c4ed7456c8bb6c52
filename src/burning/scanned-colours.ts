/**
 * A burned array of steel as a practice colour scanner shows it: cells in the colours of their oxide, a white and a grey card in front of the stock.
 *
 * The scanner has its own tint: each channel has a gain and a power. Nothing here knows how colours are corrected.
 */
import { luminanceOf } from "../core/colour/lab";
import type { Measurand } from "../core/coupon/site";
import type { PlanePoint } from "../core/fitting/plane-map";
import type { Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import { MM_PER_INCH } from "../core/metrology/units";
import { type CellLook, cellLooks, isInside } from "../practice/cell-look";
import type { Mark } from "../practice/gantry";
import { oxideColour } from "../practice/oxide-colour";
import { seeded } from "../practice/random";
import { SCAN_LOOK, scanPicture } from "../practice/scan-picture";
import { shadedMarks } from "../practice/shaded-marks";
import { type BurnedArray, MOST_TURN_DEG } from "./scanned-array";

export type ColourScan = {
  width: number;
  height: number;
  /** Three bytes a pixel, row by row from the top. */
  rgb: Uint8Array;
  pixelsPerMm: number;
  /** Middle of each card, pixels. */
  cards: { white: PlanePoint; grey: PlanePoint };
};

type Look = Extract<Measurand, { kind: "cell colour" }>;

/** Of the scanner, red, green and blue. */
const TINT = { gain: [0.98, 0.95, 0.9], power: [1.06, 1, 1.08] } as const;
/** mm: in front of the stock. */
const STRIP = { height: 24, margin: 4, card: { width: 22, height: 16 } };
const BARE_NM = 4;
/** Light falls off little over a scan of a small stock. */
const LIGHT = 0.01;

export function colourScanOfArray(
  { marks, corner, piece, machine, seed }: BurnedArray,
  look: Look,
  dpi: number,
  chance: number,
): ColourScan {
  const looks = cellLooks(look.cells, marks, corner, {
    seed,
    stock: piece.stockKey ?? "",
    topSpeedMmPerS: machine.topSpeedMmPerS,
  });
  const turnDeg = seeded(chance).between(-MOST_TURN_DEG, MOST_TURN_DEG);
  const perMm = dpi / MM_PER_INCH;
  const bare = oxideColour(BARE_NM);
  const spread = spreadMarks(marks, look.cells, corner, 2.5 / perMm);
  const channels = [0, 1, 2].map((channel) => {
    const stock = Math.round(255 * (bare[channel] ?? 0));
    const shades = { stock, mark: Math.round(0.25 * stock) };
    const shaded = shadedMarks(
      spread,
      look.cells,
      looks.map((l) => inChannel(l, channel, stock)),
      corner,
      stock,
      chance,
    );
    return scanPicture(
      shaded,
      corner,
      piece,
      { ...SCAN_LOOK, dpi, turnDeg, light: LIGHT, grain: 1.5, shades },
      chance + channel,
    );
  });
  const [first] = channels;
  if (!first) throw new Error("no channel");
  const { width } = first;
  const strip = Math.round(STRIP.height * perMm);
  const height = first.height + strip;
  const rgb = new Uint8Array(3 * width * height);
  const cards = { white: cardAt(0), grey: cardAt(1) };
  const levels = { white: levelOf(look.white), grey: levelOf(look.grey) };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let channel = 0; channel < 3; channel++) {
        const seen =
          y < first.height
            ? (channels[channel]?.grey[y * width + x] ?? 0)
            : beside(x / perMm, (y - first.height) / perMm);
        const shown = 255 * (TINT.gain[channel] ?? 1) * (seen / 255) ** (TINT.power[channel] ?? 1);
        rgb[3 * (y * width + x) + channel] = Math.round(Math.min(255, shown));
      }
  const pixel = ({ x, y }: PlanePoint) => ({ x: x * perMm, y: first.height + y * perMm });
  return { width, height, rgb, pixelsPerMm: perMm, cards: { white: pixel(cards.white), grey: pixel(cards.grey) } };

  /** Middle of a card on the strip, mm. */
  function cardAt(n: number): PlanePoint {
    return { x: STRIP.margin + STRIP.card.width / 2 + n * (STRIP.card.width + STRIP.margin), y: STRIP.height / 2 };
  }

  /** The lid of the scanner and the cards before it. */
  function beside(x: number, y: number): number {
    for (const card of ["white", "grey"] as const)
      if (Math.abs(x - cards[card].x) < STRIP.card.width / 2 && Math.abs(y - cards[card].y) < STRIP.card.height / 2)
        return levels[card];
    return LID;
  }
}

/** Heat spreads from row to row: the oxide covers a filled cell without gaps. @param leastMm width that covers whole pixels */
function spreadMarks(marks: readonly Mark[], cells: readonly Rect[], corner: Placement, leastMm: number): Mark[] {
  const lengthOf = (m: Mark) => Math.hypot(m.x1 - m.x0, m.y1 - m.y0);
  const at = marks.map((m) => cells.findIndex((cell) => isInside(cell, m, corner)));
  const marked = cells.map(() => 0);
  marks.forEach((m, i) => {
    const k = at[i] ?? -1;
    if (k >= 0) marked[k] = (marked[k] ?? 0) + lengthOf(m);
  });
  return marks.map((m, i) => {
    const cell = cells[at[i] ?? -1];
    if (!cell) return m;
    const rowMm = ((cell.x1 - cell.x0) * (cell.y1 - cell.y0)) / (marked[at[i] ?? -1] || 1);
    return { ...m, widthMm: Math.max(m.widthMm, 1.4 * rowMm, leastMm) };
  });
}

const LID = 205;

/** Level of a neutral surface in a file, 0 to 255. */
function levelOf(l: number): number {
  const c = luminanceOf(l);
  return 255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
}

/** The look whose shade is the level of its colour in one channel. */
function inChannel(look: CellLook | null, channel: number, stock: number): CellLook | null {
  if (!look) return null;
  const level = 255 * (oxideColour(look.oxideNm)[channel] ?? 0);
  return { ...look, darkness: 1 - level / stock, unevenness: 0.01 };
}
