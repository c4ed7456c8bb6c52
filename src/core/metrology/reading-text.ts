/**
 * What a technician types at the bench, as a number.
 *
 *   reading := [ "+" ] term { ("+" | "-") term }
 *   term    := amount [ "/" amount ] [unit]  |  feet inches: `5' 3"`
 *   amount  := digits [ ("." | ",") digits ]  |  whole number, a space, and a fraction: `1 3/8`
 *
 * A unit after the last term covers every term that has none (`350+6 mm`). What could mean two things is refused, and a fault
 * names the place and the character: a number that was never meant is worse than a question.
 */
import { DEFAULT_UNIT, type Dimension, SWITCH_WORDS, toInternal, UNITS, type UnitId, unitBySpelling } from "./units";

export type ParsedReading =
  | {
      ok: true;
      /** In the internal unit of the dimension. */
      value: number;
      /** How often each measured term is contained in the value: [1] for a plain reading, [0.5] for `1.46/2`, [1, -1] for a difference. */
      shares: number[];
      unit: UnitId;
    }
  | {
      ok: false;
      /** Index of the character at fault in the text as typed. */
      at: number;
      message: string;
    };

type Term = {
  at: number;
  sign: 1 | -1;
  amount: number;
  divisor: number;
  unit: UnitId | undefined;
};

