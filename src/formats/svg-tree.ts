/** An SVG file as a tree of elements, each with its place in the file. Document types and entities are refused. */

import { XMLParser, XMLValidator } from "fast-xml-parser";
import { elementAt } from "../core/fitting/element-at";
import { FormatFault, refuseLarge } from "./parsed";

export type SvgNode = {
  name: string;
  attributes: Readonly<Record<string, string>>;
  children: readonly SvgNode[];
  /** All text in it. */
  text: string;
  line: number;
  column: number;
};

const MOST_CHARACTERS = 1_200_000;
/** A coupon has some hundred. */
const MOST_TAGS = 20_000;
const DEEPEST = 60;

type RawNode = Record<string | symbol, unknown>;

/**
 * The one root element.
 * @throws FormatFault with the place
 */
export function svgTree(text: string): SvgNode {
  refuseLarge(text, MOST_CHARACTERS);
  if (text.split("<", MOST_TAGS + 2).length > MOST_TAGS + 1)
    throw new FormatFault(1, 1, `The file holds more than ${MOST_TAGS} tags.`);
  const source = text.replace(/^\uFEFF/, "").replace(/\r\n?/g, "\n");
  const places = new Places(source);
  const forbidden = source.search(/<!DOCTYPE|<!ENTITY/i);
  if (forbidden >= 0) throw places.fault(forbidden, "Document types and entities are not accepted.");
  const valid = XMLValidator.validate(source);
  if (valid !== true) throw new FormatFault(valid.err.line, valid.err.col, `Not well-formed: ${valid.err.msg}`);
  const roots = parsed(source)
    .map((raw) => nodeOf(raw, places))
    .filter((n) => n.name !== "?xml" && n.name !== "#text");
  const [root] = roots;
  if (root?.name !== "svg" || roots.length !== 1) throw new FormatFault(1, 1, "The file holds no single SVG drawing.");
  return root;
}

/** A fault at the beginning of an element. */
export function faultAt(node: SvgNode, message: string): FormatFault {
  return new FormatFault(node.line, node.column, message);
}

const METADATA = XMLParser.getMetaDataSymbol();

function parsed(source: string): RawNode[] {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    parseTagValue: false,
    // Between words of a text a blank is meant.
    trimValues: false,
    parseAttributeValue: false,
    processEntities: true,
    captureMetaData: true,
    maxNestedTags: DEEPEST,
  });
  try {
    return parser.parse(source) as RawNode[];
  } catch (error) {
    throw new FormatFault(1, 1, `Not well-formed: ${error instanceof Error ? error.message : "it cannot be read"}`);
  }
}

function nodeOf(raw: RawNode, places: Places): SvgNode {
  const name = Object.keys(raw).find((key) => key !== ":@") ?? "#text";
  const at = (raw[METADATA as unknown as symbol] as { startIndex?: number } | undefined)?.startIndex ?? 0;
  const content = raw[name];
  const children = Array.isArray(content) ? (content as RawNode[]).map((c) => nodeOf(c, places)) : [];
  return {
    name,
    children,
    ...places.of(at),
    attributes: (raw[":@"] as Record<string, string> | undefined) ?? {},
    text: name === "#text" ? String(content) : children.map((c) => c.text).join(""),
  };
}

/** Lines and columns of places in a text, asked for in rising order mostly. */
class Places {
  private readonly starts: number[] = [0];

  constructor(source: string) {
    for (let at = source.indexOf("\n"); at >= 0; at = source.indexOf("\n", at + 1)) this.starts.push(at + 1);
  }

  of(index: number): { line: number; column: number } {
    let [low, high] = [0, this.starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (elementAt(this.starts, middle) <= index) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: index - elementAt(this.starts, low) + 1 };
  }

  fault(index: number, message: string): FormatFault {
    const { line, column } = this.of(index);
    return new FormatFault(line, column, message);
  }
}
