/**
 * A round as RS-274 G-code: it walks the program and burns every stroke at its settings, with run-ups for rows, in the words
 * that the machine takes.
 */
import type { MarkingSettings } from "../core/coupon/piece";
import type { RoundSpec } from "../core/coupon/round-spec";
import { burnSteps, pointsOf, type Stroke } from "../core/coupon/strokes";
import { type MachinePoint, onMachine } from "../core/geometry/frames";
import { type Bed, counted, zeroText } from "../core/machine/counted";
import type { GcodeDialect } from "../core/machine/gcode-dialect";
import { plain } from "../core/metrology/quantity-text";
import { MM_PER_INCH } from "../core/metrology/units";
import {
  BOTH_WAYS,
  commentText,
  couponComment,
  DECIMALS_BY_UNIT,
  ONE_WAY,
  SCAN_BEGIN,
  SCAN_END,
  SECONDS_PER_MINUTE,
} from "./gcode-words";

export type GcodeOptions = {
  couponCode: string;
  machineName: string;
  dialect: GcodeDialect;
  /** How it counts places; as the core does where it is left out. */
  bed?: Bed;
};

const CHUNK_LINES = 4096;
/** A table or a head is moved so fast by a file. (common practice, no source) */
const HEIGHT_MM_PER_S = 2;
const UNIT_CODE = { mm: "G21", in: "G20" } as const;

/** The whole file. */
export function gcodeOf(spec: RoundSpec, options: GcodeOptions): string {
  return [...gcodeChunks(spec, options)].join("");
}

/** The file in pieces of some thousand lines, so that it need never be held whole. */
export function* gcodeChunks(spec: RoundSpec, options: GcodeOptions): Generator<string> {
  let lines: string[] = [];
  for (const next of gcodeLines(spec, options)) {
    for (const line of next) lines.push(line);
    if (lines.length < CHUNK_LINES) continue;
    yield `${lines.join("\n")}\n`;
    lines = [];
  }
  if (lines.length > 0) yield `${lines.join("\n")}\n`;
}

/** A few lines at a time: one stroke, one command or one comment. */
function* gcodeLines(spec: RoundSpec, options: GcodeOptions): Generator<string[]> {
  const { dialect, bed } = options;
  const words = new Words(dialect, spec, bed);
  const zero = bed ? zeroText(bed) : "";
  yield [
    `(${couponComment(options.couponCode)})`,
    `(machine ${commentText(options.machineName)}; ${commentText(spec.delivery)})`,
    `(${dialect.unit}, ${dialect.unit}/min, power ${dialect.powerLetter}${plain(dialect.powerAtFull)} at 100 percent${zero && `; ${zero}`})`,
    ...begin(words, dialect),
    ...dialect.start,
    // What the machine's own lines may have changed is set again.
    ...(dialect.start.length > 0 ? begin(words, dialect) : []),
  ];
  for (const step of burnSteps(spec)) {
    switch (step.kind) {
      case "mark":
        yield* group(step.settings, step.strokes, words);
        break;
      case "pulse":
        yield [
          `G0 ${words.xy(onMachine(step.at, spec.placement))}`,
          `${dialect.beamOn} ${words.power(step.powerPct)}`,
          `G4 P${fixed(step.durationS, 4)}`,
          words.off,
        ];
        break;
      case "set height":
        yield [step.by === "hand" ? `M0 (${commentText(step.text)})` : words.height(step.zMm)];
        break;
      case "trace":
        yield step.points.map((p) => `G0 ${words.xy(onMachine(p, spec.placement))}`);
        break;
      case "move by hand":
      case "apply setting":
        yield [`M0 (${commentText(step.text)})`];
        break;
      case "tell":
        yield [`(${commentText(step.text)})`];
        break;
    }
  }
  yield [words.off, ...dialect.end, "M2"];
}

/** Units, plane, absolute places, feed a minute; the beam is off. */
function begin(words: Words, { unit }: GcodeDialect): string[] {
  return [`${UNIT_CODE[unit]} G17 G90 G94`, words.off];
}

function* group(settings: MarkingSettings, strokes: Iterable<Stroke>, words: Words): Generator<string[]> {
  let begun = false;
  for (const stroke of strokes) {
    if (!begun)
      yield [
        `(${commentText(settings.label)}: ${plain(settings.speedMmPerS)} mm/s, ${plain(settings.powerPct)} percent)`,
        words.arm(settings.speedMmPerS),
      ];
    begun = true;
    if (settings.use === "rows") yield row(stroke, words);
    else yield* outline(stroke, words);
  }
}

/** At one feed from the beginning of the run-up to the end of the run-out; the beam only along the row. */
function row(stroke: Stroke, words: Words): string[] {
  const { settings, points } = stroke;
  const [first, second] = [words.place(points[0]), words.place(points[1])];
  const [last, before] = [words.place(points.at(-1)), words.place(points.at(-2))];
  const lines = [
    `G0 ${words.xy(beyond(second, first, settings.runUpMm))}`,
    `G1 ${words.xy(first)}${words.dark}`,
    ...words.switchOn(settings.powerPct),
  ];
  for (let i = 1; i < points.length; i++)
    lines.push(`G1 ${words.xy(words.place(points[i]))}${words.lit(settings.powerPct)}`);
  lines.push(...words.switchOff(), `G1 ${words.xy(beyond(before, last, settings.runUpMm))}${words.dark}`);
  return lines;
}

