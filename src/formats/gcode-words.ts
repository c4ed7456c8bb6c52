/**
 * The words of RS-274 that Ustrina writes and reads. [NIST RS274/NGC Interpreter, version 3 (2000), section 3]
 *
 * Codes M100 to M199 are free for the machine's builder. Two are used for an area that the controller fills with rows of
 * its own: M120 P<row pitch> Q<1 one way to the right | 2 both ways>, then the closed outline at the F and power of the
 * rows, then M121. The outline itself is not burned.
 */
export const SCAN_BEGIN = 120;
export const SCAN_END = 121;
export const ONE_WAY = 1;
export const BOTH_WAYS = 2;
export const SECONDS_PER_MINUTE = 60;

/** 0.1 µm in mm, 0.25 µm in inches: well below the step of any drive. */
export const DECIMALS_BY_UNIT = { mm: 4, in: 5 } as const;

/** Text as it may stand in a comment. */
export function commentText(text: string): string {
  return text.replace(/[()\n\r]/g, " ");
}

/** `(Ustrina coupon A-14)`: names the coupon in the first lines of a file. */
export function couponComment(code: string): string {
  return `Ustrina coupon ${code}`;
}
