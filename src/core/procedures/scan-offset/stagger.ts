/**
 * From readings of the stagger to its value at every speed, and to a line over the speeds.
 *
 *   reading at a site, signed by words:  y = S(v) + k c + k z + scatter      k = sign(y) times how often it was measured
 *   reading of the reference step:       y = L (1 + e) + k c + k z + scatter
 *   limit of error of a gauge:           0 = c +- a/sqrt(3)
 *   zero of its jaws in a session:       0 = z +- r/sqrt(12)
 *   scale of the axis:                   0 = e +- 0.002
 *
 * c is what a gauge always reads too much. It is common to all readings, so repeats do not shrink it; the reference step
 * and readings of both signs do. S(v) is one value a speed ("readings") or S = s0 + v tau ("line"), tau = tau_on + tau_off.
 */
import { polynomialBasis } from "../../fitting/polynomial";
import { type Budgeted, joined } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge, zeroUncertaintyMm } from "../../metrology/gauge";
import type { Scatter } from "../../metrology/scatter";
import { type Source, type SourcedObservation, sourcedFit } from "../../metrology/sourced-fit";
import type { ReadGroup, ReadRound } from "./read-round";

/** Doubt about the drawn size of the reference step, as a share: the scale of the axis. (0.2 %, common practice, no source) */
const AXIS_SCALE_DOUBT = 0.002;
const PLACING = "placing";

export type StaggerFit = {
  /** Stagger at a speed, mm. */
  at: (speedMmPerS: number) => Budgeted;
  /** Coefficient of v^k: s0 (mm) and tau (s) of a line. */
  coefficient: (k: number) => Budgeted;
  chiSquared: number;
  degreesOfFreedom: number;
};

type Basis = { row: (speedMmPerS: number) => number[]; toRaw: number[][] };

/** One value a speed. `null` without readings. */
export function fitReadings(
  round: ReadRound,
  others: readonly ReadRound[],
  gauges: readonly Gauge[],
): StaggerFit | null {
  const speeds = speedsOf(round);
  return fitWith(round, others, gauges, { row: (v) => speeds.map((speed) => (speed === v ? 1 : 0)), toRaw: [] });
}

/**
 * S + compensated = s0 + v tau over the given speeds. `null` below two speeds.
 *
 * @param compensatedMm what the table in force took off the stagger at a speed: the sum lies on a line, not what is left
 */
export function fitLine(
  round: ReadRound,
  others: readonly ReadRound[],
  gauges: readonly Gauge[],
  speeds: readonly number[],
  compensatedMm: (speedMmPerS: number) => number,
): StaggerFit | null {
  const ends = round.ends
    .filter((e) => speeds.includes(e.speedMmPerS))
    .map((e) => ({ ...e, mean: e.mean + compensatedMm(e.speedMmPerS) }));
  const read = speedsOf({ ...round, ends });
  const fit = read.length < 2 ? null : fitWith({ ...round, ends }, others, gauges, polynomialBasis(read, 1));
  return fit && { ...fit, at: (v) => shifted(fit.at(v), -compensatedMm(v)) };
}

/**
 * The line with its doubt widened by the Birge ratio, where the readings depart from it by more than their own scatter says.
 * [Birge, Phys. Rev. 40 (1932) 207]
 *
 * @param ratio sqrt(chi-squared over degrees of freedom), 1 where that is less
 */
export function widened(fit: StaggerFit, ratio: number): StaggerFit {
  if (ratio <= 1) return fit;
  const widen = ({ quantity, parts }: Budgeted): Budgeted => {
    const placing = parts.filter((p) => p.id.startsWith(PLACING));
    const departure = Math.hypot(...placing.map((p) => p.standardUncertainty)) * Math.sqrt(ratio ** 2 - 1);
    const freedom = placing[0]?.degreesOfFreedom ?? "infinite";
    return joined(quantity.value, [
      ...parts,
      {
        id: "departure",
        label: "Departure from the line",
        kind: "A",
        standardUncertainty: departure,
        degreesOfFreedom: freedom,
      },
    ]);
  };
  return { ...fit, at: (v) => widen(fit.at(v)), coefficient: (k) => widen(fit.coefficient(k)) };
}

function shifted({ quantity, parts }: Budgeted, byMm: number): Budgeted {
  return { quantity: { ...quantity, value: quantity.value + byMm }, parts };
}

/** Speeds with at least one reading, rising. */
export function speedsOf(round: ReadRound): number[] {
  return [...new Set(round.ends.map((e) => e.speedMmPerS))].sort((a, b) => a - b);
}

