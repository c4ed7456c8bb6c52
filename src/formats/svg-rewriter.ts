/**
 * An SVG drawing written again with every line moved: groups, layers, ids, styles and titles stay as they are.
 *
 * Shapes become paths in the units of the sheet, so transforms of groups are taken up in them. Copies are written out. Text stays text: it
 * is moved and turned with its place, and its letters keep their form. [W3C SVG 1.1 (Second Edition)]
 */
import { type Affine, composed, inverseOf, mapped } from "../core/geometry/affine";
import type { SvgDrawing, SvgPath } from "./svg-drawing";
import type { SvgNode } from "./svg-tree";

type Point = { x: number; y: number };

export type Moving = {
  /** mm, Y up from the lower edge of the sheet. */
  path: (points: readonly Point[], closed: boolean) => readonly Point[];
  /** Shift and turn of a text: those of the drawing near the place of the text. */
  text: (at: Point) => Affine;
};

/** Geometry of shapes: taken up in the path. */
const GEOMETRY = new Set(
  ["x", "y", "width", "height", "rx", "ry", "cx", "cy", "r", "x1", "y1", "x2", "y2", "points", "d", "transform"].concat(
    "pathLength",
  ),
);
const COPY = new Set(["href", "xlink:href", "x", "y", "width", "height", "transform"]);
const TRANSFORM = new Set(["transform"]);
const GROUPS = new Set(["g", "a", "switch"]);
/** Kept word for word. */
const KEPT = new Set(["title", "desc", "metadata", "defs", "style", "symbol"]);
/** Digits of a coordinate: below a tenth of a micrometre in any usual unit. */
const DECIMALS = 5;

/** @param drawing read with its texts */
export function svgMoved(drawing: SvgDrawing, moving: Moving): string {
  const back = inverseOf(drawing.sheet);
  const { root } = drawing;
  const paths = byChain(drawing.paths);
  const texts = new Map(drawing.texts.map((t) => [chainKey(t.within), t.map]));
  const byId = new Map<string, SvgNode>();
  const index = (node: SvgNode) => {
    if (node.attributes.id && !byId.has(node.attributes.id)) byId.set(node.attributes.id, node);
    node.children.forEach(index);
  };
  index(root);

  const written = (node: SvgNode, chain: readonly SvgNode[]): string => {
    if (node.name === "#text") return escaped(node.text);
    if (node.name === "#comment") return "";
    if (KEPT.has(node.name) || node.name.includes(":")) return verbatim(node);
    const here = [...chain, node];
    if (GROUPS.has(node.name))
      return tag(node.name, node.attributes, TRANSFORM, node.children.map((c) => written(c, here)).join(""));
    if (node.name === "use") {
      const target = byId.get((node.attributes.href ?? node.attributes["xlink:href"] ?? "").replace(/^#/, ""));
      const inner = target?.name === "symbol" ? target.children : target ? [target] : [];
      return tag("g", node.attributes, COPY, inner.map((c) => written(c, here)).join(""));
    }
    const text = texts.get(chainKey(here));
    if (text) return movedText(node, text);
    const own = paths.get(chainKey(here)) ?? [];
    if (own.length === 0) return "";
    const d = own.map((p) => pathData(moving.path(p.points, p.closed), p.closed)).join("");
    return tag("path", { ...node.attributes, d }, new Set([...GEOMETRY].filter((name) => name !== "d")), "");
  };

  const pathData = (points: readonly Point[], closed: boolean): string =>
    points
      .map((p, i) => {
        const { x, y } = mapped(back, p);
        return `${i === 0 ? "M" : "L"}${shown(x)} ${shown(y)}`;
      })
      .join("") + (closed ? "Z" : "");

  const movedText = (node: SvgNode, map: Affine): string => {
    const number = (name: string) => Number.parseFloat(node.attributes[name] ?? "0") || 0;
    const at = mapped(map, { x: number("x"), y: number("y") });
    const { a, b, c, d, e, f } = composed(back, composed(moving.text(at), map));
    const matrix = `matrix(${[a, b, c, d, e, f].map(shown).join(" ")})`;
    return tag(node.name, { ...node.attributes, transform: matrix }, new Set(), node.children.map(verbatim).join(""));
  };

  const body = root.children.map((c) => written(c, [])).join("");
  return `<?xml version="1.0" encoding="UTF-8"?>\n${tag("svg", root.attributes, new Set(), body)}\n`;
}

function byChain(paths: readonly SvgPath[]): Map<string, SvgPath[]> {
  const found = new Map<string, SvgPath[]>();
  for (const path of paths) {
    const key = chainKey(path.within);
    found.set(key, [...(found.get(key) ?? []), path]);
  }
  return found;
}

/** Elements are told apart by their place in the file. */
function chainKey(chain: readonly SvgNode[]): string {
  return chain.map((n) => `${n.line}:${n.column}`).join(" ");
}

function verbatim(node: SvgNode): string {
  if (node.name === "#text") return escaped(node.text);
  if (node.name === "#comment") return "";
  return tag(node.name, node.attributes, new Set(), node.children.map(verbatim).join(""));
}

function tag(
  name: string,
  attributes: Readonly<Record<string, string>>,
  without: ReadonlySet<string>,
  body: string,
): string {
  const said = Object.entries(attributes)
    .filter(([key]) => !without.has(key))
    .map(([key, value]) => ` ${key}="${escaped(value)}"`)
    .join("");
  return body === "" ? `<${name}${said}/>` : `<${name}${said}>${body}</${name}>`;
}

function escaped(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}

function shown(value: number): string {
  return String(Number(value.toFixed(DECIMALS)) + 0);
}
