/**
 * Artwork on a tapered part, drawn flat and sent to a machine that turns every place of it by the same angle.
 *
 *   slant       S = hypot(L, r2 - r1),  sin a = (r2 - r1) / S         a the angle of the side to the axis
 *   as a label  a flat label laid on it keeps all its lengths: with R = r1 / sin a from the tip to the first end,
 *               rho = sign(R) hypot(R + u, v),  phi = atan(v / (R + u)),  turned by theta = phi / sin a,  at u' = rho - R
 *   by the rim  rows that run around stay at their place: u' = u,  theta = v / r(u)
 *   sent        x = u' (the side is level) or u' cos a (the axis is level),  y = theta d / 2, d what the machine turns by
 *
 * u is along the side from the first end, v around, from the middle of the artwork. [a cone unrolls to a sector of a circle: elementary geometry]
 */

export type Taper = {
  /** Across at its two ends, mm. */
  firstMm: number;
  lastMm: number;
  /** Between them along the axis, mm. */
  lengthMm: number;
};

export const LAYS = {
  label: "As a label laid on: straight stays straight",
  rim: "Along the rim: rows run around",
} as const;
export type Lay = keyof typeof LAYS;

export const LEVELS = { side: "The side is level", axis: "The axis is level" } as const;
export type Level = keyof typeof LEVELS;

export type TaperSetup = Taper & {
  lay: Lay;
  level: Level;
  /** Across where it lies on the rollers; in a chuck what the machine is told, mm. */
  turnsByMm: number;
};

export type FlatPoint = { u: number; v: number };
export type SentPoint = { along: number; around: number };

/** Sides that differ by less than this from a tube are one, rad. */
const STRAIGHT_RAD = 1e-9;

export function slantMm({ firstMm, lastMm, lengthMm }: Taper): number {
  return Math.hypot(lengthMm, (lastMm - firstMm) / 2);
}

/** Angle between the side and the axis, rad; above 0 where it grows thicker. */
export function sideAngleRad({ firstMm, lastMm, lengthMm }: Taper): number {
  return Math.atan2((lastMm - firstMm) / 2, lengthMm);
}

/** Across at a place along the side, mm. */
export function diameterAt(taper: Taper, u: number): number {
  return taper.firstMm + ((taper.lastMm - taper.firstMm) * u) / slantMm(taper);
}

/** How far the surface goes at its two ends for a mm that is sent. */
export function travelAtEnds({ firstMm, lastMm, turnsByMm }: Taper & { turnsByMm: number }): [number, number] {
  return [firstMm / turnsByMm, lastMm / turnsByMm];
}

/** From flat artwork to what is sent. */
export function sentFrom(setup: TaperSetup, { u, v }: FlatPoint): SentPoint {
  const { along, turnedRad } = setup.lay === "rim" ? byRim(setup, u, v) : asLabel(setup, u, v);
  return { along: along * foreshortened(setup), around: (turnedRad * setup.turnsByMm) / 2 };
}

/** Back: which flat point was sent there. */
export function flatFrom(setup: TaperSetup, { along, around }: SentPoint): FlatPoint {
  const u = along / foreshortened(setup);
  const turnedRad = (2 * around) / setup.turnsByMm;
  if (setup.lay === "rim") return { u, v: (turnedRad * diameterAt(setup, u)) / 2 };
  const angle = sideAngleRad(setup);
  if (Math.abs(angle) < STRAIGHT_RAD) return { u, v: (turnedRad * setup.firstMm) / 2 };
  const tip = setup.firstMm / 2 / Math.sin(angle);
  const phi = turnedRad * Math.sin(angle);
  return { u: (tip + u) * Math.cos(phi) - tip, v: (tip + u) * Math.sin(phi) };
}

/** By what the side is seen shorter: where the axis is level the head looks at it from above. */
export function foreshortened(setup: Taper & Pick<TaperSetup, "level">): number {
  return setup.level === "axis" ? Math.cos(sideAngleRad(setup)) : 1;
}

function byRim(taper: Taper, u: number, v: number) {
  return { along: u, turnedRad: (2 * v) / diameterAt(taper, u) };
}

function asLabel(taper: Taper, u: number, v: number) {
  const angle = sideAngleRad(taper);
  if (Math.abs(angle) < STRAIGHT_RAD) return { along: u, turnedRad: (2 * v) / taper.firstMm };
  const tip = taper.firstMm / 2 / Math.sin(angle);
  const rho = Math.sign(tip) * Math.hypot(tip + u, v);
  return { along: rho - tip, turnedRad: Math.atan(v / (tip + u)) / Math.sin(angle) };
}
