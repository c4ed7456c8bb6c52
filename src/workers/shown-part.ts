/** A part of a picture as it is drawn on screen. */
import type { GreyPicture } from "../core/picture/grey-picture";
import type { ShownPart } from "./picture-messages";

/** From afar a drawn pixel is the mean of so many places a side of what it covers. */
const PLACES = 3;
const OUTSIDE = 0;

/** @returns red, green, blue and opacity of each drawn pixel, row by row; beyond the picture it is clear */
export function drawnPart(picture: GreyPicture, part: ShownPart): Uint8ClampedArray<ArrayBuffer> {
  const drawn = new Uint8ClampedArray(part.width * part.height * 4);
  const places = part.zoom >= 1 ? 1 : PLACES;
  const step = 1 / part.zoom;
  for (let row = 0; row < part.height; row++)
    for (let column = 0; column < part.width; column++) {
      const value = meanAt(picture, part.x + column * step, part.y + row * step, step, places);
      const at = (row * part.width + column) * 4;
      drawn[at] = drawn[at + 1] = drawn[at + 2] = value;
      drawn[at + 3] = value < 0 ? OUTSIDE : 255;
    }
  return drawn;
}

/** Of a square that begins at x, y; below 0 outside the picture. */
function meanAt({ width, height, grey }: GreyPicture, x: number, y: number, side: number, places: number): number {
  let [sum, count] = [0, 0];
  for (let i = 0; i < places; i++) {
    const py = Math.floor(y + ((i + 0.5) / places) * side);
    if (py < 0 || py >= height) continue;
    for (let j = 0; j < places; j++) {
      const px = Math.floor(x + ((j + 0.5) / places) * side);
      if (px < 0 || px >= width) continue;
      sum += grey[py * width + px] ?? Number.NaN;
      count++;
    }
  }
  return count > 0 ? sum / count : -1;
}