const MOST_DIGITS = 15;
const AMOUNT = /(?:\d+(?:[.,]\d*)?|[.,]\d+)/y;
const FRACTION = /(\d+)\s*\/\s*(\d+)/y;
const UNIT = /["”″'’′°%]|[a-zµμ]+(?:\/[a-z]+)?/iy;
/** `1-3/8` is one and three eighths to some and a difference to others. */
const HYPHENED_FRACTION = /\d-\d+\/\d/;
const SPACE = /\s*/y;

class Fault extends Error {
  constructor(
    readonly at: number,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Parses a reading as typed.
 *
 * @param text what was typed
 * @param dimension what kind of quantity is asked for
 * @param unit the unit meant when none is typed; the default unit of the dimension otherwise
 */
export function parseReading(
  text: string,
  dimension: Dimension,
  unit: UnitId = DEFAULT_UNIT[dimension],
): ParsedReading {
  if (text.length > LONGEST)
    return { ok: false, at: LONGEST, message: `The text has ${text.length} characters. Enter at most ${LONGEST}.` };
  if (dimension === "switch") return parseSwitch(text);
  try {
    const terms = new Scanner(text, dimension).terms();
    const covering = coveringUnit(terms, unit);
    let value = 0;
    for (const term of terms) value += toInternal((term.sign * term.amount) / term.divisor, term.unit ?? covering);
    return { ok: true, value, shares: terms.map((t) => t.sign / t.divisor), unit: covering };
  } catch (fault) {
    if (fault instanceof Fault) return { ok: false, at: fault.at, message: fault.message };
    throw fault;
  }
}

function parseSwitch(text: string): ParsedReading {
  const typed = text.trim().toLowerCase();
  const value = SWITCH_WORDS.findIndex((word, i) => typed === word || typed === String(i));
  if (value < 0) return { ok: false, at: 0, message: "This is a switch. Enter on or off." };
  return { ok: true, value, shares: [1], unit: "onOff" };
}

/** Reads a number that may be negative. A minus at the start belongs to the first term. The result is never -0. */
export function parseSignedReading(text: string, dimension: Dimension, unit?: UnitId): ParsedReading {
  const minus = MINUS.exec(text);
  if (!minus) return parseReading(text, dimension, unit);
  const read = parseReading(`${NOTHING_LESS}${text.slice(minus[0].length)}`, dimension, unit);
  if (!read.ok) return { ...read, at: Math.max(0, read.at + minus[0].length - NOTHING_LESS.length) };
  return { ...read, value: read.value === 0 ? 0 : read.value, shares: read.shares.slice(1) };
}

const MINUS = /^\s*[-−]/;
const NOTHING_LESS = "0 - ";
/** Most characters of a reading. */
const LONGEST = 200;

function coveringUnit(terms: readonly Term[], unit: UnitId): UnitId {
  const last = terms[terms.length - 1];
  const named = terms.find((t) => t.unit !== undefined);
  if (last && last.unit === undefined && named)
    throw new Fault(last.at, "Give the last number its unit too: it is not clear which one it has.");
  return last?.unit ?? unit;
}

class Scanner {
  private at = 0;

  constructor(
    private readonly text: string,
    private readonly dimension: Dimension,
  ) {}

  terms(): Term[] {
    this.skipSpace();
    if (this.done()) throw new Fault(0, "Type what was measured, for example 0.29.");
    if (this.peek() === "-" || this.peek() === "−") throw new Fault(this.at, "Enter the size without a minus sign.");
    // Gauges that type send a plus before what is not negative.
    if (this.peek() === "+") this.at += 1;
    const hyphen = HYPHENED_FRACTION.exec(this.text);
    if (hyphen)
      throw new Fault(hyphen.index + 1, "This could be a sum or a difference: type 1 3/8, or 1 - 3/8 with spaces.");
    const terms: Term[] = [this.term(1)];
    for (this.skipSpace(); !this.done(); this.skipSpace()) {
      const c = this.peek();
      if (c !== "+" && c !== "-" && c !== "−") throw this.unexpected();
      this.at += 1;
      this.skipSpace();
      terms.push(this.term(c === "+" ? 1 : -1));
    }
    return terms;
  }

  private term(sign: 1 | -1): Term {
    const at = this.at;
    const amount = this.amount();
    const divisor = amount.fraction ? undefined : this.divisor();
    const unit = this.unit();
    if (unit === "ft" && divisor === undefined && /[\d.,]/.test(this.afterSpace())) {
      if (!Number.isInteger(amount.value)) throw new Fault(at, "Whole feet go before inches.");
      return { at, sign, amount: amount.value * 12 + this.inches(), divisor: 1, unit: "in" };
    }
    return { at, sign, amount: amount.value, divisor: divisor ?? 1, unit };
  }

  /** A decimal number, or a whole one with a fraction after it. */
  private amount(): { value: number; fraction: boolean } {
    const at = this.at;
    const digits = this.match(AMOUNT)?.[0];
    if (digits === undefined) throw this.unexpected();
    if (digits.replace(/[.,]/, "").replace(/^0+/, "").length > MOST_DIGITS)
      throw new Fault(at, "These are more digits than any gauge shows.");
    if (/[.,]/.test(this.peek())) throw new Fault(this.at, `“${this.peek()}”: a number has one decimal mark.`);
    const value = Number(digits.replace(",", "."));
    const before = this.at;
    this.skipSpace();
    const fraction = this.at > before ? this.match(FRACTION) : null;
    if (!fraction) {
      this.at = before;
      return { value, fraction: false };
    }
    if (/[.,]/.test(digits)) throw new Fault(at, "A whole number goes before a fraction, for example 1 3/8.");
    if (Number(fraction[2]) === 0) throw new Fault(this.at - 1, "A fraction cannot have 0 below the line.");
    return { value: value + Number(fraction[1]) / Number(fraction[2]), fraction: true };
  }

  private divisor(): number | undefined {
    const before = this.at;
    this.skipSpace();
    if (this.peek() !== "/") {
      this.at = before;
      return undefined;
    }
    this.at += 1;
    this.skipSpace();
    const at = this.at;
    const { value, fraction } = this.amount();
    if (value === 0) throw new Fault(at, "Cannot divide by 0.");
    if (fraction) throw new Fault(at, "Divide by a plain number, for example 1.46/2.");
    return value;
  }

  /** After feet: inches with their mark, so that 1'000 is not taken for one foot. */
  private inches(): number {
    this.skipSpace();
    const at = this.at;
    const { value } = this.amount();
    if (this.unit() !== "in") throw new Fault(at, `After feet, inches carry their mark: 5' 3".`);
    return value;
  }

  private unit(): UnitId | undefined {
    this.skipSpace();
    const at = this.at;
    const spelled = this.match(UNIT)?.[0];
    if (spelled === undefined) return undefined;
    if (/^mils?$/i.test(spelled))
      throw new Fault(at, "A mil is a thousandth of an inch to some and a millimetre to others: type thou or mm.");
    const id = unitBySpelling(spelled);
    if (!id) throw new Fault(at, `“${spelled}” is not a unit known here. ${this.knownUnits()}`);
    if (UNITS[id].dimension !== this.dimension)
      throw new Fault(at, `“${spelled}” does not fit: a ${this.dimension} is asked for. ${this.knownUnits()}`);
    return id;
  }

  private knownUnits(): string {
    const fitting = Object.values(UNITS).filter((u) => u.dimension === this.dimension && u.spellings.length > 0);
    if (fitting.length === 0) return "Type the number alone.";
    return `Use ${fitting.map((u) => u.spellings[0]).join(", ")}.`;
  }

  private unexpected(): Fault {
    if (this.done()) return new Fault(this.at, "A number is missing at the end.");
    return new Fault(this.at, `“${this.peek()}” cannot be read as part of a number.`);
  }

  private match(pattern: RegExp): RegExpExecArray | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text);
    if (found) this.at = pattern.lastIndex;
    return found;
  }

  private afterSpace(): string {
    SPACE.lastIndex = this.at;
    SPACE.exec(this.text);
    return this.text.charAt(SPACE.lastIndex);
  }

  private skipSpace(): void {
    this.match(SPACE);
  }

  /** The character here, whole even where it takes two units of text. */
  private peek(): string {
    const code = this.text.codePointAt(this.at);
    return code === undefined ? "" : String.fromCodePoint(code);
  }

  private done(): boolean {
    return this.at >= this.text.length;
  }
}
