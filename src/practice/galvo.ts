/**
 * A practice galvo: it reads a drawing whose groups carry their marking settings, and leaves marks.
 *
 * Groups are marked one by one as a person has them marked, with the height set by hand between them. A head puts each place where its
 * mirrors and its lens send it. Mirrors are taken to follow at once: nothing here knows of delays.
 */
import type { Op } from "../core/coupon/program";
import { asBurned } from "../core/coupon/strokes";
import type { Placement } from "../core/geometry/frames";
import type { SvgCoupon } from "../formats/svg-parser";
import type { GalvoHead } from "./galvo-head";
import type { GalvoTruth } from "./galvo-truth";
import type { Mark } from "./gantry";
import { HeadHeight } from "./head-height";
import { onSlant, type Prop, propped, riseAt, shortPieces } from "./prop";

/** A mark that is at one height from end to end. */
const WHOLE: [number, number][] = [[0, 1]];
/** A line is marked in pieces of this length by a head that bends it, mm. */
const STEP_MM = 2;

export type GalvoField = { widthMm: number; depthMm: number; topSpeedMmPerS: number };
export type GalvoBurn = { ok: true; marks: Mark[] } | { ok: false; message: string };

/**
 * @param drawing as exported, perhaps edited
 * @param program what is marked in which order, and which heights are set between
 * @param placement of the lower left corner of the stock in the field
 * @param head with what its controller holds now; left out: a field that is right but for its size
 */
export function burnOnGalvo(
  drawing: SvgCoupon,
  program: readonly Op[],
  placement: Placement,
  truth: GalvoTruth,
  field: GalvoField,
  head?: GalvoHead,
): GalvoBurn {
  const height = new HeadHeight(truth.focus, truth.seed);
  let prop: Prop | null = null;
  const marks: Mark[] = [];
  for (const op of program) {
    if (op.kind === "set height") height.set(op.zMm, op.by);
    if (op.kind === "move by hand" && op.aboveFocusMm !== undefined) height.setAboveFocus(op.aboveFocusMm);
    if (op.kind === "prop") prop = propped(op, placement.xMm, truth.seed);
    if (op.kind !== "mark") continue;
    const settings = drawing.settings.find((s) => s.id === op.settings);
    if (!settings) return { ok: false, message: `This drawing has no group “${op.settings}”. Download it again.` };
    if (settings.speedMmPerS > field.topSpeedMmPerS * 1.0001)
      return {
        ok: false,
        message: `Group “${settings.id}”: ${settings.speedMmPerS} mm/s is faster than the machine goes (${field.topSpeedMmPerS} mm/s).`,
      };
    const strokes = drawing.paths.flatMap((p) => (p.settings === settings.id ? [{ ...p, settings }] : []));
    for (const path of asBurned(strokes)) {
      const ends = path.closed ? [...path.points, ...path.points.slice(0, 1)] : path.points;
      const places = ends.map((p) => ({ x: p.x + placement.xMm, y: p.y + placement.yMm }));
      const out = places.find((p) => p.x < 0 || p.y < 0 || p.x > field.widthMm || p.y > field.depthMm);
      if (out)
        return {
          ok: false,
          message: `Group “${settings.id}” reaches X ${out.x.toFixed(1)}, Y ${out.y.toFixed(1)} mm, outside the field of ${field.widthMm} × ${field.depthMm} mm.`,
        };
      for (let i = 1; i < places.length; i++) {
        const [a, b] = [places[i - 1] as (typeof places)[number], places[i] as (typeof places)[number]];
        const along = Math.abs(b.x - a.x) >= Math.abs(b.y - a.y) ? "x" : "y";
        const long = Math.hypot(b.x - a.x, b.y - a.y);
        const pieces = prop ? shortPieces(long) : head ? steps(long) : WHOLE;
        for (const [begin, end] of pieces) {
          const at = (share: number) => ({ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) });
          const [p, q, middle] = [at(begin), at(end), at((begin + end) / 2)];
          const left = height.line({
            powerShare: settings.powerPct / 100,
            speedMmPerS: settings.speedMmPerS,
            along,
            middle,
            ...(settings.pulseKHz === undefined ? {} : { pulseHz: settings.pulseKHz * 1000 }),
            ...(prop ? { riseMm: riseAt(prop, middle.x) } : {}),
          });
          if (left?.widthMm === 0) continue;
          const put = (there: typeof p) => {
            const x = prop ? onSlant(prop, there.x) : there.x;
            return head
              ? fromCorner(head.marked(fromMiddle({ x, y: there.y }, field), height.nearerMm), field)
              : { x: x * truth.scaleX, y: there.y * truth.scaleY };
          };
          const [from, to] = [put(p), put(q)];
          marks.push({
            sent: middle,
            ...(head ? { drawn: { x: middle.x - placement.xMm, y: middle.y - placement.yMm } } : {}),
            x0: from.x,
            y0: from.y,
            x1: to.x,
            y1: to.y,
            widthMm: left?.widthMm ?? 2 * truth.focus.beam.waistMm,
            speedMmPerS: settings.speedMmPerS,
            line: 0,
            powerShare: settings.powerPct / 100,
            ...(settings.pulseKHz === undefined
              ? {}
              : { pulses: { kHz: settings.pulseKHz, ns: settings.pulseNs ?? null } }),
            ...(left ? { narrowness: left.narrowness } : {}),
          });
        }
      }
    }
  }
  return { ok: true, marks };
}

/** Shares of a line between which it is straight. */
function steps(longMm: number): [number, number][] {
  const count = Math.max(1, Math.ceil(longMm / STEP_MM));
  return Array.from({ length: count }, (_, i) => [i / count, (i + 1) / count]);
}

function fromMiddle({ x, y }: { x: number; y: number }, { widthMm, depthMm }: GalvoField) {
  return { x: x - widthMm / 2, y: y - depthMm / 2 };
}

function fromCorner({ x, y }: { x: number; y: number }, { widthMm, depthMm }: GalvoField) {
  return { x: x + widthMm / 2, y: y + depthMm / 2 };
}
