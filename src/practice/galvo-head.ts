/**
 * The head of a practice galvo, ray by ray: hidden from everything that computes corrections.
 *
 *   drawing -> what its controller makes of it (scale, coefficients, orientation) -> angles of two mirrors -> a ray, reflected twice ->
 *   lens -> stock, which may lie tilted or at a wrong height -> head turned on its mount
 *
 * At a mirror with normal n a direction d becomes d - 2 (d n) n. [law of reflection] The second mirror stands `apartMm` behind the first,
 * so the ray meets the lens off its middle. The lens puts a ray that enters at the angle t at f t (1 + k3 t^2 + k5 t^4). [f-theta lens]
 */
import { z } from "zod";
import { FIELD_TERMS, type FieldTerm } from "../core/geometry/field-term";
import type { HeldNumber } from "./axes-truth";
import { type Random, seeded, seedOf } from "./random";

const axisOwnSchema = z.object({
  /** How much farther it turns at the edge of the field than its commands say, as a share, where it is even and where it is odd. */
  cubic: z.number(),
  size: z.number().positive(),
});

const responseSchema = z.object({
  /** What one more of the coefficient moves the corner of the field, mm. */
  perUnitMm: z.number(),
  /** How much stronger its last part acts than its first, as a share of it, over `span`. */
  curve: z.number(),
  span: z.number().positive(),
});

export const headTruthSchema = z.object({
  focalMm: z.number().positive(),
  apartMm: z.number().positive(),
  /** Cubic and quintic of the lens, and how far a ray beside its middle is put off, a share by the square of its angle. */
  lens: z.object({ cubic: z.number(), quintic: z.number(), pupil: z.number() }),
  x: axisOwnSchema,
  y: axisOwnSchema,
  /** How far the axes of the mirrors are from square, rad. */
  skewRad: z.number(),
  /** How far the head is turned on its mount, counter-clockwise, rad. */
  turnRad: z.number(),
  /** Slope of the stock under it, rise along X and along Y, mm a mm: larger is nearer to the head. */
  tilt: z.object({ x: z.number(), y: z.number() }),
  /** By how much the stock is nearer to its lens than said when the height is set, mm. */
  nearMm: z.number(),
  /** How drawings lie with the switches that the controller was found with, by plugs and mount too: first swapped, then inverted. */
  mounted: z.object({ swap: z.boolean(), invertX: z.boolean(), invertY: z.boolean() }),
  /** In which order its controller swaps and inverts. */
  order: z.enum(["swap first", "invert first"]),
  responses: z.record(z.string(), responseSchema),
});
export type HeadTruth = z.infer<typeof headTruthSchema>;

/** The description of the machine, as far as a head goes by it. `held` has the settings by key. */
export type HeadDescribed = {
  widthMm: number;
  /** Of its lens; left out: by the field. */
  focalMm?: number;
  order: "swap first" | "invert first" | null;
  /** Range and effect of each coefficient, as the machine page says; left out where it does not. */
  coefficients: Partial<Record<FieldTerm, { halfRange: number | null; effectMm: number | null }>>;
};

/** Beam angle at the middle of an edge of the field. (common practice, no source) */
const EDGE_RAD = 0.34;

/** A head drawn by chance: the errors of heads as they come, before anything is corrected. */
export function headFromSeed(seed: number, machine: HeadDescribed): HeadTruth {
  const random = seeded(seedOf(seed, "head"));
  const half = machine.widthMm / 2;
  const own = () => ({ cubic: random.between(-0.0035, 0.0035), size: 1 + random.between(-0.012, 0.012) });
  const even = () => random.even() < 0.5;
  const degree = Math.PI / 180;
  return {
    focalMm: machine.focalMm ?? half / EDGE_RAD,
    apartMm: random.between(12, 20),
    lens: {
      cubic: random.between(-0.02, 0.02),
      quintic: random.between(-0.03, 0.03),
      pupil: random.between(-0.08, 0.08),
    },
    x: own(),
    y: own(),
    skewRad: random.between(-0.4, 0.4) * degree,
    turnRad: random.between(-0.8, 0.8) * degree,
    tilt: inSomeDirection(random.between(0, 0.3) * degree, 2 * Math.PI * random.even()),
    nearMm: random.between(-0.3, 0.3),
    mounted: { swap: even(), invertX: even(), invertY: even() },
    order: machine.order ?? (even() ? "swap first" : "invert first"),
    responses: Object.fromEntries(FIELD_TERMS.map((term) => [term, responseFor(machine.coefficients[term], random)])),
  };
}

function inSomeDirection(slope: number, direction: number): Place {
  return { x: slope * Math.cos(direction), y: slope * Math.sin(direction) };
}

