/**
 * Reads RS-274 G-code into steps. Strict: every word is understood or refused with its line and column.
 *
 * Modal state: motion (G0, G1), units (G20, G21), F, S, and beam on (M3) or off (M5).
 */
import { BOTH_WAYS, ONE_WAY, SCAN_BEGIN, SCAN_END, SECONDS_PER_MINUTE } from "./gcode-words";
import { FormatFault, type Parsed, parsing } from "./parsed";

export type GcodeStep =
  | {
      kind: "move";
      rapid: boolean;
      from: { x: number; y: number; z: number };
      to: { x: number; y: number; z: number };
      feedMmPerS: number;
      /** S word while the beam is on; 0 otherwise and on rapids. */
      power: number;
      line: number;
    }
  | { kind: "scan begin"; rowPitchMm: number; direction: "both" | "right-going"; line: number }
  | { kind: "scan end"; line: number }
  | { kind: "dwell"; seconds: number; power: number; line: number }
  | { kind: "pause"; line: number };

export type GcodeProgram = { steps: GcodeStep[]; comments: string[] };

type Word = { letter: string; value: number; column: number };

const MM_PER_INCH = 25.4;
const MAX_CHARACTERS = 400_000_000;
const AXES = ["X", "Y", "Z"] as const;

/** @param text the file as text */
export function parseGcode(text: string): Parsed<GcodeProgram> {
  return parsing(() => {
    if (text.length > MAX_CHARACTERS) throw new FormatFault(1, 1, "The file is too large.");
    const reader = new Reader();
    const lines = text.split(/\r?\n/);
    for (const [i, line] of lines.entries()) reader.line(line, i + 1);
    if (!reader.ended) throw new FormatFault(lines.length, 1, "The file ends without M2 or M30: it is cut short.");
    return { steps: reader.steps, comments: reader.comments };
  });
}

class Reader {
  readonly steps: GcodeStep[] = [];
  readonly comments: string[] = [];
  ended = false;
  private at = { x: 0, y: 0, z: 0 };
  private rapid = true;
  private unitMm: number | null = null;
  private feedMmPerS = 0;
  private power = 0;
  private beamOn = false;
  private scanning = false;

  line(text: string, line: number): void {
    const words = this.words(text, line);
    if (words.length === 0) return;
    if (this.ended) throw new FormatFault(line, 1, "There is more after the end of the program.");
    const value = (letter: string) => words.find((w) => w.letter === letter)?.value;
    for (const word of words) this.modal(word, line);
    const feed = value("F");
    if (feed !== undefined) this.feedMmPerS = (this.positive(words, "F", line) * this.unit(line)) / SECONDS_PER_MINUTE;
    const power = value("S");
    if (power !== undefined) {
      if (power < 0) throw this.fault(words, "S", line, "Power cannot be negative.");
      this.power = power;
    }
    const codes = new Set(words.filter((w) => w.letter === "M").map((w) => w.value));
    if (codes.has(SCAN_BEGIN)) this.beginScan(words, line);
    if (words.some((w) => w.letter === "G" && w.value === 4)) {
      this.steps.push({
        kind: "dwell",
        seconds: this.positive(words, "P", line),
        power: this.beamOn ? this.power : 0,
        line,
      });
    } else if (AXES.some((axis) => value(axis) !== undefined)) {
      this.move(words, line);
    }
    if (codes.has(SCAN_END)) {
      if (!this.scanning) throw new FormatFault(line, 1, "M121 without M120 before it.");
      this.scanning = false;
      this.steps.push({ kind: "scan end", line });
    }
    if (codes.has(0)) this.steps.push({ kind: "pause", line });
    if (codes.has(2) || codes.has(30)) {
      if (this.scanning) throw new FormatFault(line, 1, "The program ends inside an area to scan: M121 is missing.");
      this.ended = true;
    }
  }

