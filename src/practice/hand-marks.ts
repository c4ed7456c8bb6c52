/**
 * What is marked without a file: single pulses given by hand (the head is moved by its keys to about a place, its readout is noted, and a dot is
 * burned), and lines traced by the aiming dot and drawn over.
 */
import type { RoundSpec } from "../core/coupon/round-spec";
import { onMachine } from "../core/geometry/frames";
import { type Mark, trulyAt } from "./gantry";
import type { GantryTruth } from "./gantry-truth";
import { seeded, seedOf } from "./random";

/** A hand stops within so much of a place, at a readout of so many mm. (common practice, no source) */
const [OFF_MM, STEP_MM] = [3, 0.1];
/** Width of a sharp pencil's line, mm. (common practice, no source) */
const PENCIL_MM = 0.3;

/** In the order of the program. */
export function marksByHand(spec: Pick<RoundSpec, "program" | "placement">, truth: GantryTruth): Mark[] {
  return [...pulsesByHand(spec, truth), ...traced(spec, truth)];
}

function traced(spec: Pick<RoundSpec, "program" | "placement">, truth: GantryTruth): Mark[] {
  return spec.program.flatMap((op) => {
    if (op.kind !== "trace") return [];
    const sent = op.points.map((p) => onMachine(p, spec.placement));
    return sent.slice(1).map((to, i): Mark => {
      const from = sent[i] ?? to;
      const [a, b] = [trulyAt(from, truth), trulyAt(to, truth)];
      const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
      return { x0: a.x, y0: a.y, x1: b.x, y1: b.y, sent: middle, widthMm: PENCIL_MM, speedMmPerS: 0, line: 0 };
    });
  });
}

/** A dot a pulse; each place is come to from the one before. */
function pulsesByHand(spec: Pick<RoundSpec, "program" | "placement">, truth: GantryTruth): Mark[] {
  const random = seeded(seedOf(truth.seed, "by hand", spec.program.length));
  const stop = (mm: number) => Math.round((mm + random.between(-OFF_MM, OFF_MM)) / STEP_MM) * STEP_MM;
  let before = { x: 0, y: 0 };
  return spec.program.flatMap((op): Mark[] => {
    if (op.kind !== "pulse") return [];
    const wanted = onMachine(op.at, spec.placement);
    const sent = { x: Math.max(0, stop(wanted.x)), y: Math.max(0, stop(wanted.y)) };
    const lost = {
      x: (-Math.sign(sent.x - before.x) * truth.playMm) / 2,
      y: (-Math.sign(sent.y - before.y) * (truth.axes?.playYMm ?? 0)) / 2,
    };
    before = sent;
    const { x, y } = trulyAt({ x: sent.x + lost.x, y: sent.y + lost.y }, truth);
    return [{ x0: x, y0: y, x1: x, y1: y, sent, widthMm: truth.spotMm, speedMmPerS: 0, line: 0 }];
  });
}
