/** Numbers drawn by chance from a seed: the same seed, the same result of a computation that draws. */
export type Draws = {
  /** Even in [0, 1). */
  even(): number;
  /** Mean 0, sd 1. */
  normal(): number;
  /** Chi-squared. @param freedom at least 1, need not be whole */
  chiSquared(freedom: number): number;
};

/** Weyl sequence through a 32-bit finalizer. [Steele, Lea and Flood, OOPSLA 2014, splittable generators, here with 32 bits; from memory] */
export function seededDraws(seed: number): Draws {
  let state = seed >>> 0;
  const even = () => {
    state = (state + 0x9e3779b9) >>> 0;
    let z = state;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return ((z ^ (z >>> 16)) >>> 0) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even());
  return { even, normal, chiSquared: (freedom) => 2 * gamma(freedom / 2, even, normal) };
}

/** By rejection. [Marsaglia and Tsang, ACM Trans. Math. Softw. 26 (2000) 363, for shapes of at least 1; from memory] */
function gamma(shape: number, even: () => number, normal: () => number): number {
  if (shape < 1) return gamma(shape + 1, even, normal) * (1 - even()) ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal();
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - even()) < (x * x) / 2 + d - d * v + d * Math.log(v)) return d * v;
  }
}
