/** A round as RS-274 G-code: it walks the program and burns every path at its settings, with run-ups for rows. */
import { type CouponPath, type MarkingSettings, type Piece, settingsOf } from "../core/coupon/piece";
import type { RoundSpec } from "../core/coupon/round-spec";
import { type MachinePoint, onMachine } from "../core/geometry/frames";
import { plain } from "../core/metrology/quantity-text";
import { BOTH_WAYS, couponComment, ONE_WAY, SCAN_BEGIN, SCAN_END, SECONDS_PER_MINUTE } from "./gcode-words";

export type GcodeOptions = {
  couponCode: string;
  machineName: string;
  /** S word of full power. */
  powerWordAtFull: number;
};

const DECIMALS = 4;

/** The lines of the file, one by one. */
export function* gcodeLines(spec: RoundSpec, options: GcodeOptions): Generator<string> {
  yield `(${couponComment(options.couponCode)})`;
  yield `(machine ${comment(options.machineName)}; ${comment(spec.delivery)})`;
  yield "(mm, mm/min, power word S)";
  yield "G21 G90 G94";
  yield "M5 S0";
  for (const op of spec.program) {
    switch (op.kind) {
      case "mark":
        yield* marks(spec, pieceById(spec, op.piece), op.settings, options);
        break;
      case "pulse": {
        const at = onMachine(op.at, spec.placement);
        yield `G0 ${xy(at)}`;
        yield `M3 S${powerWord(op.powerPct, options)}`;
        yield `G4 P${number(op.durationS)}`;
        yield "M5 S0";
        break;
      }
      case "set height":
        yield `G0 Z${number(op.zMm)}`;
        break;
      case "trace":
        for (const p of op.points) yield `G0 ${xy(onMachine(p, spec.placement))}`;
        break;
      case "move by hand":
      case "apply setting":
        yield `M0 (${comment(op.text)})`;
        break;
      case "tell":
        yield `(${comment(op.text)})`;
        break;
    }
  }
  yield "M5 S0";
  yield "M2";
}

/** The whole file. */
export function gcodeOf(spec: RoundSpec, options: GcodeOptions): string {
  return `${[...gcodeLines(spec, options)].join("\n")}\n`;
}

function* marks(spec: RoundSpec, piece: Piece, settingsId: string, options: GcodeOptions): Generator<string> {
  const settings = settingsOf(piece, settingsId);
  const paths = piece.paths.filter((p) => p.settings === settingsId);
  if (paths.length === 0) return;
  yield `(${comment(settings.label)}: ${plain(settings.speedMmPerS)} mm/s, ${plain(settings.powerPct)} %)`;
  yield `M3 S0 F${number(settings.speedMmPerS * SECONDS_PER_MINUTE)}`;
  for (const path of paths) yield* burn(path, settings, spec, options);
}

function* burn(path: CouponPath, settings: MarkingSettings, spec: RoundSpec, options: GcodeOptions): Generator<string> {
  const points = path.points.map((p) => onMachine(p, spec.placement));
  const first = points[0] as MachinePoint;
  const last = points[points.length - 1] as MachinePoint;
  const power = powerWord(settings.powerPct, options);
  if (settings.use === "rows") {
    yield `G0 ${xy(beyond(last, first, settings.runUpMm))}`;
    yield `G1 ${xy(first)} S0`;
    yield* points.slice(1).map((p) => `G1 ${xy(p)} S${power}`);
    yield `G1 ${xy(beyond(first, last, settings.runUpMm))} S0`;
    return;
  }
  yield `G0 ${xy(first)}`;
  if (settings.scan) {
    const ways = settings.scan.direction === "both" ? BOTH_WAYS : ONE_WAY;
    yield `M${SCAN_BEGIN} P${number(settings.scan.rowPitchMm)} Q${ways}`;
  }
  const rest = path.closed ? [...points.slice(1), first] : points.slice(1);
  yield* rest.map((p) => `G1 ${xy(p)} S${power}`);
  if (settings.scan) yield `M${SCAN_END}`;
  yield "S0";
}

/** The point `distance` further on, on the way from `from` through `through`. */
function beyond(from: MachinePoint, through: MachinePoint, distance: number): MachinePoint {
  const length = Math.hypot(through.x - from.x, through.y - from.y);
  const share = length > 0 ? distance / length : 0;
  return {
    x: through.x + (through.x - from.x) * share,
    y: through.y + (through.y - from.y) * share,
  };
}

function pieceById(spec: RoundSpec, id: string): Piece {
  const piece = spec.pieces.find((p) => p.id === id);
  if (!piece) throw new RangeError(`program: there is no piece “${id}”`);
  return piece;
}

function powerWord(powerPct: number, options: GcodeOptions): string {
  return number((powerPct / 100) * options.powerWordAtFull);
}

function xy(p: MachinePoint): string {
  return `X${number(p.x)} Y${number(p.y)}`;
}

function number(value: number): string {
  return plain(value, DECIMALS).replace("−", "-");
}

function comment(text: string): string {
  return text.replace(/[()\n\r]/g, " ");
}
