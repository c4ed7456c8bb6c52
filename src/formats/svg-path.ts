/** Path data and basic shapes as polylines in user units. [W3C SVG 1.1 (Second Edition), 8.3 path data, 9 basic shapes] */
import svgpath from "svgpath";
import { cubicOfQuadratic, ellipseArc, flattenedCubic, flattenedEllipse } from "../core/geometry/curve";
import { faultAt, type SvgNode } from "./svg-tree";
import { numbersIn, userLength } from "./svg-values";

type Vector = { x: number; y: number };
/** User units; a fraction of a nanometre. */
const SAME = 1e-9;

export type Outline = { points: Vector[]; closed: boolean };

/** Without it the element holds no geometry: where it is missing, the file is damaged. */
const NEEDED: Partial<Record<string, string>> = { path: "d", polyline: "points", polygon: "points" };

/**
 * The outlines of a shape; `null` where the element is none.
 *
 * @param chordError of curves, user units
 * @throws FormatFault at the element
 */
export function outlinesOf(node: SvgNode, chordError: number): Outline[] | null {
  const length = (name: string, missing = 0) => userLength(node, name, missing);
  const needed = NEEDED[node.name];
  if (needed && node.attributes[needed] === undefined)
    throw faultAt(node, `<${node.name}> without ${needed} draws nothing.`);
  switch (node.name) {
    case "path":
      return pathOutlines(node, node.attributes.d ?? "", chordError);
    case "line":
      return [{ points: [at(length("x1"), length("y1")), at(length("x2"), length("y2"))], closed: false }];
    case "polyline":
    case "polygon":
      return polyOutline(node);
    case "rect":
      return rectOutline(node, chordError);
    case "circle":
      return ellipseOutline(node, length("r"), length("r"), chordError);
    case "ellipse":
      return ellipseOutline(node, length("rx"), length("ry"), chordError);
    default:
      return null;
  }
}

function at(x: number, y: number): Vector {
  return { x, y };
}

function polyOutline(node: SvgNode): Outline[] {
  const numbers = numbersIn(node, "points", node.attributes.points ?? "");
  if (numbers.length % 2 !== 0) throw faultAt(node, "points holds an odd number of coordinates.");
  const points = Array.from({ length: numbers.length / 2 }, (_, i) => at(numbers[2 * i] ?? 0, numbers[2 * i + 1] ?? 0));
  return points.length < 2 ? [] : [{ points, closed: node.name === "polygon" }];
}

function rectOutline(node: SvgNode, chordError: number): Outline[] {
  const [x, y] = [userLength(node, "x", 0), userLength(node, "y", 0)];
  const [w, h] = [positive(node, "width"), positive(node, "height")];
  if (w === 0 || h === 0) return [];
  const [rx, ry] = [userLength(node, "rx", Number.NaN), userLength(node, "ry", Number.NaN)];
  const corner = { x: Math.min(w / 2, first(rx, ry)), y: Math.min(h / 2, first(ry, rx)) };
  if (corner.x === 0 || corner.y === 0)
    return [{ points: [at(x, y), at(x + w, y), at(x + w, y + h), at(x, y + h)], closed: true }];
  const d = `M${x + corner.x} ${y}h${w - 2 * corner.x}a${corner.x} ${corner.y} 0 0 1 ${corner.x} ${corner.y}v${h - 2 * corner.y}a${corner.x} ${corner.y} 0 0 1 ${-corner.x} ${corner.y}h${2 * corner.x - w}a${corner.x} ${corner.y} 0 0 1 ${-corner.x} ${-corner.y}v${2 * corner.y - h}a${corner.x} ${corner.y} 0 0 1 ${corner.x} ${-corner.y}z`;
  return pathOutlines(node, d, chordError);
}

function first(a: number, b: number): number {
  return Number.isNaN(a) ? (Number.isNaN(b) ? 0 : b) : a;
}

function positive(node: SvgNode, name: string): number {
  const value = userLength(node, name, 0);
  if (value < 0) throw faultAt(node, `${name} cannot be negative.`);
  return value;
}

