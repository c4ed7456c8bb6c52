/** The result of reading a file: its contents, or where and why it cannot be read. */
export type Parsed<T> = { ok: true; value: T } | { ok: false; line: number; column: number; message: string };

/**
 * What no coupon needs is refused before it is looked at: every parser has a limit up to which it answers within a second.
 *
 * @throws FormatFault
 */
export function refuseLarge(text: string, mostCharacters: number): void {
  if (text.length > mostCharacters) throw new FormatFault(1, 1, tooLarge(mostCharacters));
}

export function tooLarge(mostCharacters: number): string {
  return `The file is larger than ${mostCharacters / 1e6} million characters.`;
}

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
