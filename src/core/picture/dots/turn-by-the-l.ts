/**
 * Which way a grid lies: an L of larger dots has its corner at the centre, five steps along X and three along Y. It fits one of the eight
 * ways only; a mirrored picture is refused, and an L that fits more than one way.
 */
import { median } from "../../fitting/median";
import type { Dot } from "./find-dots";
import { keyOf, type Node, type Nodes } from "./grid-node";
import { surfaceThrough } from "./surface";

export type UnclearL = "no L" | "L fits several ways" | "mirrored";

/** Steps of the L of larger dots along X and along Y. A mirrored L shares all but three of its dots, one with swapped arms all but two. */
const ARMS = { x: 5, y: 3 };

export const LARGE_NODES: readonly Node[] = [
  ...Array.from({ length: ARMS.x + 1 }, (_, column) => ({ column, row: 0 })),
  ...Array.from({ length: ARMS.y }, (_, i) => ({ column: 0, row: i + 1 })),
];

/** A dot this much larger than most belongs to the L. */
const LARGER = 1.3;
/** Least number of nodes of the L that must be found, and the lead over every other placement. */
const SEEN_OF_L = { least: 5, clear: 1 };

type Turn = (node: Node) => Node;

/** The eight ways in which a grid can lie under its numbers; the first four without a mirror, where rows count downward in the picture. */
const TURNS: readonly Turn[] = [
  (n) => n,
  ({ column, row }) => ({ column: -row, row: column }),
  ({ column, row }) => ({ column: -column, row: -row }),
  ({ column, row }) => ({ column: row, row: -column }),
  ({ column, row }) => ({ column: -column, row }),
  ({ column, row }) => ({ column: row, row: column }),
  ({ column, row }) => ({ column, row: -row }),
  ({ column, row }) => ({ column: -row, row: -column }),
];

/** Turns numbers as the grid was followed into numbers from its centre. */
export function turnByTheL(dots: readonly Dot[], nodes: Nodes): Turn | UnclearL {
  const usual = median(dots.map((d) => d.radiusPx));
  const large = [...nodes].filter(([index]) => (dots[index]?.radiusPx ?? 0) > LARGER * usual).map(([, node]) => node);
  if (large.length < SEEN_OF_L.least) return "no L";
  const placements = TURNS.flatMap((turn, k) => {
    const seen = large.map(turn);
    const keys = new Set(seen.map(keyOf));
    // Any of the larger dots may be any node of the L.
    const corners = new Map(
      seen.flatMap((s) =>
        LARGE_NODES.map((l) => {
          const corner = { column: s.column - l.column, row: s.row - l.row };
          return [keyOf(corner), corner] as const;
        }),
      ),
    );
    return [...corners.values()].map((corner) => ({
      k,
      turn,
      corner,
      fits: LARGE_NODES.filter((l) => keys.has(keyOf({ column: corner.column + l.column, row: corner.row + l.row })))
        .length,
    }));
  }).sort((a, b) => b.fits - a.fits);
  const [best, next] = placements;
  if (!best || best.fits < SEEN_OF_L.least) return "no L";
  if (next && best.fits - next.fits < SEEN_OF_L.clear) return "L fits several ways";
  if (isMirrored(dots, nodes, best.turn)) return "mirrored";
  const { turn, corner } = best;
  return (node) => {
    const at = turn(node);
    return { column: at.column - corner.column, row: at.row - corner.row };
  };
}

/** Seen from above, rows go up in the picture where columns go to the right. */
function isMirrored(dots: readonly Dot[], nodes: Nodes, turn: Turn): boolean {
  const surface = surfaceThrough(
    [...nodes].map(([index, node]) => ({ ...turn(node), x: dots[index]?.x ?? 0, y: dots[index]?.y ?? 0 })),
  );
  if (!surface) return false;
  const all = [...nodes.values()].map(turn);
  const middle = { column: median(all.map((n) => n.column)), row: median(all.map((n) => n.row)) };
  const at = surface(middle);
  const right = surface({ ...middle, column: middle.column + 1 });
  const up = surface({ ...middle, row: middle.row + 1 });
  // The Y of a picture counts downward.
  return (right.x - at.x) * (up.y - at.y) - (right.y - at.y) * (up.x - at.x) > 0;
}
