import type { Random } from "./random";

/** What a hand finds at a site. */
export type Seen =
  /** Each look may fall on another pair of marks; the mean is over all of them. */
  | { ok: true; look: (random: Random) => number; mean: number }
  /** `isBlank`: nothing marked there, which is an answer too. */
  | { ok: false; why: string; isBlank?: boolean };