function responseFor(told: HeadDescribed["coefficients"][FieldTerm], random: Random): HeadTruth["responses"][string] {
  const [sign, size, curve] = [random.even() < 0.5 ? -1 : 1, random.between(3, 6), random.between(-0.1, 0.1)];
  const span = told?.halfRange ?? 1;
  if (told?.effectMm) return { perUnitMm: told.effectMm, curve: 0, span };
  return { perUnitMm: (sign * size) / span, curve, span };
}

/** What the controller holds now, where it was read back or entered. */
export type HeadHeld = {
  swap: HeldNumber | undefined;
  invertX: HeldNumber | undefined;
  invertY: HeldNumber | undefined;
  scale: Record<"x" | "y", { held: HeldNumber | undefined; grows: boolean }>;
  /** Angle by which it turns drawings, rad, and whether a larger one turns them counter-clockwise. */
  turn: { held: HeldNumber | undefined; sense: 1 | -1 };
  terms: Partial<Record<FieldTerm, HeldNumber | undefined>>;
  /** Shifts by node that it adds to a drawn point, rows from the front, each from the left; left out where no table is loaded. */
  table?: HeadTable | undefined;
};

export type HeadTable = { across: number; sideMm: number; nodes: readonly { dx: number; dy: number }[] };

export const NOTHING_HELD: HeadHeld = {
  swap: undefined,
  invertX: undefined,
  invertY: undefined,
  scale: { x: { held: undefined, grows: true }, y: { held: undefined, grows: true } },
  turn: { held: undefined, sense: 1 },
  terms: {},
};

export type Place = { x: number; y: number };
/** Rows of a matrix of two by two: where X and Y go. */
export type Square = readonly [number, number, number, number];

function times([a, b, c, d]: Square, [e, f, g, h]: Square): Square {
  return [a * e + b * g, a * f + b * h, c * e + d * g, c * f + d * h];
}

function applied([a, b, c, d]: Square, { x, y }: Place): Place {
  return { x: a * x + b * y, y: c * x + d * y };
}

/** Of swaps and inversions the transposed undoes. */
function undone([a, b, c, d]: Square): Square {
  return [a, c, b, d];
}

function switched(swap: boolean, invertX: boolean, invertY: boolean, order: HeadTruth["order"]): Square {
  const swapped: Square = swap ? [0, 1, 1, 0] : [1, 0, 0, 1];
  const inverted: Square = [invertX ? -1 : 1, 0, 0, invertY ? -1 : 1];
  return order === "swap first" ? times(inverted, swapped) : times(swapped, inverted);
}

/** A head with what its controller holds now. */
export class GalvoHead {
  private readonly controller: Square;
  private readonly mounted: Square;

  /** @param halfMm half of the field, for which the controller scales its coefficients */
  constructor(
    private readonly truth: HeadTruth,
    private readonly held: HeadHeld,
    private readonly halfMm: number,
  ) {
    const by = (when: "found" | "now") => {
      const isOn = (number: HeldNumber | undefined) => (number?.[when] ?? 0) !== 0;
      return switched(isOn(held.swap), isOn(held.invertX), isOn(held.invertY), truth.order);
    };
    this.controller = by("now");
    const { swap, invertX, invertY } = truth.mounted;
    // Plugs and mount alone: without what the controller did when it was found.
    this.mounted = times(switched(swap, invertX, invertY, "swap first"), undone(by("found")));
  }

  /** Where the arrows of X and of Y of a drawing point on the stock, seen from above: columns of the matrix. */
  get lies(): Square {
    return times(this.mounted, this.controller);
  }

  /**
   * Where a place of a drawing comes to lie on the stock, both from the middle of the field, mm; the stock held so that its words read.
   *
   * @param nearerMm by how much the stock is nearer to the lens than its focus
   */
  marked(drawn: Place, nearerMm: number): Place {
    const { held, sense } = this.held.turn;
    const by = held ? sense * (held.now - held.found) : 0;
    const [cos, sin] = [Math.cos(by), Math.sin(by)];
    const turned = applied([cos, -sin, sin, cos], this.byTable(drawn));
    const command = applied(this.controller, this.adjusted(turned));
    const onStock = applied(this.mounted, this.scanned(command, nearerMm));
    const { turnRad } = this.truth;
    const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
    return applied(undone(this.lies), applied([c, -s, s, c], onStock));
  }

  /** Between four nodes in proportion to the way from each. */
  private byTable(drawn: Place): Place {
    const { table } = this.held;
    if (!table) return drawn;
    const { across, sideMm, nodes } = table;
    const along = (mm: number) => {
      const at = Math.max(0, Math.min(across - 1, (mm / sideMm + 0.5) * (across - 1)));
      const low = Math.min(across - 2, Math.floor(at));
      return { low, share: at - low };
    };
    const [u, v] = [along(drawn.x), along(drawn.y)];
    const node = (column: number, row: number) => nodes[row * across + column] ?? { dx: 0, dy: 0 };
    const between = (of: (n: { dx: number; dy: number }) => number) =>
      (1 - v.share) * ((1 - u.share) * of(node(u.low, v.low)) + u.share * of(node(u.low + 1, v.low))) +
      v.share * ((1 - u.share) * of(node(u.low, v.low + 1)) + u.share * of(node(u.low + 1, v.low + 1)));
    return { x: drawn.x + between((n) => n.dx), y: drawn.y + between((n) => n.dy) };
  }