/** Standard uncertainty of the mean of one group of readings, scatter only, mm. */
export function meanUncertaintyMm(round: ReadRound, group: ReadGroup): number {
  return (round.scatter.get(group.gauge)?.sdMm ?? 0) * group.spread;
}

function fitWith(
  round: ReadRound,
  others: readonly ReadRound[],
  gauges: readonly Gauge[],
  basis: Basis,
): StaggerFit | null {
  const first = round.ends[0];
  if (!first) return null;
  const width = basis.row(first.speedMmPerS).length;
  const none = new Array<number>(width).fill(0);
  const references = [round, ...others].flatMap((r) =>
    r.references.filter((ref) => round.ends.some((e) => e.gauge === ref.gauge)).map((ref) => ({ r, ref })),
  );
  const common = commonErrors([...round.ends, ...references.map((x) => x.ref)], gauges);
  const placing = (r: ReadRound, id: string) => placingSource(r, round, gauges, id);
  const observations: SourcedObservation[] = [
    ...round.ends.map((e) => ({
      row: [...basis.row(e.speedMmPerS), ...common.row(e), 0],
      y: e.mean,
      u: Math.hypot(meanUncertaintyMm(round, e), unsignedUncertaintyMm(e, gauges)),
      source: placing(round, e.gauge),
    })),
    ...references.map(({ r, ref }) => ({
      row: [...none, ...common.row(ref), ref.drawnMm],
      y: ref.mean - ref.drawnMm,
      u: meanUncertaintyMm(r, ref),
      source: placing(r, ref.gauge),
    })),
    ...common.errors.map((error, i) => ({
      row: [...none, ...common.errors.map((_, k) => (k === i ? 1 : 0)), 0],
      y: 0,
      u: error.u,
      source: error.source,
    })),
    {
      row: [...none, ...common.errors.map(() => 0), 1],
      y: 0,
      u: AXIS_SCALE_DOUBT,
      source: stated("axis scale", "Drawn size of the reference step"),
    },
  ];
  const fit = sourcedFit(observations);
  if (!fit) return null;
  return {
    at: (v) => fit.combine(basis.row(v)),
    coefficient: (k) => fit.combine(basis.toRaw[k] ?? []),
    chiSquared: fit.chiSquared,
    degreesOfFreedom: fit.degreesOfFreedom,
  };
}

type CommonError = { holds: (group: ReadGroup) => boolean; u: number; source: Source };

/** What readings have in common: the limit of each gauge, and the zero of each session. */
function commonErrors(groups: readonly ReadGroup[], gauges: readonly Gauge[]) {
  const errors = gauges.flatMap((gauge): CommonError[] => {
    const own = groups.filter((g) => g.gauge === gauge.id);
    if (own.length === 0) return [];
    return [
      {
        holds: (g: ReadGroup) => g.gauge === gauge.id,
        u: commonUncertaintyMm(gauge),
        source: stated(`limit ${gauge.id}`, `Limit of error, ${lower(gauge.name)}`),
      },
      ...[...new Set(own.map((g) => g.session))].map((session) => ({
        holds: (g: ReadGroup) => g.session === session,
        u: zeroUncertaintyMm(gauge),
        source: stated(`zero ${session}`, `Zero of the jaws, ${lower(gauge.name)}`),
      })),
    ].filter((error) => error.u > 0);
  });
  return { errors, row: (group: ReadGroup) => errors.map((e) => (e.holds(group) ? group.commonShare : 0)) };
}

/** A reading of nothing only says that the step is smaller than what the gauge may hide: its common error has no sign there. */
function unsignedUncertaintyMm(group: ReadGroup, gauges: readonly Gauge[]): number {
  const gauge = gauges.find((g) => g.id === group.gauge);
  return gauge ? group.unsignedShare * commonUncertaintyMm(gauge) : 0;
}

function placingSource(round: ReadRound, current: ReadRound, gauges: readonly Gauge[], id: string): Source {
  const scatter: Scatter | undefined = round.scatter.get(id);
  const name = lower(gauges.find((g) => g.id === id)?.name ?? id);
  const freedom = scatter?.degreesOfFreedom ?? Infinity;
  return {
    id: `${PLACING} ${id} ${round.n}`,
    label: `Placing, ${name}${round.n === current.n ? "" : ", other burn"}${scatter?.basis === "step of the gauge alone" ? " (its step alone)" : ""}`,
    kind: scatter?.basis === "repeats" || scatter?.basis === "both" ? "A" : "B",
    degreesOfFreedom: Number.isFinite(freedom) ? freedom : "infinite",
  };
}

function stated(id: string, label: string): Source {
  return { id, label, kind: "B", degreesOfFreedom: "infinite" };
}

function lower(name: string): string {
  return name.charAt(0).toLowerCase() + name.slice(1);
}
