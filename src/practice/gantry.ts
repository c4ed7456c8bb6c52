/**
 * A practice gantry: it runs G-code and leaves marks.
 *
 * The motor moves the head through a drive with lost motion. The controller switches the beam when the motor passes a
 * place; the beam follows late. Nothing here knows what a scan offset is worth: marks come out of the motion in time.
 */
import type { MachinePoint, Placement } from "../core/geometry/frames";
import type { GcodeProgram, GcodeStep } from "../formats/gcode-parser";
import { strayAt } from "./axes-truth";
import type { Cutter } from "./cut-width";
import { bendAt, focusOf, type GantryTruth, type PracticeController, rowShiftAt } from "./gantry-truth";
import { HeadHeight } from "./head-height";
import { straightMove } from "./motion";
import { onSlant, type Prop, riseAt, shortPieces } from "./prop";
import { type Random, seeded, seedOf } from "./random";

export type Mark = {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Width of the burned line, mm. */
  widthMm: number;
  speedMmPerS: number;
  line: number;
  /** Of full power; left out where it was marked by hand. */
  powerShare?: number;
  /** Pulses of it, where they are set. */
  pulses?: { kHz: number; ns: number | null };
  /** Grey level in a picture; left out: as the picture has marks. */
  shade?: number;
  /** How narrow the beam was, 1 in focus; left out where no height was set. */
  narrowness?: number;
  /** It went through the stock; left out where it did not. */
  cutThrough?: true;
  /** Where its middle was sent, machine; left out where nothing was sent. */
  sent?: { x: number; y: number };
  /** Where its middle lies on the drawing of the coupon, by whose words it is found on the stock; left out where it is found by its place. */
  drawn?: { x: number; y: number };
};

export type Bed = {
  widthMm: number;
  depthMm: number;
  topSpeedMmPerS: number;
  /** The power word of full power. */
  powerAtFull: number;
};

export type Burn = { ok: true; marks: Mark[] } | { ok: false; line: number; message: string };

/** What is done by hand, and what lies on the bed. */
export type Besides = {
  /** Heights, by the words of the pause that tells them. */
  heights?: ReadonlyMap<string, number>;
  /** Heights above focus, by the words of the pause that asks for them. */
  aboveFocus?: ReadonlyMap<string, number>;
  /** How the stock is propped, if it is. */
  prop?: Prop | null;
  /** How it is cut, if it is. */
  cutter?: Cutter | null;
};

/** A mark that is at one height from end to end. */
const WHOLE: [number, number][] = [[0, 1]];

type Move = Extract<GcodeStep, { kind: "move" }>;
/** Where along a motion the beam is on, and with which power word. */
type Span = { on: number; off: number; line: number; power: number };
type Area = Extract<GcodeStep, { kind: "scan begin" }> & { outline: Move[] };

/**
 * Burns a program. Refuses what would leave the bed or is faster than the machine goes, with the line.
 *
 * @param besides what is done by hand
 */
export function burnOnGantry(
  program: GcodeProgram,
  truth: GantryTruth,
  controller: PracticeController,
  bed: Bed,
  besides: Besides = {},
): Burn {
  const gantry = new Gantry(truth, controller, bed, besides);
  let area: Area | null = null;
  let chain: Move[] = [];
  const flush = () => {
    if (chain.length > 0) gantry.run(chain);
    chain = [];
  };
  for (const step of program.steps) {
    const fault = step.kind === "move" ? faultOf(step, bed) : null;
    if (fault) return { ok: false, line: step.line, message: fault };
    if (step.kind === "scan begin") {
      flush();
      area = { ...step, outline: [] };
    } else if (step.kind === "scan end") {
      if (area) gantry.scan(area);
      area = null;
    } else if (step.kind === "move" && area) {
      area.outline.push(step);
    } else if (step.kind === "move" && !step.rapid && !isInPlace(step)) {
      if (!continues(chain.at(-1), step)) flush();
      chain.push(step);
    } else {
      flush();
      if (step.kind === "move") gantry.jump(step);
      const height = step.kind === "pause" ? besides.heights?.get(step.text) : undefined;
      if (height !== undefined) gantry.height.set(height, "hand");
      const above = step.kind === "pause" ? besides.aboveFocus?.get(step.text) : undefined;
      if (above !== undefined) gantry.height.setAboveFocus(above);
    }
  }
  flush();
  return { ok: true, marks: gantry.marks };
}

/** Where a head that is sent to a place truly stands: how long its millimetres are, how its axes stray and lean, and where its home is. */
export function trulyAt(sent: MachinePoint, { scaleX, scaleY, axes }: Pick<GantryTruth, "scaleX" | "scaleY" | "axes">) {
  if (!axes) return { x: sent.x * scaleX, y: sent.y * scaleY };
  const alongX = (sent.x + strayAt(axes.x, sent.x)) * scaleX;
  const alongY = (sent.y + strayAt(axes.y, sent.y)) * scaleY;
  return {
    x: alongX + alongY * Math.sin(axes.leanRad) + axes.x.homeMm,
    y: alongY * Math.cos(axes.leanRad) + axes.y.homeMm,
  };
}