/** In pieces, because one outline can be as long as the file. */
function* outline(stroke: Stroke, words: Words): Generator<string[]> {
  const { settings } = stroke;
  let lines: string[] = [];
  let first = true;
  for (const p of pointsOf(stroke)) {
    if (first) {
      lines.push(`G0 ${words.xy(words.place(p))}`);
      if (settings.scan) {
        const ways = settings.scan.direction === "both" ? BOTH_WAYS : ONE_WAY;
        lines.push(`M${SCAN_BEGIN} P${words.length(settings.scan.rowPitchMm)} Q${ways}`);
      }
      lines.push(...words.switchOn(settings.powerPct));
    } else lines.push(`G1 ${words.xy(words.place(p))}${words.lit(settings.powerPct)}`);
    first = false;
    if (lines.length < CHUNK_LINES) continue;
    yield lines;
    lines = [];
  }
  if (settings.scan) lines.push(`M${SCAN_END}`);
  yield [...lines, words.end];
}

/** The words of one machine: numbers in its unit, power and beam as it takes them. */
class Words {
  private readonly decimals: number;
  private readonly perMm: number;
  private readonly onMoves: boolean;
  private lastPct = Number.NaN;
  private lastPower = "";
  private lastY = Number.NaN;
  private lastYText = "";

  constructor(
    private readonly dialect: GcodeDialect,
    private readonly spec: RoundSpec,
    private readonly bed?: Bed,
  ) {
    this.decimals = DECIMALS_BY_UNIT[dialect.unit];
    this.perMm = dialect.unit === "in" ? 1 / MM_PER_INCH : 1;
    this.onMoves = dialect.powerWith === "moves";
  }

  /** Beam off, and where moves carry the power, none of it. */
  get off(): string {
    return this.onMoves ? `${this.dialect.beamOff} ${this.dialect.powerLetter}0` : this.dialect.beamOff;
  }

  /** After a stroke. */
  get end(): string {
    return this.onMoves ? `${this.dialect.powerLetter}0` : this.dialect.beamOff;
  }

  /** On a move without the beam. */
  get dark(): string {
    return this.onMoves ? ` ${this.dialect.powerLetter}0` : "";
  }

  /** On a move with the beam. */
  lit(powerPct: number): string {
    return this.onMoves ? ` ${this.power(powerPct)}` : "";
  }

  arm(speedMmPerS: number): string {
    const feed = `F${fixed(speedMmPerS * SECONDS_PER_MINUTE * this.perMm, this.decimals)}`;
    return this.onMoves ? `${this.dialect.beamOn} ${this.dialect.powerLetter}0 ${feed}` : feed;
  }

  switchOn(powerPct: number): string[] {
    return this.onMoves ? [] : [`${this.dialect.beamOn} ${this.power(powerPct)}`];
  }

  switchOff(): string[] {
    return this.onMoves ? [] : [this.dialect.beamOff];
  }

  power(powerPct: number): string {
    if (powerPct !== this.lastPct) {
      this.lastPct = powerPct;
      this.lastPower = `${this.dialect.powerLetter}${fixed((powerPct / 100) * this.dialect.powerAtFull, 4)}`;
    }
    return this.lastPower;
  }

  place(p: Stroke["points"][number] | undefined): MachinePoint {
    if (!p) throw new RangeError("points: a stroke needs two");
    return onMachine(p, this.spec.placement);
  }

  /** Slowly: whichever way it counts, it may be towards the work. */
  height(zMm: number): string {
    const feed = fixed(HEIGHT_MM_PER_S * SECONDS_PER_MINUTE * this.perMm, this.decimals);
    return `G1 Z${this.length(zMm)} F${feed}${this.dark}`;
  }

  xy(p: MachinePoint): string {
    const { x, y } = this.bed ? counted(p, this.bed) : p;
    // Rows are level: most places have the Y of the one before.
    if (y !== this.lastY) {
      this.lastY = y;
      this.lastYText = this.length(y);
    }
    return `X${this.length(x)} Y${this.lastYText}`;
  }

  length(mm: number): string {
    return fixed(mm * this.perMm, this.decimals);
  }
}

/** The point `distance` further on, on the way from `from` through `through`. */
function beyond(from: MachinePoint, through: MachinePoint, distance: number): MachinePoint {
  const length = Math.hypot(through.x - from.x, through.y - from.y);
  const share = length > 0 ? distance / length : 0;
  return { x: through.x + (through.x - from.x) * share, y: through.y + (through.y - from.y) * share };
}

/** Fixed digits without trailing zeros and without a negative zero. */
function fixed(value: number, decimals: number): string {
  const perUnit = 10 ** decimals;
  const steps = Math.round(Math.abs(value) * perUnit);
  // So large a number has no digits behind its point that a double can hold.
  if (steps > Number.MAX_SAFE_INTEGER) return String(value);
  const whole = Math.floor(steps / perUnit);
  const rest = steps - whole * perUnit;
  const sign = value < 0 && steps > 0 ? "-" : "";
  return rest === 0 ? `${sign}${whole}` : `${sign}${whole}.${withoutZeros(rest, decimals)}`;
}

/** What is behind the point. @param rest in units of the last decimal */
function withoutZeros(rest: number, decimals: number): string {
  let [digits, length] = [rest, decimals];
  while (digits % 10 === 0) [digits, length] = [digits / 10, length - 1];
  return String(digits).padStart(length, "0");
}
