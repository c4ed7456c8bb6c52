/**
 * Reads flat drawings from DXF: LINE, LWPOLYLINE, POLYLINE, ARC, CIRCLE, ELLIPSE, SPLINE, and INSERT of blocks of these.
 *
 * Strict: what is not understood is refused with its line. Units are honoured (mm or inches), arcs and curves are flattened from
 * their exact form to a stated chord error, blocks are put in place with scale, turn and nesting.
 */
import { type Affine, composed, IDENTITY, largestStretch, mapped } from "../core/geometry/affine";
import { arcOfBulge, flattened } from "../core/geometry/arc";
import { ellipseShape, splineShape } from "./dxf-curves";
import { type Block, blocksOf, type Entity, entitiesOf, layersOf, sectionsOf, unitsOf } from "./dxf-structure";
import { numberIn, type Tag, tagsOf, textIn, toNumber } from "./dxf-tags";
import { FormatFault, type Parsed, parsing } from "./parsed";

type Point = { x: number; y: number };
export type DxfPath = { layer: string; closed: boolean; points: Point[] };
export type DxfDrawing = {
  /** Names in the order of the layer table. */
  layers: string[];
  /** In mm. */
  paths: DxfPath[];
  /** None unless they are asked for. */
  texts: DxfText[];
};
/** A text that is kept: where it begins, mm, its height, mm, and its turn, degrees. */
export type DxfText = { layer: string; at: Point; heightMm: number; turnDeg: number; text: string };

const DEFAULT_CHORD_ERROR_MM = 0.01;
const DEEPEST_NESTING = 16;
/** Lines, arcs and copies of blocks; and all their points. */
const MOST_ENTITIES = 200_000;
const MOST_POINTS = 2_000_000;
/** Flags of a polyline that change nothing here: closed, and line type along it. */
const FLAT_POLYLINE = 1 | 128;

/**
 * @param chordErrorMm largest distance of a chord from its arc
 * @param keepTexts texts are told apart instead of refused
 */
export function parseDxf(text: string, chordErrorMm = DEFAULT_CHORD_ERROR_MM, keepTexts = false): Parsed<DxfDrawing> {
  return parsing(() => {
    const sections = sectionsOf(tagsOf(text));
    const scale = unitsOf(sections.get("HEADER") ?? []);
    const blocks = blocksOf(entitiesOf(sections.get("BLOCKS") ?? []));
    const drawing: DxfDrawing = { layers: layersOf(sections.get("TABLES") ?? []), paths: [], texts: [] };
    const place = { ...IDENTITY, a: scale, d: scale };
    const count = { entities: 0, points: 0 };
    for (const entity of entitiesOf(sections.get("ENTITIES") ?? []))
      draw(entity, { place, blocks, drawing, chordErrorMm, count, depth: 0, keepTexts });
    if (drawing.paths.length === 0) throw new FormatFault(1, 1, "The drawing holds no line.");
    return drawing;
  });
}

type Context = {
  place: Affine;
  blocks: ReadonlyMap<string, Block>;
  drawing: DxfDrawing;
  chordErrorMm: number;
  /** So far, blocks in blocks included. */
  count: { entities: number; points: number };
  depth: number;
  keepTexts: boolean;
};

function draw(entity: Entity, context: Context): void {
  flat(entity);
  const { count } = context;
  if (++count.entities > MOST_ENTITIES)
    throw new FormatFault(entity.line, 1, "The drawing holds more than can be meant, blocks in blocks included.");
  if (entity.type === "INSERT") {
    insert(entity, context);
    return;
  }
  const { paths, texts } = context.drawing;
  if (context.keepTexts && (entity.type === "TEXT" || entity.type === "MTEXT")) {
    texts.push(textOf(entity, context.place));
    return;
  }
  const { points, closed } = shapeOf(entity, context);
  count.points += points.length;
  if (count.points > MOST_POINTS)
    throw new FormatFault(entity.line, 1, "The drawing holds more points than can be meant.");
  const layer = textIn(entity.tags, 8) || "0";
  paths.push({ layer, closed, points: points.map((p) => mapped(context.place, p)) });
}

function textOf({ tags }: Entity, place: Affine): DxfText {
  const stretch = Math.sqrt(Math.abs(place.a * place.d - place.b * place.c));
  const turn = (Math.atan2(place.b, place.a) * 180) / Math.PI;
  return {
    layer: textIn(tags, 8) || "0",
    at: mapped(place, pointAt(tags, 10)),
    heightMm: stretch * numberIn(tags, 40, 1),
    turnDeg: turn + numberIn(tags, 50, 0),
    text: textIn(tags, 1),
  };
}

type Shape = { points: Point[]; closed: boolean };

