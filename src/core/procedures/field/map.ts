/**
 * The map of a field, from where a mark is drawn to where it lies, both from the middle of the field.
 *
 *   x' = x + u (Sx + Tx v + Bx v^2 + Cx u^2 + Qx u) + G v        u = x / H,  v = y / H,  H half of the working field
 *   y' = y + v (Sy + Ty u + By u^2 + Cy v^2 + Qy v)
 *
 * S scale, T keystone (> 0: wider at the back, or at the right), B bow (> 0: pincushion), C the axes' own cubics, Q their own quadratics,
 * G shear (> 0: the back leans to the right): each in mm at the corner of the field, where u = v = 1. A turn of the whole is left out: only a
 * fence shows it. A stock that lies tilted makes T and Q with one number: Qx = Ty and Qy = Tx.
 */

import type { FieldTerm } from "../../geometry/field-term";
import { atBeginning } from "../../metrology/sentence-case";

export const SCALE_TERMS = ["scale x", "scale y"] as const;
export const QUADRATIC_TERMS = ["quadratic x", "quadratic y"] as const;
export type MapTerm = (typeof SCALE_TERMS)[number] | FieldTerm | (typeof QUADRATIC_TERMS)[number];

/** A term as a label: `Bow X`, `Shear`. */
export function termName(term: MapTerm): string {
  return atBeginning(term.replace(/ [xy]$/, (axis) => axis.toUpperCase()));
}

/** The error of a term as a label: `Bow X, at the corner`. */
export const termError = (term: MapTerm) => `${termName(term)}, at the corner`;

/** mm at the corner, by term; 0 where left out. */
export type FieldMap = Readonly<Partial<Record<MapTerm, number>>>;

export type Vector = { x: number; y: number };

/** What one mm of a term moves at a place. @param at u and v */
export function basisOf(term: MapTerm, { x: u, y: v }: Vector): Vector {
  switch (term) {
    case "scale x":
      return { x: u, y: 0 };
    case "scale y":
      return { x: 0, y: v };
    case "bow x":
      return { x: u * v * v, y: 0 };
    case "bow y":
      return { x: 0, y: v * u * u };
    case "keystone x":
      return { x: u * v, y: 0 };
    case "keystone y":
      return { x: 0, y: u * v };
    case "shear":
      return { x: v, y: 0 };
    case "own cubic x":
      return { x: u * u * u, y: 0 };
    case "own cubic y":
      return { x: 0, y: v * v * v };
    case "quadratic x":
      return { x: u * u, y: 0 };
    case "quadratic y":
      return { x: 0, y: v * v };
  }
}

/** How far a mark lies from where it is drawn. @param at from the middle of the field, mm @param half H, mm */
export function displacement(map: FieldMap, at: Vector, half: number): Vector {
  const [u, v] = [at.x / half, at.y / half];
  const mm = (term: MapTerm) => map[term] ?? 0;
  const acrossX = mm("scale x") + mm("bow x") * v * v + mm("keystone x") * v;
  const acrossY = mm("scale y") + mm("bow y") * u * u + mm("keystone y") * u;
  return {
    x: u * (acrossX + (mm("own cubic x") * u + mm("quadratic x")) * u) + mm("shear") * v,
    y: v * (acrossY + (mm("own cubic y") * v + mm("quadratic y")) * v),
  };
}

export function mapped(map: FieldMap, at: Vector, half: number): Vector {
  const by = displacement(map, at, half);
  return { x: at.x + by.x, y: at.y + by.y };
}

/** Most rounds of the iteration, and how near it comes, mm. */
const [MOST_ROUNDS, NEAR_MM] = [40, 1e-7];

/** The place that the map sends here: w = at - displacement(w), again and again; errors shrink by their share of H each round. */
export function unmapped(map: FieldMap, at: Vector, half: number): Vector {
  let w = at;
  for (let i = 0; i < MOST_ROUNDS; i++) {
    const by = displacement(map, w, half);
    const next = { x: at.x - by.x, y: at.y - by.y };
    const moved = Math.hypot(next.x - w.x, next.y - w.y);
    w = next;
    if (moved < NEAR_MM) break;
  }
  return w;
}

/** Places of the field in rows, from -1 to 1. */
export function gridOf(count: number): Vector[] {
  const at = (i: number) => -1 + (2 * i) / (count - 1);
  return Array.from({ length: count * count }, (_, i) => ({ x: at(i % count), y: at(Math.floor(i / count)) }));
}

const GRID = gridOf(13);

/** The place of the field at which a mark lies farthest from where it is drawn. */
export function worstPoint(map: (at: Vector) => Vector, half: number): { at: Vector; mm: number } {
  let worst = { at: { x: 0, y: 0 }, mm: 0 };
  for (const { x, y } of GRID) {
    const at = { x: x * half, y: y * half };
    const to = map(at);
    const mm = Math.hypot(to.x - at.x, to.y - at.y);
    if (mm > worst.mm) worst = { at, mm };
  }
  return worst;
}