  /** What the controller makes of a place by scale and coefficients: displacements known at the nodes of its field, and curves between. */
  private adjusted({ x, y }: Place): Place {
    const [u, v] = [x / this.halfMm, y / this.halfMm];
    const mm = (term: FieldTerm) => this.movedBy(term);
    // At the ends of a side, and at its middle, where nothing moves: a curve through three nodes.
    const bowed = (t: number) => lagrange(t, 1, 0, 1);
    const slanted = (t: number) => lagrange(t, -1, 0, 1);
    const stretched = (t: number) => t * lagrange(t, 1, 0, 1);
    return {
      x:
        this.scaleOf("x") *
        (x +
          u * (mm("bow x") * bowed(v) + mm("keystone x") * slanted(v)) +
          mm("shear") * slanted(v) +
          mm("own cubic x") * stretched(u)),
      y:
        this.scaleOf("y") *
        (y + v * (mm("bow y") * bowed(u) + mm("keystone y") * slanted(u)) + mm("own cubic y") * stretched(v)),
    };
  }

  private scaleOf(axis: "x" | "y"): number {
    const { held, grows } = this.held.scale[axis];
    if (!held || held.found === 0 || held.now === 0) return 1;
    return grows ? held.now / held.found : held.found / held.now;
  }

  /** How far a coefficient moves the corner of the field now, against when it was found, mm. */
  private movedBy(term: FieldTerm): number {
    const [number, response] = [this.held.terms[term], this.truth.responses[term]];
    if (!number || !response) return 0;
    const acts = (value: number) => response.perUnitMm * value * (1 + (response.curve * value) / response.span);
    return acts(number.now - number.found);
  }

  /** Mirrors, lens, stock. */
  private scanned({ x, y }: Place, nearerMm: number): Place {
    const { truth } = this;
    const angle = (mm: number, own: HeadTruth["x"]) =>
      ((mm * own.size) / truth.focalMm) * (1 + own.cubic * (mm / this.halfMm) ** 2);
    const [a, b] = [-angle(x, truth.x) / 2, angle(y, truth.y) / 2];
    const first = reflected([1, 0, 0], turned([-Math.SQRT1_2, Math.SQRT1_2, 0], [0, 0, 1], a));
    const axis: Vector = [Math.cos(truth.skewRad), Math.sin(truth.skewRad), 0];
    const second = reflected(first, turned([0, -Math.SQRT1_2, -Math.SQRT1_2], axis, b));
    const [dx, dy, dz] = second;
    const sine = Math.hypot(dx, dy);
    const theta = Math.atan2(sine, -dz);
    const { cubic, quintic, pupil } = truth.lens;
    const [ux, uy] = sine > 0 ? [dx / sine, dy / sine] : [0, 0];
    const h = truth.focalMm * theta * (1 + cubic * theta ** 2 + quintic * theta ** 4);
    // Beside the middle of the lens: the rays of the first mirror come from farther away.
    const offX = (truth.apartMm * first[0]) / first[1];
    const flat: Place = { x: h * ux + pupil * offX * theta ** 2, y: h * uy };
    const rise = nearerMm + truth.nearMm + truth.tilt.x * flat.x + truth.tilt.y * flat.y;
    return { x: flat.x - rise * Math.tan(theta) * ux, y: flat.y - rise * Math.tan(theta) * uy };
  }
}

/** The curve of second degree through values at -1, 0 and 1. */
function lagrange(t: number, atMinus: number, atZero: number, atPlus: number): number {
  return (atMinus * t * (t - 1)) / 2 + atZero * (1 - t * t) + (atPlus * t * (t + 1)) / 2;
}

type Vector = readonly [number, number, number];

function dot(a: Vector, b: Vector): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

function reflected(d: Vector, n: Vector): Vector {
  const twice = 2 * dot(d, n);
  return [d[0] - twice * n[0], d[1] - twice * n[1], d[2] - twice * n[2]];
}

/** Turned about an axis of length 1. [Rodrigues' rotation formula] */
function turned(v: Vector, k: Vector, by: number): Vector {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  const along = dot(k, v) * (1 - c);
  return [
    v[0] * c + (k[1] * v[2] - k[2] * v[1]) * s + k[0] * along,
    v[1] * c + (k[2] * v[0] - k[0] * v[2]) * s + k[1] * along,
    v[2] * c + (k[0] * v[1] - k[1] * v[0]) * s + k[2] * along,
  ];
}
