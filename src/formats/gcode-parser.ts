/**
 * Reads RS-274 G-code into steps. Strict: every word is understood or refused with its line and column.
 * [NIST RS274/NGC Interpreter, version 3 (2000), 3.5 G codes, 3.4 modal groups]
 *
 * Modal state: motion (G0 to G3), units (G20, G21), distances (G90, G91), feed, power, and the beam on or off.
 */

import { elementAt } from "../core/fitting/element-at";
import { type GcodeDialect, USUAL_DIALECT } from "../core/machine/gcode-dialect";
import { MM_PER_INCH } from "../core/metrology/units";
import { arcPoints, type Place } from "./gcode-arc";
import { GcodeLine } from "./gcode-line";
import { BOTH_WAYS, ONE_WAY, SCAN_BEGIN, SCAN_END, SECONDS_PER_MINUTE } from "./gcode-words";
import { FormatFault, type Parsed, parsing, refuseLarge } from "./parsed";

export type GcodeStep =
  | {
      kind: "move";
      rapid: boolean;
      from: Place;
      to: Place;
      feedMmPerS: number;
      /** Power word while the beam is on; 0 otherwise and on rapids. */
      power: number;
      line: number;
    }
  | { kind: "scan begin"; rowPitchMm: number; direction: "both" | "right-going"; line: number }
  | { kind: "scan end"; line: number }
  | { kind: "dwell"; seconds: number; power: number; line: number }
  /** With what its comment tells the person to do. */
  | { kind: "pause"; text: string; line: number };

export type GcodeProgram = { steps: GcodeStep[]; comments: string[] };

export type GcodeReading = {
  /** How the machine takes its words; the usual way where it is left out. */
  dialect?: Pick<GcodeDialect, "powerLetter" | "beamOn" | "beamOff">;
  /** Arcs become chords that stay within this distance of them. */
  chordErrorMm?: number;
};

/** Farther than any machine reaches. */
const FARTHEST_MM = 1e6;
/** A coupon has some thousand moves. */
const MOST_STEPS = 400_000;
const MOST_CHARACTERS = 8_000_000;
/** With lines that only switch the beam, or comment, between its moves. */
const MOST_LINES = 600_000;
const MOST_COMMENTS = 10_000;
const CHORD_ERROR_MM = 0.002;
const LETTERS = "GMNXYZIJRFSPQ";
const MOTIONS: Record<number, Motion> = { 0: "rapid", 1: "straight", 2: "clockwise", 3: "anticlockwise" };

/** May stand alone in the first and the last line. */
const PERCENT = 37;

type Motion = "rapid" | "straight" | "clockwise" | "anticlockwise";

/** @param text the file as text */
export function parseGcode(text: string, reading: GcodeReading = {}): Parsed<GcodeProgram> {
  return parsing(() => {
    refuseLarge(text, MOST_CHARACTERS);
    const reader = new Reader(reading.dialect ?? USUAL_DIALECT, reading.chordErrorMm ?? CHORD_ERROR_MM);
    refuseManyLines(text);
    let line = 0;
    for (let start = 0; start <= text.length; ) {
      const next = text.indexOf("\n", start);
      const end = next < 0 ? text.length : next;
      reader.line(text, start, text.charCodeAt(end - 1) === 13 ? end - 1 : end, ++line);
      start = end + 1;
    }
    if (!reader.ended) throw new FormatFault(line, 1, "The file ends without M2 or M30: it is cut short.");
    return { steps: reader.steps, comments: reader.comments };
  });
}

/** Before anything else is read: counting is a hundred times as fast. */
function refuseManyLines(text: string): void {
  let lines = 0;
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1))
    if (++lines > MOST_LINES) throw new FormatFault(lines, 1, "The file holds more lines than can be meant.");
}

class Reader {
  readonly steps: GcodeStep[] = [];
  readonly comments: string[] = [];
  ended = false;
  private readonly words = new GcodeLine();
  private readonly onCode: number;
  private readonly offCode: number;
  private at: Place = { x: 0, y: 0, z: 0 };
  private motion: Motion = "rapid";
  private relative = false;
  private unitMm: number | null = null;
  private feedMmPerS = 0;
  private power = 0;
  private beamOn = false;
  private scanning = false;

