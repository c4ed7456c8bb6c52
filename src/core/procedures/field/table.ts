/**
 * A correction of every point of the field: what a table in the controller, or a drawing that is bent the other way, has to do.
 *
 *   marks = f(c(w)),  wanted f(c'(w)) = w   =>   c'(w) = c(f^-1(w))       adding or replacing leaves 0.006 to 0.3 mm
 *
 * f is inverted by iteration. Beyond the dots nothing is known: there the shift of the nearest measured point is kept. A table carries the map
 * on by one step of its nodes first: the controller goes in proportion between the last node inside and the first one outside, and a shift
 * that stops at the dots would leave 0.05 mm at the corners of 65 nodes.
 */
import { type PlaneMap, unmapPoint } from "../../fitting/plane-map";
import type { FieldTable } from "../../settings/field-table";
import type { SettingsInForce } from "../../settings/setting";
import { type FieldMap, mapped, type Vector } from "./map";

type Commanded = {
  to: Vector;
  /** Whether a mark that lies here was drawn between the outermost dots of the newest burn. */
  isMeasured: boolean;
};

/**
 * Asked for one point after the other: each is looked for near the one before.
 *
 * @param carriedMm so far beyond the dots the map itself is carried on, mm
 */
function walkOver({ undone, form }: FieldTable, carriedMm: number): (wanted: Vector) => Commanded {
  const newestFirst = undone.toReversed().map((u): UndoneBurn => ({ ...u, last: undefined }));
  const own: FieldMap | null = form?.mm ?? null;
  return (wanted) => {
    let at: Vector = wanted;
    let isMeasured = true;
    for (const [i, burn] of newestFirst.entries()) {
      const found = undo(burn, at, carriedMm);
      if (i === 0) isMeasured = found.isMeasured;
      at = found.to;
    }
    return { to: own && form ? mapped(own, at, form.halfMm) : at, isMeasured };
  };
}

type UndoneBurn = FieldTable["undone"][number] & { last: Vector | undefined };

/** @throws RangeError where the map cannot be inverted: such a map is neither made nor stored */
function undo(burn: UndoneBurn, at: Vector, carriedMm: number): Commanded {
  const { map, reachMm } = burn;
  const end = reachMm + carriedMm;
  const within = (value: number) => Math.max(-end, Math.min(end, value));
  const near = { x: within(at.x), y: within(at.y) };
  const from = unmapPoint(map, near, burn.last) ?? unmapPoint(map, near);
  if (!from) throw new RangeError(`The map cannot be inverted at ${near.x}, ${near.y}`);
  burn.last = from;
  const isInside = Math.max(Math.abs(at.x), Math.abs(at.y)) <= reachMm;
  return {
    to: { x: at.x + from.x - near.x, y: at.y + from.y - near.y },
    isMeasured: isInside && Math.max(Math.abs(from.x), Math.abs(from.y)) <= reachMm + 1e-9,
  };
}

/** Where a point has to be commanded to lie at `wanted`. Both from the middle, mm. */
export function commanded(table: FieldTable, wanted: Vector): Vector {
  return walkOver(table, 0)(wanted).to;
}

/** The table after a burn under the one before: c'(w) = c(f^-1(w)). */
export function tableAfter(before: FieldTable, map: PlaneMap, reachMm: number): FieldTable {
  return { ...before, undone: [...before.undone, { map, reachMm }] };
}

/** Half a side of the square in which every burn of it measured; `null` where nothing is undone. */
export function reachOf({ undone }: FieldTable): number | null {
  return undone.length === 0 ? null : Math.min(...undone.map((u) => u.reachMm));
}

export type TableNode = {
  x: number;
  y: number;
  dx: number;
  dy: number;
  /** Beyond the dots. */
  outside: boolean;
};

/**
 * Nodes of a table, rows from the front, each from the left.
 *
 * @param across nodes along each side @param sideMm side of the field
 */
export function tableNodes(table: FieldTable, across: number, sideMm: number): TableNode[] {
  const nodes: TableNode[] = [];
  const walk = walkOver(table, sideMm / (across - 1));
  for (let row = 0; row < across; row++)
    for (let i = 0; i < across; i++) {
      // To and fro, so that the next node is near.
      const column = row % 2 === 0 ? i : across - 1 - i;
      const [x, y] = [sideMm * (column / (across - 1) - 0.5), sideMm * (row / (across - 1) - 0.5)];
      const sent = walk({ x, y });
      nodes[row * across + column] = { x, y, dx: sent.to.x - x, dy: sent.to.y - y, outside: !sent.isMeasured };
    }
  return nodes;
}

/** Where a controller sends the mirrors that knows the table at its nodes, and goes between four of them in proportion. */
export function betweenNodes(table: FieldTable, across: number, sideMm: number, at: Vector): Vector {
  const step = sideMm / (across - 1);
  const along = (mm: number) => {
    const steps = Math.max(0, Math.min(across - 1, (mm + sideMm / 2) / step));
    const low = Math.min(across - 2, Math.floor(steps));
    return { low: low * step - sideMm / 2, share: steps - low };
  };
  const [u, v] = [along(at.x), along(at.y)];
  const walk = walkOver(table, step);
  const shift = (dx: number, dy: number): Vector => {
    const node = { x: u.low + dx * step, y: v.low + dy * step };
    const { to } = walk(node);
    return { x: to.x - node.x, y: to.y - node.y };
  };
  const [a, b, c, d] = [shift(0, 0), shift(1, 0), shift(0, 1), shift(1, 1)];
  const mix = (of: (s: Vector) => number) =>
    (1 - v.share) * ((1 - u.share) * of(a) + u.share * of(b)) + v.share * ((1 - u.share) * of(c) + u.share * of(d));
  return { x: at.x + mix((s) => s.x), y: at.y + mix((s) => s.y) };
}

/** Whether a mark that lies here was drawn between the outermost dots: beyond them the map is carried on, or the shift kept. */
export function isMeasured(table: FieldTable, at: Vector): boolean {
  return walkOver(table, 0)(at).isMeasured;
}

/** A table or a bent drawing in force; `null` where it is not known. */
export function tableIn(inForce: SettingsInForce, key: string): FieldTable | null {
  const value = inForce[key];
  return value?.shape === "map" ? value : null;
}
