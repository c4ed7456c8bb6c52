/**
 * Reads the geometry of an SVG drawing, from whatever program: shapes, paths, groups, copies, transforms and units, as
 * polylines in mm, Y up from the lower edge. [W3C SVG 1.1 (Second Edition)]
 *
 * Curves become chords within a stated distance, from their exact form, after all transforms. What would look otherwise than it
 * is read (text, pictures, masks, hidden parts, style rules that move or hide) is refused with its place; colours do not matter.
 */
import { type Affine, composed, IDENTITY, largestStretch, mapped } from "../core/geometry/affine";
import { FormatFault, type Parsed, parsing } from "./parsed";
import { type Outline, outlinesOf } from "./svg-path";
import { faultAt, type SvgNode, svgTree } from "./svg-tree";
import { lengthMm, MM_PER_USER_UNIT, numbersIn, transformOf, userLength } from "./svg-values";

export type SvgPath = {
  /** mm, Y up. */
  points: { x: number; y: number }[];
  closed: boolean;
  /** The groups that it is in, from the outside in, and its own element last. */
  within: readonly SvgNode[];
};
/** A text that is kept: the map of its own units to mm, Y up. */
export type SvgText = { within: readonly SvgNode[]; map: Affine };
export type SvgDrawing = {
  title: string;
  widthMm: number;
  heightMm: number;
  paths: SvgPath[];
  /** None unless they are asked for. */
  texts: SvgText[];
  root: SvgNode;
  /** From the units of the sheet to mm, Y up. */
  sheet: Affine;
};

const CHORD_ERROR_MM = 0.01;
const DEEPEST_COPY = 16;
const MOST_POINTS = 2_000_000;
const MOST_ELEMENTS = 50_000;
const LARGEST_MM = 1e5;

