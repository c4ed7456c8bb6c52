/** Pixels around a place of the coupon, each with where on the coupon its middle lies. */
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import type { GreyPicture } from "./grey-picture";

/** Calls `take` with coupon X, coupon Y and grey of each pixel whose middle lies in `area` (mm). @returns share of the area that lies in the picture */
export function eachPixel(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  area: Rect,
  take: (x: number, y: number, grey: number) => void,
): number {
  const corners = [
    [area.x0, area.y0],
    [area.x1, area.y0],
    [area.x1, area.y1],
    [area.x0, area.y1],
  ].map(([x = 0, y = 0]) => [pose.a * x + pose.c * y + pose.e, pose.b * x + pose.d * y + pose.f] as const);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  const [left, right] = [Math.floor(Math.min(...xs)), Math.ceil(Math.max(...xs))];
  const [top, bottom] = [Math.floor(Math.min(...ys)), Math.ceil(Math.max(...ys))];
  const { width, height, grey } = picture;
  let [inside, all] = [0, 0];
  for (let row = top; row < bottom; row++)
    for (let column = left; column < right; column++) {
      const [px, py] = [column + 0.5, row + 0.5];
      const x = back.a * px + back.c * py + back.e;
      const y = back.b * px + back.d * py + back.f;
      if (x < area.x0 || x >= area.x1 || y < area.y0 || y >= area.y1) continue;
      all++;
      if (column < 0 || row < 0 || column >= width || row >= height) continue;
      inside++;
      take(x, y, grey[row * width + column] ?? Number.NaN);
    }
  return all > 0 ? inside / all : 0;
}

/** Side of a pixel on the coupon, mm. */
export function pixelMm({ a, b, c, d }: Affine): number {
  return 1 / Math.sqrt(Math.abs(a * d - b * c));
}
