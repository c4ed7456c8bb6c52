/**
 * The eight ways in which a drawing can lie on the stock, and the switches that change it.
 *
 *   O = M C        O what is seen, M the machine with its plugs and its mount, C the present switches: signed permutations
 *   M C' = 1   =>  C' = C O^-1     (O^-1 C is wrong for 24 of 64 pairs)
 *
 *   C = F S  where the controller swaps first,   C = S F  where it inverts first
 *
 * S swaps X and Y, F inverts each or none. The two orders differ only while swapped with one axis inverted and the other not.
 */

/** The columns are where X and Y go: [xx, yx, xy, yy] by rows, each -1, 0 or 1. */
export type Lie = readonly [number, number, number, number];

export type Switches = { swap: boolean; invertX: boolean; invertY: boolean };
export const ORDERS = ["swap first", "invert first"] as const;
export type Order = (typeof ORDERS)[number];

export const AS_DRAWN: Lie = [1, 0, 0, 1];

export const WAYS = ["right", "left", "away", "toward you"] as const;
export type Way = (typeof WAYS)[number];

/** Where the tip of an arrow lies, seen from above by the operator. */
export const ALONG: Readonly<Record<Way, readonly [number, number]>> = {
  right: [1, 0],
  left: [-1, 0],
  away: [0, 1],
  "toward you": [0, -1],
};

export function product([a, b, c, d]: Lie, [e, f, g, h]: Lie): Lie {
  return [a * e + b * g, a * f + b * h, c * e + d * g, c * f + d * h];
}

/** The inverse of a signed permutation is its transpose. */
export function inverse([a, b, c, d]: Lie): Lie {
  return [a, c, b, d];
}

export function isSameLie(a: Lie, b: Lie): boolean {
  return a.every((v, i) => v === b[i]);
}

/** Mirrored drawings cannot be turned right by hand. */
export function isMirrored([a, b, c, d]: Lie): boolean {
  return a * d - b * c < 0;
}

/** @returns `null` where both arrows end along one line, which no drawing does */
export function lieOf(x: Way, y: Way): Lie | null {
  const [[xx, xy], [yx, yy]] = [ALONG[x], ALONG[y]];
  return xx * yx + xy * yy === 0 ? [xx, yx, xy, yy] : null;
}

/** What switches make of X and Y. */
export function made({ swap, invertX, invertY }: Switches, order: Order): Lie {
  const s: Lie = swap ? [0, 1, 1, 0] : AS_DRAWN;
  const f: Lie = [invertX ? -1 : 1, 0, 0, invertY ? -1 : 1];
  return order === "swap first" ? product(f, s) : product(s, f);
}

/** The switches that make this: each of the eight has one set for each order. */
export function switchesFor(lie: Lie, order: Order): Switches {
  for (const swap of [false, true])
    for (const invertX of [false, true])
      for (const invertY of [false, true]) {
        const switches = { swap, invertX, invertY };
        if (isSameLie(made(switches, order), lie)) return switches;
      }
  throw new RangeError("lie: no swap and inversion makes it");
}

/** The switches after which the drawing lies as drawn. */
export function righted(seen: Lie, present: Switches, order: Order): Switches {
  return switchesFor(product(made(present, order), inverse(seen)), order);
}

/** What a burn showed, with the switches that were in force. */
export type Seen = { seen: Lie; present: Switches };

/** The orders in which all burns are of one machine. */
export function possibleOrders(burns: readonly Seen[]): Order[] {
  return ORDERS.filter((order) => {
    const machines = burns.map(({ seen, present }) => product(seen, inverse(made(present, order))));
    return machines.every((m) => isSameLie(m, machines[0] ?? m));
  });
}

const NAMES: readonly { lie: Lie; name: string }[] = [
  { lie: [1, 0, 0, 1], name: "The drawing has the right orientation." },
  { lie: [0, -1, 1, 0], name: "The drawing is turned a quarter counter-clockwise." },
  { lie: [-1, 0, 0, -1], name: "The drawing is turned by half a turn." },
  { lie: [0, 1, -1, 0], name: "The drawing is turned a quarter clockwise." },
  { lie: [-1, 0, 0, 1], name: "The drawing is mirrored, left to right." },
  { lie: [1, 0, 0, -1], name: "The drawing is mirrored, front to back." },
  { lie: [0, 1, 1, 0], name: "The drawing is mirrored about the diagonal from front left to back right." },
  { lie: [0, -1, -1, 0], name: "The drawing is mirrored about the diagonal from front right to back left." },
];

/** Which of the eight it is, as a sentence. */
export function nameOf(lie: Lie): string {
  return NAMES.find((n) => isSameLie(n.lie, lie))?.name ?? "";
}
