/** `adapt DRAWING --offset LENGTH`: a drawing that makes up for the kerf. */
import { type AdaptOrder, adapt } from "../artwork/adapt";
import { SVG_UNITS, type SvgUnit } from "../artwork/read-drawing";
import { parseReading } from "../core/metrology/reading-text";
import { dxfOf } from "../formats/dxf-writer";
import { svgOf } from "../formats/svg-writer";
import { CliFault } from "./cli-fault";
import { fileText } from "./document-file";

export type AdaptWords = {
  offset: string;
  chord?: string;
  slots?: string;
  uncut?: string;
  unit?: string;
  format?: string;
};

const USUAL_CHORD = "0.01 mm";
const FORMATS = { svg: (piece: Parameters<typeof dxfOf>[0]) => svgOf(piece, false), dxf: dxfOf } as const;

/** @throws CliFault where the drawing cannot be adapted, with every outline at fault */
export function adapted(file: string, words: AdaptWords): string {
  const { format = "svg", unit } = words;
  if (!Object.hasOwn(FORMATS, format)) throw new CliFault("", "--format", "Choose svg or dxf.");
  if (unit !== undefined && !Object.hasOwn(SVG_UNITS, unit))
    throw new CliFault("", "--unit", `Choose one of ${Object.keys(SVG_UNITS).join(", ")}.`);
  const order: AdaptOrder = {
    text: fileText(file),
    offsetMm: length(words.offset, "--offset"),
    chordErrorMm: length(words.chord ?? USUAL_CHORD, "--chord"),
    unit: (unit as SvgUnit | undefined) ?? null,
    slots: words.slots === undefined ? null : slotsIn(words.slots),
    uncut: words.uncut?.split(",").map((layer) => layer.trim()) ?? [],
  };
  if (!(order.chordErrorMm > 0)) throw new CliFault("", "--chord", "It must be larger than 0.");
  const result = adapt(order);
  if (!result.ok) throw new CliFault(file, "", result.asksUnit ? `${result.message} Use --unit.` : result.message);
  const strange = order.uncut.find((layer) => !result.layers.includes(layer));
  if (strange !== undefined)
    throw new CliFault(file, "--uncut", `There is no layer “${strange}”: it has ${result.layers.join(", ")}.`);
  if (!result.piece)
    throw new CliFault(
      file,
      "",
      [...result.problems.map((p) => p.text), ...(result.problems.length > 0 ? [] : result.notes)].join(" "),
    );
  return FORMATS[format as keyof typeof FORMATS](result.piece);
}

/** `3:3.05`: from this width to that. */
function slotsIn(text: string): { fromMm: number; toMm: number } {
  const [from, to, more] = text.split(":");
  if (from === undefined || to === undefined || more !== undefined)
    throw new CliFault("", "--slots", "Say from which width to which, for example 3:3.05.");
  return { fromMm: length(from, "--slots"), toMm: length(to, "--slots") };
}

function length(text: string, name: string): number {
  const minus = /^\s*-/.test(text);
  const read = parseReading(text.replace(/^\s*-/, ""), "length", "mm");
  if (!read.ok) throw new CliFault("", name, read.message);
  return minus ? -read.value : read.value;
}