  private modal(word: Word, line: number): void {
    const key = `${word.letter}${word.value}`;
    switch (key) {
      case "G0":
        this.rapid = true;
        return;
      case "G1":
        this.rapid = false;
        return;
      case "G20":
        this.unitMm = MM_PER_INCH;
        return;
      case "G21":
        this.unitMm = 1;
        return;
      case "M3":
        this.beamOn = true;
        return;
      case "M5":
        this.beamOn = false;
        return;
      case "G4":
      case "G17":
      case "G90":
      case "G94":
      case "M0":
      case "M2":
      case "M30":
      case `M${SCAN_BEGIN}`:
      case `M${SCAN_END}`:
        return;
    }
    if (word.letter === "G" || word.letter === "M")
      throw new FormatFault(
        line,
        word.column,
        `${key} is not understood here. Use the file that was downloaded for this coupon.`,
      );
  }

  private beginScan(words: readonly Word[], line: number): void {
    if (this.scanning) throw new FormatFault(line, 1, "M120 inside an area that is already open.");
    const ways = words.find((w) => w.letter === "Q")?.value;
    if (ways !== ONE_WAY && ways !== BOTH_WAYS)
      throw this.fault(words, "Q", line, "M120 needs Q1 (one way) or Q2 (both ways).");
    this.scanning = true;
    this.steps.push({
      kind: "scan begin",
      rowPitchMm: this.positive(words, "P", line) * this.unit(line),
      direction: ways === BOTH_WAYS ? "both" : "right-going",
      line,
    });
  }

  private move(words: readonly Word[], line: number): void {
    const scale = this.unit(line);
    const to = { ...this.at };
    for (const axis of AXES) {
      const value = words.find((w) => w.letter === axis)?.value;
      if (value !== undefined) to[axis.toLowerCase() as "x" | "y" | "z"] = value * scale;
    }
    if (!this.rapid && this.feedMmPerS === 0) throw new FormatFault(line, 1, "A move without a feed: F is missing.");
    this.steps.push({
      kind: "move",
      rapid: this.rapid,
      from: this.at,
      to,
      feedMmPerS: this.feedMmPerS,
      power: this.rapid || !this.beamOn ? 0 : this.power,
      line,
    });
    this.at = to;
  }

  private words(text: string, line: number): Word[] {
    const words: Word[] = [];
    let at = 0;
    while (at < text.length) {
      const rest = text.slice(at);
      const space = /^\s+/.exec(rest);
      if (space) {
        at += space[0].length;
        continue;
      }
      if (rest.startsWith(";")) {
        this.comments.push(rest.slice(1).trim());
        break;
      }
      if (rest.startsWith("(")) {
        const end = rest.indexOf(")");
        if (end < 0) throw new FormatFault(line, at + 1, "A comment is not closed.");
        this.comments.push(rest.slice(1, end));
        at += end + 1;
        continue;
      }
      const word = /^([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+))(?![\d.])/.exec(rest);
      if (!word) throw new FormatFault(line, at + 1, `“${rest.slice(0, 12)}” is no word of G-code.`);
      const letter = (word[1] as string).toUpperCase();
      if (!"GMXYZFSPQN".includes(letter)) throw new FormatFault(line, at + 1, `${letter} is not understood here.`);
      if (!"GMN".includes(letter) && words.some((w) => w.letter === letter))
        throw new FormatFault(line, at + 1, `${letter} stands twice in one line.`);
      words.push({ letter, value: Number(word[2]), column: at + 1 });
      at += word[0].length;
    }
    return words.filter((w) => w.letter !== "N");
  }

  private unit(line: number): number {
    if (this.unitMm === null) throw new FormatFault(line, 1, "The unit is not set: G21 (mm) or G20 (inch) is missing.");
    return this.unitMm;
  }

  private positive(words: readonly Word[], letter: string, line: number): number {
    const value = words.find((w) => w.letter === letter)?.value;
    if (value === undefined || !(value > 0))
      throw this.fault(words, letter, line, `${letter} must be given and larger than 0.`);
    return value;
  }

  private fault(words: readonly Word[], letter: string, line: number, message: string): FormatFault {
    return new FormatFault(line, words.find((w) => w.letter === letter)?.column ?? 1, message);
  }
}