/** Where it is drawn, before it is put in place. */
function shapeOf(entity: Entity, context: Context): Shape {
  const { tags } = entity;
  switch (entity.type) {
    case "LINE":
      return { points: [pointAt(tags, 10), pointAt(tags, 11)], closed: false };
    case "LWPOLYLINE":
      return polyline(entity, lightVertices(tags), context);
    case "POLYLINE": {
      if ((numberIn(tags, 70, 0) & ~FLAT_POLYLINE) !== 0)
        throw new FormatFault(entity.line, 1, "Only flat polylines without curve fitting are understood.");
      const vertices = entity.vertices.map((v) => ({ ...pointAt(v, 10), bulge: numberIn(v, 42, 0) }));
      return polyline(entity, vertices, context);
    }
    case "CIRCLE":
      return { points: arcPoints(entity, 0, 2 * Math.PI, context).slice(0, -1), closed: true };
    case "ARC": {
      const start = (numberIn(tags, 50) * Math.PI) / 180;
      const turn = (numberIn(tags, 51) * Math.PI) / 180 - start;
      const sweep = ((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
      return { points: arcPoints(entity, start, sweep, context), closed: false };
    }
    case "ELLIPSE":
      return curved(entity, (error) => ellipseShape(entity, error), context);
    case "SPLINE":
      return curved(entity, (error) => splineShape(entity, error), context);
    default:
      throw new FormatFault(
        entity.line,
        1,
        `“${entity.type}” is not understood here: draw it as lines, polylines, arcs, circles, ellipses or splines.`,
      );
  }
}

function flat({ tags, line }: Entity): void {
  for (const tag of tags)
    if ((tag.code === 30 || tag.code === 31 || tag.code === 38) && toNumber(tag) !== 0)
      throw new FormatFault(line, 1, "The drawing is not flat: heights are not understood.");
  if (numberIn(tags, 210, 0) !== 0 || numberIn(tags, 220, 0) !== 0 || numberIn(tags, 230, 1) !== 1)
    throw new FormatFault(line, 1, "This stands in a plane of its own (extrusion): flatten the drawing first.");
}

type Vertex = Point & { bulge: number };

function lightVertices(tags: readonly Tag[]): Vertex[] {
  const vertices: Vertex[] = [];
  for (const tag of tags) {
    const last = vertices.at(-1);
    if (tag.code === 10) vertices.push({ x: toNumber(tag), y: Number.NaN, bulge: 0 });
    else if (tag.code === 20 && last) last.y = toNumber(tag);
    else if (tag.code === 42 && last) last.bulge = toNumber(tag);
  }
  return vertices;
}

function polyline(entity: Entity, vertices: readonly Vertex[], context: Context): Shape {
  const closed = (numberIn(entity.tags, 70, 0) & 1) === 1;
  if (vertices.length < 2 || vertices.some((v) => Number.isNaN(v.y)))
    throw new FormatFault(entity.line, 1, "A polyline needs two whole points.");
  const points: Point[] = [];
  vertices.forEach((v, i) => {
    points.push({ x: v.x, y: v.y });
    const next = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!next || v.bulge === 0 || (next.x === v.x && next.y === v.y)) return;
    points.push(...chords(entity, arcOfBulge(v, next, v.bulge), context).slice(1, -1));
  });
  return { points, closed };
}

function arcPoints(entity: Entity, startRad: number, sweepRad: number, context: Context): Point[] {
  const radius = numberIn(entity.tags, 40);
  if (!(radius > 0)) throw new FormatFault(entity.line, 1, "A radius must be larger than 0.");
  return chords(entity, { centre: pointAt(entity.tags, 10), radius, startRad, sweepRad }, context);
}

function chords(entity: Entity, arc: Parameters<typeof flattened>[0], context: Context): Point[] {
  return curved(entity, (error) => flattened(arc, error), context);
}

/** Flattened before it is put in place, so finer by as much as that makes it larger. */
function curved<T>(entity: Entity, flatten: (chordErrorMm: number) => T, { place, chordErrorMm }: Context): T {
  try {
    return flatten(chordErrorMm / (largestStretch(place) || 1));
  } catch (error) {
    if (error instanceof RangeError)
      throw new FormatFault(entity.line, 1, `This curve cannot be drawn: ${error.message}.`);
    throw error;
  }
}

function insert(entity: Entity, context: Context): void {
  const { tags, line } = entity;
  const name = textIn(tags, 2);
  const block = context.blocks.get(name);
  if (!block) throw new FormatFault(line, 1, `There is no block “${name}” in this file.`);
  if (context.depth >= DEEPEST_NESTING)
    throw new FormatFault(line, 1, "Blocks are nested too deep, or contain themselves.");
  if (numberIn(tags, 70, 1) !== 1 || numberIn(tags, 71, 1) !== 1)
    throw new FormatFault(line, 1, "Rows and columns of a block are not understood: insert it one by one.");
  const at = pointAt(tags, 10);
  const [sx, sy] = [numberIn(tags, 41, 1), numberIn(tags, 42, 1)];
  const turn = (numberIn(tags, 50, 0) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const own: Affine = { a: cos * sx, b: sin * sx, c: -sin * sy, d: cos * sy, e: at.x, f: at.y };
  own.e -= own.a * block.base.x + own.c * block.base.y;
  own.f -= own.b * block.base.x + own.d * block.base.y;
  for (const inner of block.entities)
    draw(inner, { ...context, place: composed(context.place, own), depth: context.depth + 1 });
}

function pointAt(tags: readonly Tag[], code: 10 | 11): Point {
  return { x: numberIn(tags, code), y: numberIn(tags, code + 10) };
}