  constructor(
    private readonly dialect: Pick<GcodeDialect, "powerLetter" | "beamOn" | "beamOff">,
    private readonly chordErrorMm: number,
  ) {
    this.onCode = Number(dialect.beamOn.slice(1));
    this.offCode = Number(dialect.beamOff.slice(1));
  }

  /** Reads one line of the file, in the order that the standard gives: modes, feed, power, beam, then what is done. */
  line(text: string, start: number, end: number, line: number): void {
    const { words } = this;
    if (text.charCodeAt(start) === PERCENT && text.slice(start, end).trim() === "%") return;
    words.read(text, start, end, line);
    if (words.comments.length > 0 && this.comments.length < MOST_COMMENTS) this.comments.push(...words.comments);
    if (words.letters.length === 0) return;
    if (this.ended && words.letters.some((letter) => letter !== "N"))
      throw new FormatFault(line, 1, "There is more after the end of the program.");
    const said = this.codes(line);
    const feed = words.value("F");
    if (feed !== undefined) this.feedMmPerS = (this.positive("F", line) * this.unit(line)) / SECONDS_PER_MINUTE;
    this.readPower(said, line);
    if (said.beam !== null) this.beamOn = said.beam;
    if (said.scanBegins) this.beginScan(line);
    if (said.dwell) this.dwell(line);
    else if (words.letters.some((letter) => letter === "X" || letter === "Y" || letter === "Z")) this.move(line);
    else if (words.value("I") !== undefined || words.value("J") !== undefined || words.value("R") !== undefined)
      this.move(line);
    if (said.scanEnds) this.endScan(line);
    if (said.pause) this.steps.push({ kind: "pause", text: words.comments.join(" "), line });
    if (said.end) {
      if (this.scanning) throw new FormatFault(line, 1, "The program ends inside an area to scan: M121 is missing.");
      this.ended = true;
    }
  }

  /** What the G and M words of the line say. Two of one group contradict each other. */
  private codes(line: number) {
    const said = {
      beam: null as boolean | null,
      dwell: false,
      pause: false,
      end: false,
      scanBegins: false,
      scanEnds: false,
    };
    let groups = 0;
    const { letters, values, columns } = this.words;
    for (let i = 0; i < letters.length; i++) {
      const letter = letters[i] as string;
      const column = elementAt(columns, i);
      if (!LETTERS.includes(letter)) throw new FormatFault(line, column, `${letter} is not understood here.`);
      if (letter !== "G" && letter !== "M") {
        if (letters.indexOf(letter) !== i) throw new FormatFault(line, column, `${letter} stands twice in one line.`);
        continue;
      }
      const value = elementAt(values, i);
      const group = letter === "G" ? this.general(value, said) : this.miscellaneous(value, said);
      if (group === null)
        throw new FormatFault(
          line,
          column,
          `${letter}${value} is not understood here. Use the file that was downloaded for this coupon.`,
        );
      if (group > 0 && groups & group)
        throw new FormatFault(line, column, "Two words of this line contradict each other.");
      groups |= group;
    }
    return said;
  }

  /** @returns a bit for its modal group, `null` where it is not known */
  private general(code: number, said: { dwell: boolean }): number | null {
    const motion = MOTIONS[code];
    if (motion) {
      this.motion = motion;
      return 1;
    }
    if (code === 4) {
      said.dwell = true;
      return 1;
    }
    if (code === 20 || code === 21) {
      this.unitMm = code === 20 ? MM_PER_INCH : 1;
      return 2;
    }
    if (code === 90 || code === 91) {
      this.relative = code === 91;
      return 4;
    }
    // The plane of X and Y, feed a minute, the first work offset, centres from the start: the only ones known here.
    const only = [17, 94, 54, 91.1].indexOf(code);
    return only < 0 ? null : 8 << only;
  }

  private miscellaneous(
    code: number,
    said: { beam: boolean | null; pause: boolean; end: boolean; scanBegins: boolean; scanEnds: boolean },
  ): number | null {
    if (code === this.onCode || code === this.offCode) {
      said.beam = code === this.onCode;
      return 256;
    }
    if (code === SCAN_BEGIN || code === SCAN_END) {
      if (code === SCAN_BEGIN) said.scanBegins = true;
      else said.scanEnds = true;
      return 512;
    }
    if (code === 0) said.pause = true;
    else if (code === 2 || code === 30) said.end = true;
    else return null;
    return 1024;
  }

