/**
 * A drawing bent the other way for a lens: its marks then lie where they are drawn.
 *
 * The sheet lies with its middle in the middle of the field (a DXF with its zero), moved by so much. Lines are divided first, so that no
 * chord lies more than 2 um from the bent line. What lies outside the measured field is named.
 */
import { type Affine, mapped } from "../core/geometry/affine";
import { bentPath } from "../core/geometry/bent-path";
import { countText } from "../core/metrology/count-text";
import { CHORD_MM } from "../core/procedures/field/bent";
import { commanded, isMeasured } from "../core/procedures/field/table";
import type { FieldTable } from "../core/settings/field-table";
import { parseDxf } from "../formats/dxf-parser";
import { dxfOfLayers } from "../formats/dxf-writer";
import { faultText, type Parsed } from "../formats/parsed";
import { parseSvgDrawing } from "../formats/svg-drawing";
import { svgMoved } from "../formats/svg-rewriter";
import type { Point } from "./contour";
import { layersOfSvg } from "./read-drawing";

export type BendOrder = {
  text: string;
  table: FieldTable;
  /** Of the middle of the sheet, or the zero of a DXF, from the middle of the field, mm. */
  place: Point;
};

export type ShownPath = { points: readonly Point[]; closed: boolean };

export type BendResult =
  | {
      ok: true;
      kind: "svg" | "dxf";
      /** The whole file. */
      file: string;
      /** From the middle of the field, mm. */
      before: readonly ShownPath[];
      after: readonly ShownPath[];
      /** Parts of lines as drawn that lie outside the measured field. */
      beyond: readonly ShownPath[];
      /** Groups or layers of which a part lies outside the measured field, with the length of it, mm. */
      outside: readonly { name: string; mm: number }[];
      texts: number;
      notes: readonly Note[];
      /** Largest shift of a point, mm. */
      largestMm: number;
    }
  | { ok: false; message: string; asksUnit: boolean };

/** Distance over which the direction of a text is determined, mm. */
const NEAR_MM = 0.05;

export function bend({ text, table, place }: BendOrder): BendResult {
  return /^\s*(?:<\?xml|<!|<svg)/i.test(text.replace(/^\uFEFF/, ""))
    ? bendSvg(text, table, place)
    : bendDxf(text, table, place);
}

/** @param toField from the coordinates of the file, mm, to those of the field */
function benderOf(table: FieldTable, toField: Point) {
  const at = (p: Point): Point => ({ x: p.x + toField.x, y: p.y + toField.y });
  const back = (p: Point): Point => ({ x: p.x - toField.x, y: p.y - toField.y });
  const point = (p: Point): Point => back(commanded(table, at(p)));
  return {
    at,
    point,
    path: (points: readonly Point[], closed: boolean): Point[] => {
      const [first] = points;
      const whole = closed && first ? [...points, first] : points;
      const bent = bentPath(whole, point, CHORD_MM);
      return closed ? bent.slice(0, -1) : bent;
    },
    /** Moves and turns as the drawing does near a place. */
    near: (p: Point): Affine => {
      const [o, x, y] = [point(p), point({ x: p.x + NEAR_MM, y: p.y }), point({ x: p.x, y: p.y + NEAR_MM })];
      const [a, b] = [(x.x - o.x) / NEAR_MM, (x.y - o.y) / NEAR_MM];
      const [c, d] = [(y.x - o.x) / NEAR_MM, (y.y - o.y) / NEAR_MM];
      return { a, b, c, d, e: o.x - a * p.x - c * p.y, f: o.y - b * p.x - d * p.y };
    },
  };
}

type Bender = ReturnType<typeof benderOf>;
type Layered = { points: readonly Point[]; closed: boolean; layer: string };

