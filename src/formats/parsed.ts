/** The result of reading a file: its contents, or where and why it cannot be read. */
export type Parsed<T> = { ok: true; value: T } | { ok: false; line: number; column: number; message: string };

/** No parser takes more: what no coupon needs is refused before it is looked at. */
export const LARGEST_TEXT = 48_000_000;

/** Thrown inside parsers only; every parser returns it as data. */
export class FormatFault extends Error {
  constructor(
    readonly line: number,
    readonly column: number,
    message: string,
  ) {
    super(message);
  }
}

/** Runs a parser and turns its fault into data. */
export function parsing<T>(parse: () => T): Parsed<T> {
  try {
    return { ok: true, value: parse() };
  } catch (fault) {
    if (fault instanceof FormatFault)
      return { ok: false, line: fault.line, column: fault.column, message: fault.message };
    throw fault;
  }
}

/** `line 12, column 4: …`. */
export function faultText(fault: { line: number; column: number; message: string }): string {
  return `Line ${fault.line}, column ${fault.column}: ${fault.message}`;
}
