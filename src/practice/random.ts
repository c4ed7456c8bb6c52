/** Seeded chance for practice machines: the same seed, the same machine, the same hand. */
export type Random = {
  /** Even in [0, 1). */
  even(): number;
  /** Even in [low, high). */
  between(low: number, high: number): number;
  /** Normal with mean 0 and sd 1 (Box-Muller). */
  normal(): number;
  /** One of these, each as likely. @throws RangeError when there are none */
  oneOf<T>(all: readonly T[]): T;
};

/** Generator by 32-bit mixing ("mulberry32", public domain, from memory); period 2^32. */
export function seeded(seed: number): Random {
  let state = seed >>> 0;
  const even = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  return {
    even,
    between: (low, high) => low + (high - low) * even(),
    oneOf: (all) => {
      const chosen = all[Math.floor(even() * all.length)];
      if (chosen === undefined) throw new RangeError("There is nothing to choose from.");
      return chosen;
    },
    normal: () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even()),
  };
}

/** A seed from words, so that each trial and each site has chance of its own. */
export function seedOf(...parts: (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const character of parts.join("|")) {
    hash ^= character.codePointAt(0) ?? 0;
    hash = Math.imul(hash, 0x01000193);
  }
  return hash >>> 0;
}
