/** Lines and arcs that follow on each other become outlines; ends that do not meet are named. */
import { type Contour, type Point, type Problem, placeText } from "./contour";

/** Ends this near are one place: programs round. */
const SAME_PLACE_MM = 0.01;

type Path = { points: readonly Point[]; closed: boolean; layer: string };

/** @returns closed outlines, and what is left open */
export function closedContours(paths: readonly Path[]): { contours: Contour[]; open: Problem[] } {
  const contours: Contour[] = [];
  const chains: Path[] = [];
  for (const path of paths) {
    const points = withoutRepeats(path.points);
    if (points.length < 2) continue;
    if (path.closed || meets(points[0] as Point, points.at(-1) as Point)) contours.push(...closed(points, path.layer));
    else chains.push({ ...path, points });
  }
  const open: Problem[] = [];
  for (const chain of joined(chains)) {
    const [first, last] = [chain.points[0] as Point, chain.points.at(-1) as Point];
    if (meets(first, last)) contours.push(...closed(chain.points, chain.layer));
    else open.push(openEnd(chain, first, last));
  }
  return { contours, open };
}

function openEnd({ points }: Path, first: Point, last: Point): Problem {
  const gap = Math.hypot(first.x - last.x, first.y - last.y);
  return {
    kind: "open",
    at: first,
    points,
    text: `This outline is open: it begins at ${placeText(first)} and ends at ${placeText(last)}, ${gap.toFixed(2)} mm away. Close it, or take it out.`,
  };
}

function closed(points: readonly Point[], layer: string): Contour[] {
  const whole = meets(points[0] as Point, points.at(-1) as Point) ? points.slice(0, -1) : points;
  return whole.length > 2 ? [{ points: whole, layer }] : [];
}

function withoutRepeats(points: readonly Point[]): Point[] {
  return points.filter((p, i) => i === 0 || p.x !== points[i - 1]?.x || p.y !== points[i - 1]?.y);
}

function meets(a: Point, b: Point): boolean {
  return Math.hypot(a.x - b.x, a.y - b.y) <= SAME_PLACE_MM;
}

/** Ends are looked for in a grid: thousands of lines take no longer than they must. */
function joined(paths: readonly Path[]): Path[] {
  const ends = new Map<string, number[]>();
  const cell = (v: number) => Math.floor(v / SAME_PLACE_MM);
  const add = (p: Point, i: number) => {
    const key = `${cell(p.x)} ${cell(p.y)}`;
    ends.set(key, [...(ends.get(key) ?? []), i]);
  };
  paths.forEach((path, i) => {
    add(path.points[0] as Point, i);
    add(path.points.at(-1) as Point, i);
  });
  const used = new Set<number>();
  const nextAt = (p: Point, layer: string): number | undefined => {
    for (const dx of [0, -1, 1])
      for (const dy of [0, -1, 1])
        for (const i of ends.get(`${cell(p.x) + dx} ${cell(p.y) + dy}`) ?? []) {
          const path = paths[i] as Path;
          if (used.has(i) || path.layer !== layer) continue;
          if (meets(path.points[0] as Point, p) || meets(path.points.at(-1) as Point, p)) return i;
        }
    return undefined;
  };
  return paths.flatMap((path, i) => {
    if (used.has(i)) return [];
    used.add(i);
    let points = [...path.points];
    for (const atEnd of [true, false]) {
      if (!atEnd) points.reverse();
      for (;;) {
        const end = points.at(-1) as Point;
        if (points.length > 2 && meets(end, points[0] as Point)) break;
        const next = nextAt(end, path.layer);
        if (next === undefined) break;
        used.add(next);
        const more = (paths[next] as Path).points;
        const onward = meets(more[0] as Point, end) ? more : [...more].reverse();
        points = points.concat(onward.slice(1));
      }
    }
    return [{ ...path, points: points.reverse() }];
  });
}