function ellipseOutline(node: SvgNode, rx: number, ry: number, chordError: number): Outline[] {
  if (rx < 0 || ry < 0) throw faultAt(node, "A radius cannot be negative.");
  if (rx === 0 || ry === 0) return [];
  const centre = at(userLength(node, "cx", 0), userLength(node, "cy", 0));
  const arc = { centre, rx, ry, turnRad: 0, startRad: 0, sweepRad: 2 * Math.PI };
  return [{ points: flat(node, () => flattenedEllipse(arc, chordError)), closed: true }];
}

function pathOutlines(node: SvgNode, d: string, chordError: number): Outline[] {
  const path = svgpath(d);
  const { err } = path as unknown as { err: string };
  if (err) {
    const from = Number(/pos (\d+)/.exec(err)?.[1] ?? 0);
    const shown = d.slice(from, from + 12);
    throw faultAt(node, shown ? `The path cannot be read from “${shown}” on.` : "The path is cut short.");
  }
  const outlines: Outline[] = [];
  let open: Outline | null = null;
  const going = (x: number, y: number): Vector[] => {
    if (!open) {
      // After a closed outline the next one begins where that began.
      open = { points: [at(x, y)], closed: false };
      outlines.push(open);
    }
    return open.points;
  };
  path
    .abs()
    .unshort()
    .iterate((segment, _, x, y) => {
      const [command, ...rest] = segment;
      const n = rest.map(Number);
      if (n.some((value) => !Number.isFinite(value))) throw faultAt(node, "The path holds a number that is too large.");
      const end = at(n.at(-2) ?? x, n.at(-1) ?? y);
      switch (command) {
        case "M":
          open = { points: [end], closed: false };
          outlines.push(open);
          break;
        case "L":
          going(x, y).push(end);
          break;
        case "H":
          going(x, y).push(at(n[0] ?? x, y));
          break;
        case "V":
          going(x, y).push(at(x, n[0] ?? y));
          break;
        case "C": {
          const controls = [at(n[0] ?? 0, n[1] ?? 0), at(n[2] ?? 0, n[3] ?? 0)] as const;
          append(
            going(x, y),
            flat(node, () => flattenedCubic([at(x, y), ...controls, end], chordError)),
          );
          break;
        }
        case "Q": {
          const cubic = cubicOfQuadratic(at(x, y), at(n[0] ?? 0, n[1] ?? 0), end);
          append(
            going(x, y),
            flat(node, () => flattenedCubic(cubic, chordError)),
          );
          break;
        }
        case "A":
          append(going(x, y), arcPoints(node, at(x, y), end, n, chordError));
          break;
        case "Z":
          if (open) open.closed = true;
          open = null;
          break;
        default:
          throw faultAt(node, `${command} is not understood in a path.`);
      }
    });
  return outlines.filter((o) => o.points.length > 1).map(withoutDouble);
}

/** A closed outline whose end was drawn back to its beginning has that point once. */
function withoutDouble(outline: Outline): Outline {
  const { points, closed } = outline;
  const [first, last] = [points[0], points.at(-1)];
  const double = closed && points.length > 2 && first && last && Math.hypot(first.x - last.x, first.y - last.y) < SAME;
  return double ? { points: points.slice(0, -1), closed } : outline;
}

/** One by one: some thousand are too many for one call. */
function append(points: Vector[], more: readonly Vector[]): void {
  for (const p of more) points.push(p);
}

function arcPoints(node: SvgNode, from: Vector, to: Vector, n: readonly number[], chordError: number): Vector[] {
  if (from.x === to.x && from.y === to.y) return [];
  const [rx = 0, ry = 0, degrees = 0, large = 0, sweep = 0] = n;
  const arc = ellipseArc(from, to, { rx, ry, turnRad: (degrees * Math.PI) / 180 }, large === 1, sweep === 1);
  if (!arc) return [to];
  const points = flat(node, () => flattenedEllipse(arc, chordError));
  // The end is the one that is written, not the one worked out.
  return [...points.slice(0, -1), to];
}

function flat(node: SvgNode, flatten: () => Vector[]): Vector[] {
  try {
    return flatten();
  } catch (error) {
    if (error instanceof RangeError) throw faultAt(node, "A curve is too large to be meant.");
    throw error;
  }
}
