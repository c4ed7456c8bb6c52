/** A drawing from a file, SVG or DXF by what it says of itself, as paths in mm with the layer that each is in. */
import { boundsOf } from "../core/geometry/rect";
import { MM_PER_INCH } from "../core/metrology/units";
import { parseDxf } from "../formats/dxf-parser";
import { faultText, type Parsed } from "../formats/parsed";
import { parseSvgDrawing, type SvgPath } from "../formats/svg-drawing";
import type { Point } from "./contour";

export type DrawnPath = { points: readonly Point[]; closed: boolean; layer: string };
export type ReadDrawing =
  | {
      ok: true;
      kind: "svg" | "dxf";
      paths: DrawnPath[];
      title: string;
      notes: string[];
    }
  | { ok: false; message: string /** That its unit has to be said. */; asksUnit: boolean };

/** What one unit of an SVG is where the drawing does not say. */
export const SVG_UNITS = {
  mm: 1,
  inch: MM_PER_INCH,
  "96 an inch": MM_PER_INCH / 96,
  "72 an inch": MM_PER_INCH / 72,
} as const;
export type SvgUnit = keyof typeof SVG_UNITS;

/** Parts of this size are rare: 25.4 was slipped in. (common practice, no source) */
const [TINY_MM, HUGE_MM] = [3, 2500];

/**
 * @param unit what one unit is, where an SVG gives its size without one
 * @param chordErrorMm how far a chord may lie from its curve
 */
export function readDrawing(text: string, unit: SvgUnit | null, chordErrorMm: number): ReadDrawing {
  const read = /^\s*(?:<\?xml|<!|<svg)/i.test(text.replace(/^\uFEFF/, ""))
    ? readSvg(text, unit, chordErrorMm)
    : readDxf(text, chordErrorMm);
  if (!read.ok) return read;
  const { paths } = read;
  const box = boundsOf(paths.flatMap((p) => p.points)) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const largest = Math.max(width, height);
  const size = `${width.toFixed(1)} × ${height.toFixed(1)} mm`;
  const slip =
    largest < TINY_MM || largest > HUGE_MM
      ? [`All of it is ${size}: was an inch taken for a mm on its way, or a mm for an inch (25.4)?`]
      : [];
  return { ...read, notes: [...read.notes, ...slip] };
}

function readSvg(text: string, unit: SvgUnit | null, chordErrorMm: number): ReadDrawing {
  const stretch = unit === null ? 1 : SVG_UNITS[unit] / SVG_UNITS["96 an inch"];
  const read = parseSvgDrawing(text, chordErrorMm / stretch);
  if (!read.ok) return refused(read);
  const { paths, root, title } = read.value;
  const { width, height } = root.attributes;
  const says = (size: string | undefined) => size !== undefined && /[a-z%]\s*$/i.test(size.trim());
  const isSaid = says(width) && says(height);
  if (!isSaid && unit === null)
    return {
      ok: false,
      asksUnit: true,
      message: "This drawing gives its size without a unit. Say what one of its units is.",
    };
  const scale = isSaid ? 1 : stretch;
  const layers = layersOfSvg(paths);
  const scaled = paths.map((path, i) => ({
    closed: path.closed,
    layer: layers[i] as string,
    points: path.points.map(({ x, y }) => ({ x: x * scale, y: y * scale })),
  }));
  return {
    ok: true,
    kind: "svg",
    title,
    paths: scaled,
    notes: viewBoxNotes(root.attributes, read.value, isSaid),
  };
}

/** Of each path the group that it is in, by its id: the outermost one that does not hold all of the drawing. */
export function layersOfSvg(paths: readonly SvgPath[]): string[] {
  const groups = paths.map(({ within }) =>
    within.flatMap((node) => (node.name === "g" && node.attributes.id ? [node.attributes.id] : [])),
  );
  const [first = []] = groups;
  const apart = first.findIndex((id, depth) => groups.some((ids) => ids[depth] !== id));
  const depth = apart < 0 ? first.length : apart;
  return groups.map((ids) => ids[depth] ?? ids[depth - 1] ?? "drawing");
}

/** A viewBox that scales is right, and often a surprise. */
function viewBoxNotes(
  attributes: Readonly<Record<string, string>>,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  isSaid: boolean,
): string[] {
  const box = (attributes.viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [, , width = 0, height = 0] = box;
  if (!isSaid || !(width > 0 && height > 0)) return [];
  const [x, y] = [widthMm / width, heightMm / height];
  if (Math.abs(x / y - 1) > 1e-3 && attributes.preserveAspectRatio?.trim() === "none")
    return [`Its viewBox stretches X by ${x.toFixed(3)} and Y by ${y.toFixed(3)} mm a unit: is that meant?`];
  const isKnown = [1, MM_PER_INCH / 96, MM_PER_INCH / 72, MM_PER_INCH, 10].some((k) => Math.abs(x / k - 1) < 1e-3);
  return isKnown ? [] : [`Its viewBox scales it: one unit is ${x.toFixed(4)} mm. Sizes here are what comes out.`];
}

function readDxf(text: string, chordErrorMm: number): ReadDrawing {
  const read = parseDxf(text, chordErrorMm);
  if (!read.ok) return refused(read);
  const { paths } = read.value;
  const isInches = /\$INSUNITS\s*\r?\n\s*70\s*\r?\n\s*1\s*\r?\n/.test(text);
  return {
    ok: true,
    kind: "dxf",
    title: "",
    paths,
    notes: isInches ? ["The file is in inches; sizes here, and in what you download, are mm."] : [],
  };
}

function refused(read: Extract<Parsed<unknown>, { ok: false }>): ReadDrawing {
  return { ok: false, message: faultText(read), asksUnit: false };
}
