/** What a DXF file is made of: sections, units, layers, blocks and entities. [Autodesk DXF Reference] */
import { MM_PER_INCH } from "../core/metrology/units";
import { numberIn, type Tag, textIn, toNumber } from "./dxf-tags";
import { FormatFault } from "./parsed";

export type Entity = { type: string; tags: Tag[]; line: number; vertices: Tag[][] };
export type Block = { base: { x: number; y: number }; entities: Entity[] };

const UNITS_MM: Record<number, number> = { 1: MM_PER_INCH, 4: 1 };

export function sectionsOf(tags: readonly Tag[]): Map<string, Tag[]> {
  const sections = new Map<string, Tag[]>();
  let open: { name: string; tags: Tag[] } | null = null;
  tags.forEach((tag, i) => {
    if (tag.code === 0 && tag.value === "SECTION") {
      const name = tags[i + 1];
      if (open || name?.code !== 2)
        throw new FormatFault(tag.line, 1, "A section begins here without its name, or inside another.");
      open = { name: name.value, tags: [] };
    } else if (tag.code === 0 && tag.value === "ENDSEC") {
      if (!open) throw new FormatFault(tag.line, 1, "A section ends here that did not begin.");
      sections.set(open.name, open.tags.slice(1));
      open = null;
    } else if (open) open.tags.push(tag);
  });
  if (open) throw new FormatFault(tags.at(-1)?.line ?? 1, 1, "A section does not end.");
  return sections;
}

export function unitsOf(header: readonly Tag[]): number {
  const at = header.findIndex((t) => t.code === 9 && t.value === "$INSUNITS");
  const tag = header[at + 1];
  if (at < 0 || !tag)
    throw new FormatFault(1, 1, "The file does not say its unit ($INSUNITS): save it in mm or inches.");
  const scale = UNITS_MM[toNumber(tag)];
  if (scale === undefined)
    throw new FormatFault(tag.line, 1, `Unit ${tag.value} is not understood: save it in mm (4) or inches (1).`);
  return scale;
}

export function layersOf(tables: readonly Tag[]): string[] {
  return tables.flatMap((tag, i) => {
    if (tag.code !== 0 || tag.value !== "LAYER") return [];
    const name = tables.slice(i + 1).find((t) => t.code === 2 || t.code === 0);
    return name?.code === 2 ? [name.value] : [];
  });
}

/** Entities with their own tags; vertices belong to their polyline. */
export function entitiesOf(tags: readonly Tag[]): Entity[] {
  const all: Entity[] = [];
  for (const tag of tags) {
    if (tag.code === 0) all.push({ type: tag.value, tags: [], line: tag.line, vertices: [] });
    else all.at(-1)?.tags.push(tag);
  }
  const joined: Entity[] = [];
  for (const entity of all) {
    const before = joined.at(-1);
    if (entity.type === "VERTEX") {
      if (before?.type !== "POLYLINE") throw new FormatFault(entity.line, 1, "A vertex stands outside a polyline.");
      before.vertices.push(entity.tags);
    } else if (entity.type !== "SEQEND") joined.push(entity);
  }
  return joined;
}

export function blocksOf(entities: readonly Entity[]): Map<string, Block> {
  const blocks = new Map<string, Block>();
  let open: Block | null = null;
  for (const entity of entities) {
    if (entity.type === "BLOCK") {
      open = { base: { x: numberIn(entity.tags, 10, 0), y: numberIn(entity.tags, 20, 0) }, entities: [] };
      blocks.set(textIn(entity.tags, 2), open);
    } else if (entity.type === "ENDBLK") open = null;
    else open?.entities.push(entity);
  }
  return blocks;
}
