/** A piece of a round as it is sent. */
import type { Piece } from "../../core/coupon/piece";
import type { Db } from "../../data/database";
import { Refusal } from "../refusal";
import { type FullTrial, laidOut, roundOf } from "./trial-record";

/**
 * @param piece which one, from 1
 * @throws Refusal when there is no such round or piece, or its layout is not complete
 */
export function roundPiece(db: Db, full: FullTrial, n: number, piece: number): Piece {
  const { plan, spec, inForce } = laidOut(db, full, roundOf(full, n));
  const found = full.procedure.asSent(spec, plan, inForce, full.machine).pieces[piece - 1];
  if (!found) throw new Refusal("file", `This round has no piece ${piece} to draw.`);
  return found;
}
