/**
 * The words of one line of RS-274: letter and number, comments in parentheses or after a semicolon.
 * [NIST RS274/NGC Interpreter, version 3 (2000), 3.3] Strict: what is no word is refused with its column.
 */
import { elementAt } from "../core/fitting/element-at";
import { FormatFault } from "./parsed";

const MOST_EXACT_DIGITS = 15;
const POWERS = Array.from({ length: MOST_EXACT_DIGITS + 1 }, (_, i) => 10 ** i);
const [TAB, SPACE, OPEN, CLOSE, PLUS, MINUS, POINT, SEMICOLON] = [9, 32, 40, 41, 43, 45, 46, 59];
const [ZERO, NINE, UPPER_A, UPPER_Z, LOWER_A, LOWER_Z] = [48, 57, 65, 90, 97, 122];
const CASE = LOWER_A - UPPER_A;
const LETTERS = Array.from({ length: UPPER_Z - UPPER_A + 1 }, (_, i) => String.fromCharCode(UPPER_A + i));

/** Words of the line in hand; reused from line to line, so that a long file makes no waste. */
export class GcodeLine {
  /** Upper-case letters, one a word. */
  readonly letters: string[] = [];
  readonly values: number[] = [];
  /** From 1. */
  readonly columns: number[] = [];
  readonly comments: string[] = [];
  private count = 0;
  private text = "";
  private at = 0;
  private end = 0;

  /**
   * Reads `text` from `start` up to `end` as line number `line`.
   * @throws FormatFault with line and column
   */
  read(text: string, start: number, end: number, line: number): void {
    if (this.comments.length > 0) this.comments.length = 0;
    this.count = 0;
    this.text = text;
    this.at = start;
    this.end = end;
    while (this.at < end) {
      const c = text.charCodeAt(this.at);
      if (c === SPACE || c === TAB) this.at++;
      else if (c === SEMICOLON) {
        this.comments.push(text.slice(this.at + 1, end).trim());
        break;
      } else if (c === OPEN) this.comment(start, line);
      else this.word(c, start, line);
    }
    // Most lines have as many words as the one before: an array that keeps its length keeps its place in memory.
    if (this.letters.length !== this.count)
      for (const list of [this.letters, this.values, this.columns]) list.length = this.count;
  }

  /** The value of a letter; `undefined` where it does not stand in the line. */
  value(letter: string): number | undefined {
    const i = this.letters.indexOf(letter);
    return i < 0 ? undefined : this.values[i];
  }

  /** Column of a letter, 1 where it does not stand in the line. */
  column(letter: string): number {
    const i = this.letters.indexOf(letter);
    return i < 0 ? 1 : elementAt(this.columns, i);
  }

  private comment(start: number, line: number): void {
    let close = this.at + 1;
    while (close < this.end && this.text.charCodeAt(close) !== CLOSE) {
      if (this.text.charCodeAt(close) === OPEN)
        throw new FormatFault(line, close - start + 1, "A comment in a comment.");
      close++;
    }
    if (close >= this.end) throw new FormatFault(line, this.at - start + 1, "A comment is not closed.");
    this.comments.push(this.text.slice(this.at + 1, close));
    this.at = close + 1;
  }

  private word(c: number, start: number, line: number): void {
    const begin = this.at;
    const code = c >= LOWER_A && c <= LOWER_Z ? c - CASE : c;
    if (code < UPPER_A || code > UPPER_Z) throw this.noWord(begin, start, line);
    this.at++;
    while (this.text.charCodeAt(this.at) === SPACE && this.at < this.end) this.at++;
    const value = this.number();
    if (value === null) throw this.noWord(begin, start, line);
    this.letters[this.count] = LETTERS[code - UPPER_A] as string;
    this.values[this.count] = value;
    this.columns[this.count++] = begin - start + 1;
  }

  /** A sign, digits, a point, digits; at least one digit. */
  private number(): number | null {
    const { text, end } = this;
    const begin = this.at;
    let sign = 1;
    let c = this.code();
    if (c === PLUS || c === MINUS) {
      if (c === MINUS) sign = -1;
      this.at++;
      c = this.code();
    }
    let digits = 0;
    let decimals = 0;
    let whole = 0;
    let pointed = false;
    for (; this.at < end; this.at++, c = this.code()) {
      if (c >= ZERO && c <= NINE) {
        whole = whole * 10 + (c - ZERO);
        digits++;
        if (pointed) decimals++;
      } else if (c === POINT && !pointed) pointed = true;
      else break;
    }
    if (digits === 0 || c === POINT) return null;
    const value =
      digits <= MOST_EXACT_DIGITS ? (sign * whole) / elementAt(POWERS, decimals) : Number(text.slice(begin, this.at));
    return Number.isFinite(value) ? value + 0 : null;
  }

  private code(): number {
    return this.at < this.end ? this.text.charCodeAt(this.at) : 0;
  }

  private noWord(begin: number, start: number, line: number): FormatFault {
    const shown = this.text.slice(begin, Math.min(begin + 12, this.end));
    return new FormatFault(line, begin - start + 1, `“${shown}” is no word of G-code.`);
  }
}
