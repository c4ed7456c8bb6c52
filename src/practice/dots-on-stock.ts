/** The dots that lie on a burned stock: marks close together, one after the other, are one dot. */
import type { Mark } from "./gantry";

export type StockDot = { x: number; y: number; radiusMm: number };

/** Marks farther from the one before than this are another dot, mm. */
const APART_MM = 1.6;
/** Fewer marks are a letter or a line. */
const FEWEST = 8;

export function dotsOnStock(marks: readonly Mark[]): StockDot[] {
  const groups: Mark[][] = [];
  let before: Mark | undefined;
  for (const mark of marks) {
    const isNear =
      before && Math.hypot(middle(mark).x - middle(before).x, middle(mark).y - middle(before).y) < APART_MM;
    if (isNear) groups.at(-1)?.push(mark);
    else groups.push([mark]);
    before = mark;
  }
  return groups.filter((group) => group.length >= FEWEST).flatMap((group) => dotOf(group) ?? []);
}

function middle({ x0, y0, x1, y1 }: Mark) {
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
}

/** Its centre of mass; none where it is longer than it is wide. */
function dotOf(group: readonly Mark[]): StockDot | null {
  let [sum, x, y] = [0, 0, 0];
  for (const mark of group) {
    const long = Math.hypot(mark.x1 - mark.x0, mark.y1 - mark.y0);
    const at = middle(mark);
    sum += long;
    x += long * at.x;
    y += long * at.y;
  }
  if (!(sum > 0)) return null;
  [x, y] = [x / sum, y / sum];
  const ends = group.flatMap((m) => [Math.hypot(m.x0 - x, m.y0 - y), Math.hypot(m.x1 - x, m.y1 - y)]);
  const xs = group.flatMap((m) => [m.x0, m.x1]);
  const ys = group.flatMap((m) => [m.y0, m.y1]);
  const [wide, high] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  return Math.abs(wide - high) > 0.25 * Math.max(wide, high) ? null : { x, y, radiusMm: Math.max(...ends) };
}