/** Where the corner of the stock truly lies: the technician puts it where the machine points. */
export function trueCorner(
  placement: Placement,
  truth: { scaleX: number; scaleY: number; axes?: GantryTruth["axes"] },
): Placement {
  const { x, y } = trulyAt({ x: placement.xMm, y: placement.yMm }, truth);
  return { xMm: x, yMm: y };
}

function faultOf(move: Move, bed: Bed): string | null {
  const { x, y } = move.to;
  if (x < 0 || y < 0 || x > bed.widthMm || y > bed.depthMm)
    return `X${x.toFixed(1)} Y${y.toFixed(1)} lies outside the working area of ${bed.widthMm} × ${bed.depthMm} mm.`;
  if (!move.rapid && move.feedMmPerS > bed.topSpeedMmPerS * 1.0001)
    return `${move.feedMmPerS.toFixed(0)} mm/s is faster than the machine goes (${bed.topSpeedMmPerS} mm/s).`;
  return null;
}

/** Only the height changes, if anything. */
function isInPlace({ from, to }: Move): boolean {
  return from.x === to.x && from.y === to.y;
}

/** Moves that go straight on at one feed are one motion: the head does not stop between them. */
function continues(before: Move | undefined, move: Move): boolean {
  if (!before || before.feedMmPerS !== move.feedMmPerS) return false;
  const [ax, ay] = [before.to.x - before.from.x, before.to.y - before.from.y];
  const [bx, by] = [move.to.x - move.from.x, move.to.y - move.from.y];
  const size = Math.hypot(ax, ay) * Math.hypot(bx, by);
  return size > 0 && (ax * bx + ay * by) / size > 1 - 1e-12;
}

class Gantry {
  readonly marks: Mark[] = [];
  readonly height: HeadHeight;
  private readonly random: Random;
  private readonly prop: Prop | null;
  private readonly cutter: Cutter | null;
  /** Head minus motor, within half the play either way. */
  private slack = { x: 0, y: 0 };

  constructor(
    private readonly truth: GantryTruth,
    private readonly controller: PracticeController,
    private readonly bed: Bed,
    { prop = null, cutter = null }: Besides,
  ) {
    this.prop = prop;
    this.cutter = cutter;
    this.random = seeded(seedOf(truth.seed, "row ends"));
    this.height = new HeadHeight(focusOf(truth), truth.seed);
  }

  jump(move: Move): void {
    if (move.to.z !== move.from.z) this.height.set(move.to.z, "motor");
    this.drag(move.to.x - move.from.x, move.to.y - move.from.y);
  }

  /** One straight motion, whose parts have the beam on or off. */
  run(chain: readonly Move[]): void {
    const first = chain[0] as Move;
    const last = chain[chain.length - 1] as Move;
    const length = Math.hypot(last.to.x - first.from.x, last.to.y - first.from.y);
    if (length === 0) return;
    const ux = (last.to.x - first.from.x) / length;
    const uy = (last.to.y - first.from.y) / length;
    const spans: Span[] = [];
    let passed = 0;
    for (const move of chain) {
      const end = passed + Math.hypot(move.to.x - move.from.x, move.to.y - move.from.y);
      const open = spans.at(-1);
      if (move.power > 0 && open && open.off === passed && open.power === move.power) open.off = end;
      else if (move.power > 0) spans.push({ on: passed, off: end, line: move.line, power: move.power });
      passed = end;
    }
    this.expose(first.from, ux, uy, length, first.feedMmPerS, spans);
  }

  /** An area filled by the controller: rows from the bottom up, with a run-up as long as the bed leaves. */
  scan(area: Area): void {
    const outline = area.outline;
    const first = outline[0];
    if (!first) return;
    const speed = first.feedMmPerS;
    // The rows have the power of the outline. Without power the head moves and marks nothing.
    const power = Math.max(...outline.map((m) => m.power));
    const ys = outline.map((m) => m.to.y);
    const top = Math.max(...ys);
    const wanted = (1.2 * speed ** 2) / (2 * this.truth.accelerationMmPerS2) + 1;
    const aside = rowShiftAt(this.truth, this.controller, speed);
    const earlier = this.truth.controller.sense * this.tableAt(speed);
    let leftGoing = false;
    for (let y = Math.min(...ys) + area.rowPitchMm / 2; y < top - 1e-9; y += area.rowPitchMm) {
      const ends = crossings(outline, y);
      const [x0, x1] = [ends[0], ends[ends.length - 1]];
      if (x0 === undefined || x1 === undefined || x1 <= x0) continue;
      const before = Math.min(wanted, x0);
      const after = Math.min(wanted, this.bed.widthMm - x1);
      const [lead, start, way] = leftGoing ? [after, x1 + after, -1] : [before, x0 - before, 1];
      const length = x1 - x0 + before + after;
      this.drag(-way, 0);
      this.expose({ x: start + aside, y }, way, 0, length, speed, [
        ...(power > 0 ? [{ on: lead - earlier, off: lead + (x1 - x0) - earlier, line: first.line, power }] : []),
      ]);
      if (area.direction === "both") leftGoing = !leftGoing;
    }
  }

