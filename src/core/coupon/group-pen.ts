/** How the groups of a coupon are told apart on paper and in files: by the weight and the dash of their lines, not by colour. */
import type { MarkingSettings, Piece } from "./piece";

export type GroupPen = {
  widthMm: number;
  /** Lengths of lines and gaps, mm; empty for a full line. */
  dashMm: readonly number[];
};

const WIDTH_MM = { line: 0.1, rows: 0.2, scan: 0.15 } as const;
const DASHES_MM = [[], [2, 1], [0.6, 0.6], [3, 0.6, 0.6, 0.6], [5, 1], [1, 2]] as const;

/** The pen of a group of this piece. */
export function groupPen(piece: Piece, settings: MarkingSettings): GroupPen {
  const index = Math.max(0, piece.settings.indexOf(settings));
  return { widthMm: WIDTH_MM[settings.use], dashMm: DASHES_MM[index % DASHES_MM.length] ?? [] };
}
