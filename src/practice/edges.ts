/** A stock that lies against stops on a practice bed, a little turned, and how far marks lie from its edges. */
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { AxesTruth } from "./axes-truth";
import type { Mark } from "./gantry";
import { marksOf } from "./measure-places";
import { seeded, seedOf } from "./random";
import type { Seen } from "./seen";

type EdgeMeasurand = Extract<Measurand, { kind: "edge distance" }>;
type Vector = { x: number; y: number };

/** A stock pushed against its stops by hand lies turned by this, sd, rad: half a millimetre in 300. (invented) */
const TURNED_RAD = 0.0017;

/** An eye takes the middle of a line so far beside it, sd, mm: the same at both ends of one line. (invented) */
const MIDDLE_MM = 0.03;

/**
 * @param size of the working area, on whose sides the bed has its stops
 * @param placement where the stock was said to lie: marks are known by where they were sent
 * @param seed of the machine; each burn lies anew
 */
export function edgeSeen(
  measurand: EdgeMeasurand,
  marks: readonly Mark[],
  { axes, seed }: { axes?: AxesTruth; seed: number },
  size: { widthMm: number; depthMm: number },
  placement: Placement,
): Seen {
  // Two arms of a cross have one middle: the line along this edge is meant.
  const isUpright = measurand.side === "left" || measurand.side === "right";
  const mark = marksOf(measurand.of, marks, placement).find(
    (m) => Math.abs(m.y1 - m.y0) > Math.abs(m.x1 - m.x0) === isUpright,
  );
  if (!mark) return { ok: false, why: "There are no such marks on the practice piece." };
  // All that is read of one burn is read of a piece that lay one way.
  const turn = TURNED_RAD * seeded(seedOf(seed, "laid", marks.length, Math.round((marks[0]?.x0 ?? 0) * 1e4))).normal();
  const sides = [measurand.side, measurand.corner];
  const corner = cornerOf(sides, measurand.against === "fixture" ? (axes?.stops ?? null) : null, size);
  const inward: Vector = INWARD[measurand.side];
  const along: Vector = INWARD[measurand.corner];
  const [n, d] = [rotated(inward, turn), rotated(along, turn)];
  const from = { x: corner.x + measurand.alongMm * d.x, y: corner.y + measurand.alongMm * d.y };
  const distance = untilLine(from, n, mark);
  const eye = seeded(seedOf(seed, "middle", measurand.side, Math.round(mark.y0 * 1e4)));
  const value = distance - (measurand.to === "near" ? mark.widthMm / 2 : MIDDLE_MM * eye.normal());
  return { ok: true, look: () => value, mean: value };
}

/** Into the stock from each of its edges. */
const INWARD = {
  left: { x: 1, y: 0 },
  right: { x: -1, y: 0 },
  front: { x: 0, y: 1 },
  back: { x: 0, y: -1 },
} as const;

function cornerOf(
  sides: readonly string[],
  stops: AxesTruth["stops"] | null,
  { widthMm, depthMm }: { widthMm: number; depthMm: number },
): Vector {
  const [inX, inY] = stops ? [stops.xMm, stops.yMm] : [0, 0];
  return {
    x: sides.includes("left") ? inX : widthMm - inX,
    y: sides.includes("front") ? inY : depthMm - inY,
  };
}

function rotated({ x, y }: Vector, by: number): Vector {
  return { x: x * Math.cos(by) - y * Math.sin(by), y: x * Math.sin(by) + y * Math.cos(by) };
}

/** How far along a direction the line of a mark lies. */
function untilLine(from: Vector, direction: Vector, { x0, y0, x1, y1 }: Mark): number {
  const [ux, uy] = [x1 - x0, y1 - y0];
  const across = direction.x * uy - direction.y * ux;
  return ((x0 - from.x) * uy - (y0 - from.y) * ux) / across;
}