function shownOf(paths: readonly Layered[], bender: Bender, table: FieldTable) {
  const outside = new Map<string, number>();
  let largestMm = 0;
  const before: ShownPath[] = [];
  const after: ShownPath[] = [];
  const beyond: ShownPath[] = [];
  for (const { points, closed, layer } of paths) {
    const placed = points.map(bender.at);
    const ends = closed && placed[0] ? [...placed, placed[0]] : placed;
    let out = 0;
    for (let i = 1; i < ends.length; i++) {
      const [a, b] = [ends[i - 1] as Point, ends[i] as Point];
      for (const [p, q] of pieces(a, b)) {
        if (isMeasured(table, { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 })) continue;
        out += Math.hypot(q.x - p.x, q.y - p.y);
        beyond.push({ points: [p, q], closed: false });
      }
    }
    if (out > 0) outside.set(layer, (outside.get(layer) ?? 0) + out);
    const sent = bender.path(points, closed).map(bender.at);
    points.forEach((p) => {
      const to = bender.point(p);
      largestMm = Math.max(largestMm, Math.hypot(to.x - p.x, to.y - p.y));
    });
    before.push({ points: placed, closed });
    after.push({ points: sent, closed });
  }
  return { before, after, beyond, largestMm, outside: [...outside].map(([name, mm]) => ({ name, mm })) };
}

/** Longer stretches are looked at in pieces, mm. */
const PIECE_MM = 0.5;

function pieces(a: Point, b: Point): [Point, Point][] {
  const count = Math.max(1, Math.min(MOST_PIECES, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / PIECE_MM)));
  const at = (i: number): Point => ({ x: a.x + (i / count) * (b.x - a.x), y: a.y + (i / count) * (b.y - a.y) });
  return Array.from({ length: count }, (_, i) => [at(i), at(i + 1)]);
}

const MOST_PIECES = 1000;

/** A limit of the bent drawing, and the action. */
export type Note = { headline: string; text: string };

function textNotes(texts: number): Note[] {
  return texts === 0
    ? []
    : [
        {
          headline: `${countText(texts, "text")} ${texts === 1 ? "is" : "are"} moved and turned, not bent.`,
          text: "Convert large texts to paths before you add the drawing.",
        },
      ];
}

const BLOCKS: Note = {
  headline: "Blocks are now plain lines.",
  text: "The layers stay the same.",
};

function bendSvg(text: string, table: FieldTable, place: Point): BendResult {
  const read = parseSvgDrawing(text, CHORD_MM, true);
  if (!read.ok) return refused(read);
  const drawing = read.value;
  const { width, height } = drawing.root.attributes;
  const says = (size: string | undefined) => size !== undefined && /[a-z]\s*$/i.test(size.trim());
  if (!says(width) || !says(height))
    return {
      ok: false,
      asksUnit: false,
      message: "The drawing gives its size without a unit. Save it with a width and a height in mm.",
    };
  const bender = benderOf(table, { x: place.x - drawing.widthMm / 2, y: place.y - drawing.heightMm / 2 });
  const layers = layersOfSvg(drawing.paths);
  const paths = drawing.paths.map((p, i) => ({ points: p.points, closed: p.closed, layer: layers[i] ?? "drawing" }));
  if (paths.length + drawing.texts.length === 0)
    return { ok: false, asksUnit: false, message: "The drawing has no line. Choose a drawing with lines." };
  return {
    ok: true,
    kind: "svg",
    file: svgMoved(drawing, { path: bender.path, text: bender.near }),
    ...shownOf(paths, bender, table),
    texts: drawing.texts.length,
    notes: textNotes(drawing.texts.length),
  };
}

function bendDxf(text: string, table: FieldTable, place: Point): BendResult {
  const read = parseDxf(text, CHORD_MM, true);
  if (!read.ok) return refused(read);
  const { layers, paths, texts } = read.value;
  const bender = benderOf(table, place);
  const hasBlocks = /\n\s*INSERT\s*\r?\n/.test(text);
  return {
    ok: true,
    kind: "dxf",
    file: dxfOfLayers({
      layers,
      paths: paths.map((p) => ({ ...p, points: bender.path(p.points, p.closed) })),
      texts: texts.map((t) => {
        const near = bender.near(t.at);
        return { ...t, at: mapped(near, t.at), turnDeg: t.turnDeg + (Math.atan2(near.b, near.a) * 180) / Math.PI };
      }),
    }),
    ...shownOf(paths, bender, table),
    texts: texts.length,
    notes: [...textNotes(texts.length), ...(hasBlocks ? [BLOCKS] : [])],
  };
}

function refused(read: Extract<Parsed<unknown>, { ok: false }>): BendResult {
  return { ok: false, asksUnit: false, message: faultText(read) };
}
