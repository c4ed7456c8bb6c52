/**
 * Limits wrong access codes. Each address has some attempts at once, then one per interval, so that a guessing device does not lock out
 * others. All addresses together have 20 attempts per second. At that rate half of all 2^40 codes take 870 years.
 */

export type Allowance = { atOnce: number; oneAgainMs: number };

const EACH: Allowance = { atOnce: 5, oneAgainMs: 30_000 };
const TOGETHER: Allowance = { atOnce: 400, oneAgainMs: 50 };
/** Most addresses counted separately. The oldest ones are removed. */
const MOST_ADDRESSES = 2000;

export class Attempts {
  private readonly each = new Map<string, Spent>();
  private readonly together = new Spent(TOGETHER);

  /** How long nothing is tried any more from there, s; 0 = a code may be tried now. */
  waitS(from: string, now: number): number {
    return Math.max(this.each.get(from)?.waitS(now) ?? 0, this.together.waitS(now));
  }

  wrong(from: string, now: number): void {
    const own = this.each.get(from) ?? new Spent(EACH);
    own.add(now);
    this.each.delete(from);
    this.each.set(from, own);
    const [oldest] = this.each.keys();
    if (this.each.size > MOST_ADDRESSES && oldest !== undefined) this.each.delete(oldest);
    this.together.add(now);
  }
}

class Spent {
  /** When each of the wrong codes that count is forgotten. */
  private ends: number[] = [];

  constructor(private readonly allowance: Allowance) {}

  waitS(now: number): number {
    const { atOnce, oneAgainMs } = this.allowance;
    // A moment far ahead is from before the clock was set back.
    this.ends = this.ends.filter((end) => end > now && end <= now + atOnce * oneAgainMs);
    const [first] = this.ends;
    return this.ends.length < atOnce || first === undefined ? 0 : Math.ceil((first - now) / 1000);
  }

  add(now: number): void {
    this.ends.push(Math.max(this.ends.at(-1) ?? now, now) + this.allowance.oneAgainMs);
  }
}
