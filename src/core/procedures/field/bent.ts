/**
 * A drawing bent the other way: every point is drawn where the head has to be sent for it.
 *
 * Lines are divided first, so that a chord lies within 2 um of the bent line.
 */
import type { CouponPath, Piece } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import { bentPath } from "../../geometry/bent-path";
import type { FieldTable } from "../../settings/field-table";
import type { SettingValue } from "../../settings/setting";
import type { Vector } from "./map";
import { commanded } from "./table";

/** How far a chord may lie from a curve, and again from the bent line, mm: both together stay within 2 um. */
export const CHORD_MM = 0.001;

/** @param value of the setting for bent drawings; the same spec where nothing is bent */
export function asBent(spec: RoundSpec, value: SettingValue | null): RoundSpec {
  if (value?.shape !== "map" || value.undone.length === 0) return spec;
  return { ...spec, pieces: spec.pieces.map((piece) => bentPiece(piece, value)) };
}

function bentPiece(piece: Piece, table: FieldTable): Piece {
  const middle = { x: piece.widthMm / 2, y: piece.heightMm / 2 };
  const bend = ({ x, y }: Vector) => {
    const to = commanded(table, { x: x - middle.x, y: y - middle.y });
    return { x: to.x + middle.x, y: to.y + middle.y };
  };
  return { ...piece, paths: piece.paths.map((path) => bentBy(path, bend)) };
}

function bentBy(path: CouponPath, bend: (at: Vector) => Vector): CouponPath {
  const [first] = path.points;
  const whole = path.closed && first ? [...path.points, first] : path.points;
  const bent = bentPath(whole, bend, CHORD_MM);
  return { ...path, points: path.closed ? bent.slice(0, -1) : bent };
}
