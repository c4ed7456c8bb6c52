/** The letters of run sheets: which font has them, and how wide they are. The fonts ship with the app. */
import { readFileSync } from "node:fs";
import path from "node:path";
import PDFDocument from "pdfkit";
import type { Face } from "./sheet-page";
import { mmOfPt } from "./sheet-page";

const NEXT = "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin";
const MONO = "@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin";
const FILES = {
  words: `${NEXT}-400-normal.woff`,
  bold: `${NEXT}-700-normal.woff`,
  figures: `${MONO}-400-normal.woff`,
  /** Has the letters that the others lack. */
  others: "dejavu-fonts-ttf/ttf/DejaVuSans.ttf",
} as const;
export type FontName = keyof typeof FILES;

/** Beyond Latin 1, what the files of the three faces hold. */
const HELD = new Set("−–—‘’“”‚„†‡•…‹›€™");
const LAST_OF_LATIN_1 = 0xff;

const bytes = new Map<FontName, Buffer>();

/** The font itself. @throws Error when it is not among the installed packages */
export function fontBytes(name: FontName): Buffer {
  const known =
    bytes.get(name) ?? readFileSync(path.join(/*turbopackIgnore: true*/ process.cwd(), "node_modules", FILES[name]));
  bytes.set(name, known);
  return known;
}

export const FONT_NAMES = Object.keys(FILES) as FontName[];

/** A text in parts that each have one font. */
export function runsOf(text: string, face: Face): { text: string; font: FontName }[] {
  const runs: { text: string; font: FontName }[] = [];
  for (const character of text) {
    const held = (character.codePointAt(0) ?? 0) <= LAST_OF_LATIN_1 || HELD.has(character);
    const font = held ? face : "others";
    const last = runs.at(-1);
    if (last?.font === font) last.text += character;
    else runs.push({ text: character, font });
  }
  return runs;
}

/** A document with all fonts; nothing is drawn yet. */
export function documentWithFonts(options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument {
  // A font of its own keeps it from looking for the standard ones.
  const document = new PDFDocument({ ...options, font: fontBytes("words") as unknown as string });
  for (const name of FONT_NAMES) document.registerFont(name, fontBytes(name));
  return document;
}

let ruler: PDFKit.PDFDocument | undefined;
const RULED_PT = 1000;
const widths = new Map<string, number>();
const MOST_KEPT = 20_000;

/** Width of a text, mm. */
export function textWidthMm(text: string, face: Face, sizePt: number): number {
  let points = 0;
  for (const run of runsOf(text, face))
    for (const part of run.text.split(/(?<= )/)) points += widthOfPart(part, run.font);
  return mmOfPt((points * sizePt) / RULED_PT);
}

/** Of a word, at the size of the ruler; words come again and again. */
function widthOfPart(part: string, font: FontName): number {
  const key = `${font} ${part}`;
  const known = widths.get(key);
  if (known !== undefined) return known;
  ruler ??= documentWithFonts({ autoFirstPage: false });
  const width = ruler.font(font).fontSize(RULED_PT).widthOfString(part);
  if (widths.size < MOST_KEPT) widths.set(key, width);
  return width;
}

/** A text in lines no wider than `widthMm`; a word that is wider is broken. */
export function linesOf(text: string, face: Face, sizePt: number, widthMm: number): string[] {
  const fits = (t: string) => textWidthMm(t, face, sizePt) <= widthMm;
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(/\s+/)) {
    const longer = line ? `${line} ${word}` : word;
    if (fits(longer)) {
      line = longer;
      continue;
    }
    if (line) lines.push(line);
    line = word;
    while (!fits(line) && line.length > 1) {
      let most = line.length - 1;
      while (most > 1 && !fits(line.slice(0, most))) most--;
      lines.push(line.slice(0, most));
      line = line.slice(most);
    }
  }
  return [...lines, line];
}
