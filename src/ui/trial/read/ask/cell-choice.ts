/** Choosing cells by keys: where a key goes, and the two ends of a range, which never cross. */

/** Indices; `null` = not chosen yet. */
export type RangeEnds = { first: number | null; last: number | null };

/**
 * @param which `anew`: the only one so far; `other`: the second of two, whichever side it lies on
 */
export function withEnd({ first, last }: RangeEnds, at: number, which: "first" | "last" | "anew" | "other"): RangeEnds {
  switch (which) {
    case "anew":
      return { first: at, last: null };
    case "other":
      return first === null ? { first: at, last: null } : { first: Math.min(first, at), last: Math.max(first, at) };
    case "first":
      return { first: at, last: last !== null && last < at ? null : last };
    case "last":
      return { first: first !== null && first > at ? null : first, last: at };
  }
}

/**
 * The cell that a key leads to; `null` where it leads to none.
 *
 * @param columns how many cells lie beside one another
 */
export function nextAt(key: string, at: number, count: number, columns = 1): number | null {
  const by: Record<string, number> = {
    ArrowRight: at + 1,
    ArrowDown: at + columns,
    ArrowLeft: at - 1,
    ArrowUp: at - columns,
    Home: 0,
    End: count - 1,
  };
  const to = by[key];
  return to === undefined ? null : Math.min(count - 1, Math.max(0, to));
}
