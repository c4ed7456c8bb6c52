/** Cells of known colours in a picture drawn by librsvg, seen through scanners with their own colours. */
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { colourDifference } from "../../colour/difference";
import { labOfHex } from "../../colour/lab";
import { projectiveThrough } from "../../fitting/projective";
import { type Cards, type ColourPicture, readColours } from "./read-colours";

const COLOURS = ["#c8a24a", "#8a5a2c", "#5b2f6b", "#23408f", "#5f8fbf", "#7f8a8c"];
/** mm, Y up; 10 pixels a mm, 60 mm high. */
const CELLS = COLOURS.map((_, i) => ({ x0: 5 + 12 * i, y0: 10, x1: 14 + 12 * i, y1: 19 }));
const CARDS: Cards = { white: { at: { x: 150, y: 100 }, l: 95 }, grey: { at: { x: 450, y: 100 }, l: 49.5 } };
const CORNERS = [
  { x: 0, y: 0 },
  { x: 80, y: 0 },
  { x: 80, y: 60 },
  { x: 0, y: 60 },
];
const TO_PICTURE = projectiveThrough(CORNERS.map((from) => ({ from, to: { x: 10 * from.x, y: 600 - 10 * from.y } })));

/** @param width pixels; the drawing is 800 wide */
async function drawn(width = 800): Promise<ColourPicture> {
  const rect = (x: number, y: number, w: number, h: number, colour: string) =>
    `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${colour}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600">${rect(0, 0, 800, 600, "#b9b7b2")}${rect(50, 50, 200, 100, "#f1f1f1")}${rect(350, 50, 200, 100, "#777777")}${CELLS.map((c, i) => rect(10 * c.x0, 600 - 10 * c.y1, 90, 90, COLOURS[i] ?? "")).join("")}</svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .resize({ width })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, rgb: new Uint8Array(data) };
}

/** As a scanner shows it whose channels have a gain and a power of their own. */
function through({ rgb, ...size }: ColourPicture, gains: readonly number[], powers: readonly number[]): ColourPicture {
  const shown = rgb.map((v, k) =>
    Math.min(255, Math.round(255 * (gains[k % 3] ?? 1) * (v / 255) ** (powers[k % 3] ?? 1))),
  );
  return { ...size, rgb: shown };
}

function worst(picture: ColourPicture, scale = 1, cards = CARDS): number {
  if (!TO_PICTURE) throw new Error("no map");
  const read = readColours(picture, TO_PICTURE, scale, CELLS, cards);
  if (!read.ok) throw new Error(read.why);
  return Math.max(
    ...read.colours.map((colour, i) => {
      const own = labOfHex(COLOURS[i] ?? "");
      return colour && own ? colourDifference(colour, own) : Number.NaN;
    }),
  );
}

describe("colours of cells beside a white and a grey card", () => {
  it("are those that were drawn, at any size of the picture", async () => {
    expect(worst(await drawn())).toBeLessThan(0.6);
    expect(worst(await drawn(400), 0.5)).toBeLessThan(0.8);
  });

  it("hardly differ through a scanner with a tint, too dark and too flat", async () => {
    const picture = await drawn();
    const seen = through(picture, [0.97, 0.9, 0.82], [1.1, 1.05, 1.15]);
    expect(worst(seen)).toBeLessThan(2);
    // Without the cards the same picture is far off.
    const raw = COLOURS.map((hex, i) => {
      const k = 3 * (450 * 800 + 90 + 120 * i);
      const shown = Buffer.from(seen.rgb.slice(k, k + 3)).toString("hex");
      const [own, other] = [labOfHex(hex), labOfHex(shown)];
      return own && other ? colourDifference(own, other) : Number.NaN;
    });
    expect(Math.min(...raw)).toBeGreaterThan(3);
  });

  it("are refused where a card is not what it should be", async () => {
    if (!TO_PICTURE) throw new Error("no map");
    const picture = await drawn();
    const why = (cards: Partial<Cards>) => readColours(picture, TO_PICTURE, 1, CELLS, { ...CARDS, ...cards });
    expect(why({ white: { at: { x: 50, y: 100 }, l: 95 } })).toMatchObject({ ok: false, card: "white", why: /./ });
    expect(why({ grey: { at: { x: 5000, y: 100 }, l: 49.5 } })).toMatchObject({
      ok: false,
      card: "grey",
      why: expect.stringMatching(/outside the picture/),
    });
    expect(why({ grey: CARDS.white })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/contradict each other/),
    });
    const bright = through(picture, [1.2, 1.2, 1.2], [1, 1, 1]);
    expect(readColours(bright, TO_PICTURE, 1, CELLS, CARDS)).toMatchObject({ ok: false, card: "white" });
  });

  it("are missing outside the picture", async () => {
    if (!TO_PICTURE) throw new Error("no map");
    const read = readColours(await drawn(), TO_PICTURE, 1, [{ x0: 75, y0: 10, x1: 84, y1: 19 }], CARDS);
    expect(read).toEqual({ ok: true, colours: [null] });
  });
});
