/** Wrong access codes are few: some at once, then one in a while. All devices count together, since any address can be pretended. */

const AT_ONCE = 5;
const ONE_AGAIN_MS = 30_000;

export class Attempts {
  /** When each of the wrong codes that count is forgotten. */
  private spent: number[] = [];

  /** How long nothing is tried any more, s; 0 = a code may be tried now. */
  waitS(now: number): number {
    // A moment far ahead is from before the clock was set back.
    this.spent = this.spent.filter((end) => end > now && end <= now + AT_ONCE * ONE_AGAIN_MS);
    const [first] = this.spent;
    return this.spent.length < AT_ONCE || first === undefined ? 0 : Math.ceil((first - now) / 1000);
  }

  wrong(now: number): void {
    const last = this.spent.at(-1) ?? now;
    this.spent.push(Math.max(last, now) + ONE_AGAIN_MS);
  }
}
