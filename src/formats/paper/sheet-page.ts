/**
 * A page of paper as what is on it, in mm from its upper left corner, Y down. Whoever draws it adds nothing: the PDF and the
 * print view are the same page.
 */
import { MM_PER_INCH } from "../../core/metrology/units";

export type Ink = "ink" | "second" | "faint";
/** Black and greys: a printer has no more. */
export const INKS: Record<Ink | "paper", string> = {
  ink: "#000000",
  second: "#4a4a4a",
  faint: "#9a9a9a",
  paper: "#ffffff",
};
export type Face = "words" | "bold" | "figures";

export type SheetItem =
  | {
      kind: "text";
      /** Of the baseline, on the side of `anchor`. */
      x: number;
      y: number;
      text: string;
      sizePt: number;
      face: Face;
      anchor: "start" | "middle" | "end";
      ink: Ink;
      /** Upright, or read from the right. */
      turned: boolean;
    }
  | {
      kind: "path";
      points: readonly { x: number; y: number }[];
      closed: boolean;
      widthMm: number;
      dashMm: readonly number[];
      ink: Ink;
      fill: Ink | "paper" | null;
    }
  | { kind: "circle"; x: number; y: number; radiusMm: number; widthMm: number; ink: Ink; fill: "paper" | null }
  /** Items that are cut off at a rectangle. */
  | { kind: "window"; x: number; y: number; widthMm: number; heightMm: number; items: readonly SheetItem[] };

export type SheetPath = Extract<SheetItem, { kind: "path" }>;

export type SheetPage = { widthMm: number; heightMm: number; title: string; items: SheetItem[] };

export const PAPERS = {
  a4: { label: "A4", widthMm: 210, heightMm: 297 },
  letter: { label: "US Letter", widthMm: 215.9, heightMm: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

/** Printers leave so much unprinted at each edge. (common practice, no source) */
export const MARGIN_MM = 12;
const POINTS_PER_MM = 72 / MM_PER_INCH;

export function mmOfPt(pt: number): number {
  return pt / POINTS_PER_MM;
}

export function ptOfMm(mm: number): number {
  return mm * POINTS_PER_MM;
}

export function line(x0: number, y0: number, x1: number, y1: number, widthMm = 0.2, ink: Ink = "ink"): SheetPath {
  const points = [
    { x: x0, y: y0 },
    { x: x1, y: y1 },
  ];
  return { kind: "path", points, closed: false, widthMm, dashMm: [], ink, fill: null };
}

export function box(x: number, y: number, widthMm: number, heightMm: number, penMm = 0.25): SheetPath {
  const points = [
    { x, y },
    { x: x + widthMm, y },
    { x: x + widthMm, y: y + heightMm },
    { x, y: y + heightMm },
  ];
  return { kind: "path", points, closed: true, widthMm: penMm, dashMm: [], ink: "ink", fill: null };
}

/** The same in lines and gaps of these lengths. */
export function dashed(path: SheetPath, dashMm: readonly number[]): SheetPath {
  return { ...path, dashMm };
}

type TextStyle = Partial<Pick<Extract<SheetItem, { kind: "text" }>, "sizePt" | "face" | "anchor" | "ink" | "turned">>;

export const BODY_PT = 10;

export function text(x: number, y: number, words: string, style: TextStyle = {}): SheetItem {
  return {
    kind: "text",
    x,
    y,
    text: words,
    sizePt: BODY_PT,
    face: "words",
    anchor: "start",
    ink: "ink",
    turned: false,
    ...style,
  };
}
