/** By how much the lines of a picture are turned against its edges: lines of a coupon run along two axes. */
import type { DarknessMap } from "./darkness-map";

/**
 * The direction of all edges together, each taken four times so that both axes and both sides of a line agree.
 *
 * @returns radians, -pi/4 to pi/4: turning the picture axes by it lays them along the lines (Y down)
 */
export function turnOf({ width, height, dark }: DarknessMap): number {
  let [cosines, sines] = [0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const [above, below] = [i - width, i + width];
      const [nw, ne] = [dark[above - 1] as number, dark[above + 1] as number];
      const [sw, se] = [dark[below - 1] as number, dark[below + 1] as number];
      const gx = ne - nw + 2 * ((dark[i + 1] as number) - (dark[i - 1] as number)) + se - sw;
      const gy = sw - nw + 2 * ((dark[below] as number) - (dark[above] as number)) + se - ne;
      const squared = gx * gx + gy * gy;
      if (squared === 0) continue;
      // cos 4a and sin 4a of the direction a, times the square of the slope.
      const [c2, s2] = [(gx * gx - gy * gy) / squared, (2 * gx * gy) / squared];
      cosines += squared * (c2 * c2 - s2 * s2);
      sines += squared * 2 * c2 * s2;
    }
  return Math.atan2(sines, cosines) / 4;
}