/** Hold no geometry of their own, or only where they are copied. */
const WITHOUT_GEOMETRY = new Set(["title", "desc", "metadata", "defs", "symbol", "style", "#text", "#comment"]);
const GROUPS = new Set(["g", "a", "switch"]);
const STYLE_THAT_MOVES = /(?:^|[\s;{"'])(?:display|visibility|transform|clip-path|mask|offset|zoom)\s*:\s*([^;}]+)/gi;
const HARMLESS = /^(?:inline|block|visible|none|inherit)$/i;

/**
 * @param text the file as text
 * @param chordErrorMm largest distance of a chord from its curve
 * @param keepTexts texts are told apart instead of refused
 */
export function parseSvgDrawing(text: string, chordErrorMm = CHORD_ERROR_MM, keepTexts = false): Parsed<SvgDrawing> {
  return parsing(() => {
    const root = svgTree(text);
    const { widthMm, heightMm, map } = sheetOf(root);
    const title = root.children.find((c) => c.name === "title")?.text ?? "";
    const drawing: SvgDrawing = { title, widthMm, heightMm, paths: [], texts: [], root, sheet: map };
    new Reader(drawing, root, chordErrorMm, keepTexts).children(root, map, [], 0);
    return drawing;
  });
}

/** The size of the sheet, and the map from its user units to mm with Y up. */
function sheetOf(root: SvgNode): { widthMm: number; heightMm: number; map: Affine } {
  const box = root.attributes.viewBox === undefined ? null : numbersIn(root, "viewBox", root.attributes.viewBox);
  if (box && (box.length !== 4 || !((box[2] ?? 0) > 0) || !((box[3] ?? 0) > 0)))
    throw faultAt(root, "viewBox needs four numbers: left, top, and a width and height larger than 0.");
  const [left = 0, top = 0, boxWidth = 0, boxHeight = 0] = box ?? [];
  const given = { width: lengthMm(root, "width"), height: lengthMm(root, "height") };
  if (!box && (given.width === undefined || given.height === undefined))
    throw faultAt(root, "The drawing has no size: give width and height, or a viewBox.");
  const widthMm = given.width ?? (given.height ?? boxHeight * MM_PER_USER_UNIT) * (boxWidth / boxHeight);
  const heightMm = given.height ?? widthMm * (boxHeight / boxWidth);
  if (!(widthMm > 0 && heightMm > 0 && widthMm <= LARGEST_MM && heightMm <= LARGEST_MM))
    throw faultAt(root, "Width and height must be larger than 0 and no more than 100 m.");
  if (!box) return { widthMm, heightMm, map: fromUser(MM_PER_USER_UNIT, MM_PER_USER_UNIT, 0, 0, heightMm) };
  const scale = { x: widthMm / boxWidth, y: heightMm / boxHeight };
  const fit = root.attributes.preserveAspectRatio?.trim() ?? "xMidYMid meet";
  if (fit === "none")
    return { widthMm, heightMm, map: fromUser(scale.x, scale.y, -left * scale.x, -top * scale.y, heightMm) };
  if (fit !== "xMidYMid meet" && fit !== "xMidYMid")
    throw faultAt(root, "preserveAspectRatio is understood as none or xMidYMid only.");
  const k = near(scale.x, scale.y) ? null : Math.min(scale.x, scale.y);
  if (k === null)
    return { widthMm, heightMm, map: fromUser(scale.x, scale.y, -left * scale.x, -top * scale.y, heightMm) };
  const [dx, dy] = [(widthMm - boxWidth * k) / 2, (heightMm - boxHeight * k) / 2];
  return { widthMm, heightMm, map: fromUser(k, k, dx - left * k, dy - top * k, heightMm) };
}

function near(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-9 * Math.max(a, b);
}

/** x mm = sx x + dx; y mm = height - (sy y + dy). */
function fromUser(sx: number, sy: number, dx: number, dy: number, heightMm: number): Affine {
  return { a: sx, b: 0, c: 0, d: -sy, e: dx, f: heightMm - dy };
}

class Reader {
  private points = 0;
  private elements = 0;
  private readonly byId = new Map<string, SvgNode>();

  constructor(
    private readonly drawing: SvgDrawing,
    root: SvgNode,
    private readonly chordErrorMm: number,
    private readonly keepTexts: boolean,
  ) {
    this.index(root);
  }

  private index(node: SvgNode): void {
    if (node.attributes.id && !this.byId.has(node.attributes.id)) this.byId.set(node.attributes.id, node);
    for (const child of node.children) this.index(child);
  }

  children(node: SvgNode, map: Affine, within: readonly SvgNode[], copies: number): void {
    for (const child of node.children) {
      // Letters between elements are what is left of a broken one.
      if (child.name === "#text" && /\S/.test(child.text))
        throw faultAt(
          node,
          `“${child.text.trim().slice(0, 24)}” stands between the parts of this: the file is damaged.`,
        );
      this.element(child, map, within, copies);
    }
  }

  private element(node: SvgNode, map: Affine, within: readonly SvgNode[], copies: number): void {
    if (++this.elements > MOST_ELEMENTS) throw faultAt(node, "The drawing holds more elements than can be meant.");
    if (node.name === "style") refuseMovingStyle(node, node.text);
    // An element of another namespace, such as an editor's notes, is not drawn.
    if (WITHOUT_GEOMETRY.has(node.name) || node.name.includes(":")) return;
    refuseHidden(node);
    const here = composed(map, transformOf(node));
    const inside = [...within, node];
    if (GROUPS.has(node.name)) this.children(node, here, inside, copies);
    else if (node.name === "use") this.copy(node, here, inside, copies);
    else if (node.name === "text" && this.keepTexts) this.drawing.texts.push({ within: inside, map: here });
    else this.shape(node, here, inside);
  }

  private copy(node: SvgNode, map: Affine, within: readonly SvgNode[], copies: number): void {
    const href = node.attributes.href ?? node.attributes["xlink:href"] ?? "";
    const target = this.byId.get(href.replace(/^#/, ""));
    if (!href.startsWith("#") || !target)
      throw faultAt(node, `There is nothing to copy by the name “${href.slice(0, 40)}”.`);
    if (copies >= DEEPEST_COPY) throw faultAt(node, "Copies are nested too deep, or one copies itself.");
    const shifted = composed(map, { ...IDENTITY, e: userLength(node, "x", 0), f: userLength(node, "y", 0) });
    if (target.name === "symbol") {
      if (target.attributes.viewBox !== undefined)
        throw faultAt(target, "A symbol with a viewBox is not understood here.");
      this.children(target, shifted, within, copies + 1);
    } else this.element(target, shifted, within, copies + 1);
  }

  private shape(node: SvgNode, map: Affine, within: readonly SvgNode[]): void {
    const stretch = largestStretch(map);
    if (!Number.isFinite(stretch) || stretch === 0) throw faultAt(node, "A transform makes it vanish, or endless.");
    const outlines = outlinesOf(node, this.chordErrorMm / stretch);
    if (!outlines) throw faultAt(node, advice(node.name));
    for (const outline of outlines) this.add(node, outline, map, within);
  }

  private add(node: SvgNode, { points, closed }: Outline, map: Affine, within: readonly SvgNode[]): void {
    this.points += points.length;
    if (this.points > MOST_POINTS) throw faultAt(node, "The drawing holds more points than can be meant.");
    const placed = points.map((p) => mapped(map, p));
    if (placed.some((p) => !(Math.abs(p.x) <= LARGEST_MM && Math.abs(p.y) <= LARGEST_MM)))
      throw faultAt(node, "A point lies more than 100 m away.");
    this.drawing.paths.push({ points: placed, closed, within });
  }
}

function advice(name: string): string {
  if (name === "text" || name === "tspan") return "Text depends on fonts: turn it into paths first.";
  if (name === "image") return "Pictures are not lines: trace it first, or leave it out.";
  return `<${name.slice(0, 40)}> is not understood here.`;
}

function refuseHidden(node: SvgNode): void {
  const { display, visibility, style } = node.attributes;
  if (display === "none" || visibility === "hidden" || visibility === "collapse")
    throw faultAt(node, "This part is hidden. Delete it, or show it.");
  for (const name of ["clip-path", "mask"])
    if (node.attributes[name] && node.attributes[name] !== "none")
      throw faultAt(node, `A ${name} hides part of this. Cut it for good first.`);
  if (style) refuseMovingStyle(node, style);
}

/** Rules about colour and pen are fine; what hides or moves would not be seen here. */
function refuseMovingStyle(node: SvgNode, css: string): void {
  for (const [rule, value = ""] of css.matchAll(STYLE_THAT_MOVES)) {
    const hides = /display/i.test(rule) && /none/i.test(value);
    if (hides || !HARMLESS.test(value.trim()))
      throw faultAt(node, `A style hides or moves this part: “${rule.trim().slice(0, 40)}”.`);
  }
}

/** Used by readers that need at least one line. @throws FormatFault */
export function refuseEmpty(paths: readonly unknown[]): void {
  if (paths.length === 0) throw new FormatFault(1, 1, "The drawing holds no path.");
}
