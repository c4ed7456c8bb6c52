/** Numbers, lengths and transforms as SVG writes them. [W3C SVG 1.1 (Second Edition), 4.2, 7.6, 7.10] */
import { type Affine, composed, IDENTITY } from "../core/geometry/affine";
import { MM_PER_INCH } from "../core/metrology/units";
import { faultAt, type SvgNode } from "./svg-tree";

const NUMBER = "[-+]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][-+]?\\d+)?";
const LENGTH = new RegExp(`^(${NUMBER})(px|mm|cm|in|pt|pc)?$`);
const NUMBERS = new RegExp(`^${NUMBER}(?:(?:\\s+,?\\s*|,\\s*)${NUMBER}|(?=[-+])${NUMBER})*$`);

/** 96 user units are an inch. */
export const MM_PER_USER_UNIT = MM_PER_INCH / 96;
const UNITS_MM = {
  px: MM_PER_USER_UNIT,
  mm: 1,
  cm: 10,
  in: MM_PER_INCH,
  pt: MM_PER_INCH / 72,
  pc: MM_PER_INCH / 6,
} as const;

/** A length in mm; `undefined` where the attribute is not there. @throws FormatFault */
export function lengthMm(node: SvgNode, name: string): number | undefined {
  const text = node.attributes[name]?.trim();
  if (text === undefined) return undefined;
  const match = LENGTH.exec(text);
  const value = Number(match?.[1]) * UNITS_MM[(match?.[2] ?? "px") as keyof typeof UNITS_MM];
  if (!match || !Number.isFinite(value))
    throw faultAt(
      node,
      `${name}="${shown(text)}" is no length: write a number with mm, cm, in, pt, pc, px or nothing.`,
    );
  return value;
}

/** A length in user units. @throws FormatFault */
export function userLength(node: SvgNode, name: string, missing: number): number {
  const mm = lengthMm(node, name);
  return mm === undefined ? missing : mm / MM_PER_USER_UNIT;
}

/** Numbers apart by spaces or commas. @throws FormatFault */
export function numbersIn(node: SvgNode, name: string, text: string): number[] {
  const trimmed = text.trim();
  if (trimmed === "") return [];
  if (!NUMBERS.test(trimmed)) throw faultAt(node, `${name}="${shown(trimmed)}" is no list of numbers.`);
  const numbers = [...trimmed.matchAll(new RegExp(NUMBER, "g"))].map((m) => Number(m[0]));
  if (numbers.some((n) => !Number.isFinite(n))) throw faultAt(node, `${name} holds a number that is too large.`);
  return numbers;
}

/** The transform of an element: what stands first in the list acts last. @throws FormatFault */
export function transformOf(node: SvgNode): Affine {
  const text = node.attributes.transform?.trim() ?? "";
  let rest = text;
  let map = IDENTITY;
  while (rest !== "") {
    const match = /^([A-Za-z]+)\s*\(([^()]*)\)[\s,]*/.exec(rest);
    if (!match) throw faultAt(node, `transform="${shown(text)}" is no list of transforms.`);
    const numbers = numbersIn(node, "transform", match[2] ?? "");
    const step = transformBy(match[1] ?? "", numbers);
    if (!step) throw faultAt(node, `${match[1]}(${numbers.join(" ")}) is no transform that is understood here.`);
    map = composed(map, step);
    rest = rest.slice(match[0].length);
  }
  return map;
}

function transformBy(name: string, n: readonly number[]): Affine | null {
  const [p = 0, q = 0, r = 0] = n;
  const rad = (p * Math.PI) / 180;
  const shift = (e: number, f: number): Affine => ({ ...IDENTITY, e, f });
  switch (`${name} ${n.length}`) {
    case "matrix 6": {
      const [a, b, c, d, e, f] = n as [number, number, number, number, number, number];
      return { a, b, c, d, e, f };
    }
    case "translate 1":
    case "translate 2":
      return shift(p, q);
    case "scale 1":
      return { ...IDENTITY, a: p, d: p };
    case "scale 2":
      return { ...IDENTITY, a: p, d: q };
    case "rotate 1":
      return turn(rad);
    case "rotate 3":
      return composed(shift(q, r), composed(turn(rad), shift(-q, -r)));
    case "skewX 1":
      return { ...IDENTITY, c: Math.tan(rad) };
    case "skewY 1":
      return { ...IDENTITY, b: Math.tan(rad) };
    default:
      return null;
  }
}

function turn(rad: number): Affine {
  const [cos, sin] = [Math.cos(rad), Math.sin(rad)];
  return { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 };
}

function shown(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text;
}
