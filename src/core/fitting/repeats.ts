/** Arithmetic mean, and how what is repeated scatters about its own. */

/** Arithmetic mean of at least one value; NaN of none. */
export function mean(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}

export type Pooled = { sd: number; freedom: number };

/**
 * Standard deviation of one value, from repeats of several things and from what is usual before there are any.
 *
 * @param groups repeats of one thing each; those of fewer than two tell nothing
 * @param usual what is usual, and how many repeats that is worth; 0 where nothing is: then some group needs two repeats
 * @source JCGM 100:2008 4.2.4, pooled over the groups
 */
export function pooled(groups: readonly (readonly number[])[], usual: Pooled): Pooled {
  const freedom = usual.freedom + groups.reduce((sum, group) => sum + Math.max(0, group.length - 1), 0);
  return {
    sd: Math.sqrt((usual.freedom * usual.sd ** 2 + groups.reduce((s, g) => s + squares(g), 0)) / freedom),
    freedom,
  };
}

function squares(values: readonly number[]): number {
  const middle = mean(values);
  return values.reduce((sum, v) => sum + (v - middle) ** 2, 0);
}
