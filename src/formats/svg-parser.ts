/**
 * Reads a coupon SVG back. Strict: elements and attributes on a list, straight absolute path data, mm.
 *
 * Whatever is not understood is refused with its place; nothing is skipped silently.
 */
import { XMLParser, XMLValidator } from "fast-xml-parser";
import { z } from "zod";
import { type CouponPath, type MarkingSettings, markingSettingsSchema } from "../core/coupon/piece";
import { FormatFault, LARGEST_TEXT, type Parsed, parsing } from "./parsed";

export type SvgCoupon = {
  title: string;
  widthMm: number;
  heightMm: number;
  settings: MarkingSettings[];
  paths: CouponPath[];
};

type Node = { name: string; attributes: Record<string, string>; children: Node[]; text: string };
type RawNode = Record<string, unknown>;

/** @param text the file as text */
export function parseSvg(text: string): Parsed<SvgCoupon> {
  return parsing(() => {
    if (text.length > LARGEST_TEXT) throw new FormatFault(1, 1, "The file is larger than 48 million characters.");
    if (/<!DOCTYPE|<!ENTITY/i.test(text))
      throw placed(text, /<!(DOCTYPE|ENTITY)/i, "Document types and entities are not accepted.");
    const valid = XMLValidator.validate(text);
    if (valid !== true) throw new FormatFault(valid.err.line, valid.err.col, `Not well-formed: ${valid.err.msg}`);
    const raw = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: "",
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: true,
    }).parse(text) as RawNode[];
    const roots = raw.map(nodeOf).filter((n) => n.name !== "?xml" && n.name !== "#text");
    const svg = roots[0];
    if (svg?.name !== "svg" || roots.length !== 1) throw new FormatFault(1, 1, "The file holds no single SVG drawing.");
    return couponOf(svg, text);
  });
}

function couponOf(svg: Node, text: string): SvgCoupon {
  const widthMm = millimetres(svg, "width", text);
  const heightMm = millimetres(svg, "height", text);
  const box = (svg.attributes.viewBox ?? "").trim().split(/\s+/).map(Number);
  if (box[0] !== 0 || box[1] !== 0 || box[2] !== widthMm || box[3] !== heightMm || box.length !== 4)
    throw placed(text, /viewBox|<svg/, "The viewBox must be 0 0 width height, so that one unit is one mm.");
  const coupon: SvgCoupon = { title: "", widthMm, heightMm, settings: [], paths: [] };
  for (const child of svg.children) {
    if (child.name === "title") coupon.title = child.text;
    else if (child.name === "g") readGroup(child, coupon, text);
    else if (child.name !== "#text")
      throw placed(text, new RegExp(`<${child.name}`), `<${child.name}> is not understood here.`);
  }
  if (coupon.paths.length === 0) throw new FormatFault(1, 1, "The drawing holds no path.");
  return coupon;
}

function readGroup(node: Node, coupon: SvgCoupon, text: string): void {
  const a = node.attributes;
  const here = new RegExp(`<g[^>]*id="${escapedPattern(a.id ?? "")}"`);
  const read = markingSettingsSchema.safeParse({
    id: a.id,
    label: a["data-label"],
    use: a["data-use"],
    speedMmPerS: toNumber(a["data-speed-mm-per-s"]),
    powerPct: toNumber(a["data-power-percent"]),
    runUpMm: toNumber(a["data-run-up-mm"]),
    scan: a["data-row-pitch-mm"]
      ? { rowPitchMm: toNumber(a["data-row-pitch-mm"]), direction: a["data-direction"] }
      : null,
  });
  if (!read.success) throw placed(text, here, `The settings of a group cannot be read. ${z.prettifyError(read.error)}`);
  coupon.settings.push(read.data);
  for (const child of node.children) {
    if (child.name === "#text") continue;
    if (child.name !== "path")
      throw placed(text, new RegExp(`<${child.name}`), `<${child.name}> is not understood here.`);
    const d = child.attributes.d ?? "";
    coupon.paths.push(readPath(d, read.data.id, coupon.heightMm, text));
  }
}

/** `M x y L x y … Z`, absolute, straight. */
function readPath(d: string, settings: string, heightMm: number, text: string): CouponPath {
  const fault = (message: string) => placed(text, new RegExp(escapedPattern(d.slice(0, 60)) || "<path"), message);
  const match = /^M([^A-Za-z]+(?:L[^A-Za-z]+)+)(Z?)$/.exec(d.trim());
  if (!match?.[1]) throw fault("Only straight absolute paths (M, L, Z) are understood.");
  const points = match[1].split("L").map((pair) => {
    const numbers = pair
      .trim()
      .split(/[\s,]+/)
      .map(toNumber);
    const [x, y] = numbers;
    if (numbers.length !== 2 || x === undefined || y === undefined)
      throw fault(`“${pair.trim()}” is no pair of coordinates.`);
    return { x, y: heightMm - y };
  });
  return { points, closed: match[2] === "Z", settings };
}

function millimetres(svg: Node, key: "width" | "height", text: string): number {
  const match = /^(\d+(?:\.\d+)?)mm$/.exec(svg.attributes[key] ?? "");
  if (!match) throw placed(text, /<svg/, `The ${key} must be given in mm.`);
  return Number(match[1]);
}

function toNumber(text: string | undefined): number | undefined {
  return text !== undefined && /^-?\d+(\.\d+)?(e-?\d+)?$/i.test(text) ? Number(text) : undefined;
}

function nodeOf(raw: RawNode): Node {
  const name = Object.keys(raw).find((key) => key !== ":@") ?? "#text";
  const content = raw[name];
  const children = Array.isArray(content) ? (content as RawNode[]).map(nodeOf) : [];
  return {
    name,
    attributes: (raw[":@"] as Record<string, string> | undefined) ?? {},
    children,
    text: name === "#text" ? String(content) : children.map((c) => c.text).join(""),
  };
}

function placed(text: string, pattern: RegExp, message: string): FormatFault {
  const at = Math.max(0, text.search(pattern));
  const before = text.slice(0, at).split("\n");
  return new FormatFault(before.length, (before.at(-1)?.length ?? 0) + 1, message);
}

function escapedPattern(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}