  private readPower(said: { dwell: boolean; scanBegins: boolean }, line: number): void {
    const letter = this.dialect.powerLetter;
    if (letter !== "S" && this.words.value("S") !== undefined)
      throw new FormatFault(line, this.words.column("S"), `S is not understood here: the power word is ${letter}.`);
    if (letter !== "S" && (said.dwell || said.scanBegins)) return;
    const power = this.words.value(letter);
    if (power === undefined) return;
    if (power < 0) throw new FormatFault(line, this.words.column(letter), "Power cannot be negative.");
    this.power = power;
  }

  private dwell(line: number): void {
    const power = this.beamOn ? this.power : 0;
    this.steps.push({ kind: "dwell", seconds: this.positive("P", line), power, line });
  }

  private beginScan(line: number): void {
    if (this.scanning) throw new FormatFault(line, 1, "M120 inside an area that is already open.");
    const ways = this.words.value("Q");
    if (ways !== ONE_WAY && ways !== BOTH_WAYS)
      throw new FormatFault(line, this.words.column("Q"), "M120 needs Q1 (one way) or Q2 (both ways).");
    this.scanning = true;
    this.steps.push({
      kind: "scan begin",
      rowPitchMm: this.positive("P", line) * this.unit(line),
      direction: ways === BOTH_WAYS ? "both" : "right-going",
      line,
    });
  }

  private endScan(line: number): void {
    if (!this.scanning) throw new FormatFault(line, 1, "M121 without M120 before it.");
    this.scanning = false;
    this.steps.push({ kind: "scan end", line });
  }

  private move(line: number): void {
    const { at } = this;
    const to = {
      x: this.coordinate("X", at.x, line),
      y: this.coordinate("Y", at.y, line),
      z: this.coordinate("Z", at.z, line),
    };
    const arc = this.motion === "clockwise" || this.motion === "anticlockwise";
    if (!arc)
      for (const letter of ["I", "J", "R"])
        if (this.words.value(letter) !== undefined)
          throw new FormatFault(line, this.words.column(letter), `${letter} belongs to an arc: G2 or G3 is missing.`);
    if (this.motion !== "rapid" && this.feedMmPerS === 0)
      throw new FormatFault(line, 1, "A move without a feed: F is missing.");
    if (arc) for (const p of this.arc(to, line)) this.step(p, line);
    else this.step(to, line);
  }

  private arc(to: Place, line: number): Place[] {
    const unit = this.unit(line);
    const scaled = (letter: string) => {
      const value = this.words.value(letter);
      return value === undefined ? undefined : value * unit;
    };
    const points = arcPoints({
      from: this.at,
      to,
      clockwise: this.motion === "clockwise",
      i: scaled("I"),
      j: scaled("J"),
      r: scaled("R"),
      chordErrorMm: this.chordErrorMm,
    });
    if (typeof points === "string") throw new FormatFault(line, 1, points);
    return points;
  }

  private step(to: Place, line: number): void {
    if (this.steps.length >= MOST_STEPS) throw new FormatFault(line, 1, "The file holds more moves than can be meant.");
    const rapid = this.motion === "rapid";
    const power = rapid || !this.beamOn ? 0 : this.power;
    this.steps.push({ kind: "move", rapid, from: this.at, to, feedMmPerS: this.feedMmPerS, power, line });
    this.at = to;
  }

  private coordinate(letter: string, before: number, line: number): number {
    const value = this.words.value(letter);
    if (value === undefined) return before;
    const mm = value * this.unit(line) + (this.relative ? before : 0);
    if (Math.abs(mm) > FARTHEST_MM)
      throw new FormatFault(line, this.words.column(letter), `${letter} lies farther than any machine reaches.`);
    return mm;
  }

  private unit(line: number): number {
    if (this.unitMm === null) throw new FormatFault(line, 1, "The unit is not set: G21 (mm) or G20 (inch) is missing.");
    return this.unitMm;
  }

  private positive(letter: string, line: number): number {
    const value = this.words.value(letter);
    if (value === undefined || !(value > 0))
      throw new FormatFault(line, this.words.column(letter), `${letter} must be given and larger than 0.`);
    return value;
  }
}
