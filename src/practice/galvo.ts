/**
 * A practice galvo: it reads a drawing whose groups carry their marking settings, and leaves marks.
 *
 * Groups are marked one by one as a person has them marked, with the height set by hand between them. Mirrors are taken to follow at
 * once: nothing here knows of delays or of a field that is not flat, except for its size.
 */
import type { Op } from "../core/coupon/program";
import type { Placement } from "../core/geometry/frames";
import type { SvgCoupon } from "../formats/svg-parser";
import type { GalvoTruth } from "./galvo-truth";
import type { Mark } from "./gantry";
import { HeadHeight } from "./head-height";
import { onSlant, type Prop, propped, riseAt, shortPieces } from "./prop";

/** A mark that is at one height from end to end. */
const WHOLE: [number, number][] = [[0, 1]];

export type GalvoField = { widthMm: number; depthMm: number; topSpeedMmPerS: number };
export type GalvoBurn = { ok: true; marks: Mark[] } | { ok: false; message: string };

/**
 * @param drawing as exported, perhaps edited
 * @param program what is marked in which order, and which heights are set between
 * @param placement of the lower left corner of the stock in the field
 */
export function burnOnGalvo(
  drawing: SvgCoupon,
  program: readonly Op[],
  placement: Placement,
  truth: GalvoTruth,
  field: GalvoField,
): GalvoBurn {
  const height = new HeadHeight(truth.focus, truth.seed);
  let prop: Prop | null = null;
  const marks: Mark[] = [];
  for (const op of program) {
    if (op.kind === "set height") height.set(op.zMm, op.by);
    if (op.kind === "prop") prop = propped(op, placement.xMm, truth.seed);
    if (op.kind !== "mark") continue;
    const settings = drawing.settings.find((s) => s.id === op.settings);
    if (!settings) return { ok: false, message: `This drawing has no group “${op.settings}”. Download it again.` };
    if (settings.speedMmPerS > field.topSpeedMmPerS * 1.0001)
      return {
        ok: false,
        message: `Group “${settings.id}”: ${settings.speedMmPerS} mm/s is faster than the machine goes (${field.topSpeedMmPerS} mm/s).`,
      };
    for (const path of drawing.paths.filter((p) => p.settings === settings.id)) {
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
        const pieces = prop ? shortPieces(Math.hypot(b.x - a.x, b.y - a.y)) : WHOLE;
        for (const [from, to] of pieces) {
          const at = (share: number) => ({ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) });
          const [p, q, middle] = [at(from), at(to), at((from + to) / 2)];
          const left = height.line({
            powerShare: settings.powerPct / 100,
            speedMmPerS: settings.speedMmPerS,
            along,
            middle,
            ...(settings.pulseKHz === undefined ? {} : { pulseHz: settings.pulseKHz * 1000 }),
            ...(prop ? { riseMm: riseAt(prop, middle.x) } : {}),
          });
          if (left?.widthMm === 0) continue;
          const x = (there: number) => (prop ? onSlant(prop, there) : there) * truth.scaleX;
          marks.push({
            sent: middle,
            x0: x(p.x),
            y0: p.y * truth.scaleY,
            x1: x(q.x),
            y1: q.y * truth.scaleY,
            widthMm: left?.widthMm ?? 2 * truth.focus.beam.waistMm,
            speedMmPerS: settings.speedMmPerS,
            line: 0,
            ...(left ? { narrowness: left.narrowness } : {}),
          });
        }
      }
    }
  }
  return { ok: true, marks };
}
