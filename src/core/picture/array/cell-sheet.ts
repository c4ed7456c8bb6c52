/** All cells of an array from one picture, upright and of one size, side by side: to be shown on another drawing. */
import { type Projective, projected } from "../../fitting/projective";
import type { Rect } from "../../geometry/rect";
import type { GreyPicture } from "../grey-picture";

/** Side of a cell on the sheet in pixels, and cells in a row. */
export const SHEET_CELL_PX = 48;
export const SHEET_COLUMNS = 20;
/** Samples along each side of a pixel. */
const SAMPLES = 3;
/** Outside the picture. */
const BLANK = 255;

/** @param cells in the order of the sheet, row by row */
export function cellSheet(
  { width, height, grey }: GreyPicture,
  toPicture: Projective,
  cells: readonly Rect[],
): GreyPicture {
  const side = SHEET_CELL_PX;
  const sheet = {
    width: SHEET_COLUMNS * side,
    height: Math.max(1, Math.ceil(cells.length / SHEET_COLUMNS)) * side,
  };
  const out = new Uint8Array(sheet.width * sheet.height).fill(BLANK);
  const greyAt = (x: number, y: number) => {
    const at = projected(toPicture, { x, y });
    const [column, row] = [Math.floor(at.x), Math.floor(at.y)];
    if (column < 0 || row < 0 || column >= width || row >= height) return BLANK;
    return grey[row * width + column] ?? BLANK;
  };
  cells.forEach(({ x0, y0, x1, y1 }, k) => {
    const corner = Math.floor(k / SHEET_COLUMNS) * side * sheet.width + (k % SHEET_COLUMNS) * side;
    for (let row = 0; row < side; row++)
      for (let column = 0; column < side; column++) {
        let sum = 0;
        for (let s = 0; s < SAMPLES * SAMPLES; s++) {
          const u = (column + ((s % SAMPLES) + 0.5) / SAMPLES) / side;
          const v = (row + (Math.floor(s / SAMPLES) + 0.5) / SAMPLES) / side;
          // Y of the coupon runs up.
          sum += greyAt(x0 + u * (x1 - x0), y1 - v * (y1 - y0));
        }
        out[corner + row * sheet.width + column] = Math.round(sum / SAMPLES ** 2);
      }
  });
  return { ...sheet, grey: out };
}