  private expose(
    from: { x: number; y: number },
    ux: number,
    uy: number,
    length: number,
    speed: number,
    spans: readonly Span[],
  ): void {
    const motion = straightMove(length, speed, this.truth.accelerationMmPerS2);
    this.drag(ux * length, uy * length);
    for (const span of spans) {
      const late = bendAt(this.truth, speed);
      const on = motion.place(motion.time(span.on) + this.truth.lagOnS) + late + this.jitter();
      const off = motion.place(motion.time(span.off) + this.truth.lagOffS) + late + this.jitter();
      const pieces = this.prop ? shortPieces(Math.abs(off - on)) : WHOLE;
      for (const [a, b] of pieces)
        this.leave(from, [ux, uy], [on + a * (off - on), on + b * (off - on)], (a + b) / 2, span, speed);
    }
  }

  /** One mark, as far as it is at one height. */
  private leave(
    from: { x: number; y: number },
    [ux, uy]: [number, number],
    [on, off]: [number, number],
    share: number,
    span: Span,
    speed: number,
  ): void {
    const sent = span.on + share * (span.off - span.on);
    const middle = { x: from.x + ux * sent, y: from.y + uy * sent };
    const along = Math.abs(ux) >= Math.abs(uy) ? "x" : "y";
    const left = this.height.line({
      powerShare: span.power / this.bed.powerAtFull,
      speedMmPerS: speed,
      middle,
      along,
      ...(this.prop ? { riseMm: riseAt(this.prop, middle.x) } : {}),
    });
    if (left?.widthMm === 0) return;
    const cut = this.cutter?.width(span.power / this.bed.powerAtFull, speed, along) ?? 0;
    const place = (way: number) => {
      const there = from.x + ux * way + this.slack.x;
      const x = this.prop ? onSlant(this.prop, there) : there;
      return trulyAt({ x, y: from.y + uy * way + this.slack.y }, this.truth);
    };
    const [begin, end] = [place(on), place(off)];
    this.marks.push({
      x0: begin.x,
      y0: begin.y,
      x1: end.x,
      y1: end.y,
      sent: middle,
      widthMm: left?.widthMm ?? (cut > 0 ? cut : this.truth.spotMm),
      speedMmPerS: speed,
      line: span.line,
      powerShare: span.power / this.bed.powerAtFull,
      ...(cut > 0 ? { cutThrough: true as const } : {}),
      ...(left ? { narrowness: left.narrowness } : {}),
    });
  }

  /** Lost motion: the head stays behind until the play is used up, then trails by half of it. */
  private drag(dx: number, dy: number): void {
    const within = (half: number, slack: number) => Math.max(-half, Math.min(half, slack));
    this.slack = {
      x: within(this.truth.playMm / 2, this.slack.x - dx),
      y: within((this.truth.axes?.playYMm ?? 0) / 2, this.slack.y - dy),
    };
  }

  private jitter(): number {
    return this.truth.endJitterMm > 0 ? this.truth.endJitterMm * this.random.normal() : 0;
  }

  private tableAt(speed: number): number {
    const { table, switchedOn } = this.controller;
    if (!switchedOn || table.length === 0) return 0;
    const sorted = [...table].sort((a, b) => a.at - b.at);
    const hit = sorted.find((row) => Math.abs(row.at - speed) < 0.5);
    if (hit) return hit.value;
    if (this.truth.controller.tableKind === "exact speed only") return 0;
    const next = sorted.findIndex((row) => row.at > speed);
    if (next === 0) return sorted[0]?.value ?? 0;
    if (next < 0) return sorted.at(-1)?.value ?? 0;
    const [a, b] = [sorted[next - 1], sorted[next]];
    if (!a || !b) return 0;
    return a.value + ((b.value - a.value) * (speed - a.at)) / (b.at - a.at);
  }
}

/** X of an outline at height y, rising. */
function crossings(outline: readonly Move[], y: number): number[] {
  return outline
    .flatMap(({ from, to }) => {
      if (from.y === to.y || y < Math.min(from.y, to.y) || y >= Math.max(from.y, to.y)) return [];
      return [from.x + ((to.x - from.x) * (y - from.y)) / (to.y - from.y)];
    })
    .sort((a, b) => a - b);
}
