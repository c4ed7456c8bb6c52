/** The answers of a round sorted by site, gauge and session, with the scatter of each gauge. */
import { normalCdf } from "../../fitting/normal";
import { mean } from "../../fitting/repeats";
import type { Gauge } from "../../metrology/gauge";
import { pooledScatter, type Scatter } from "../../metrology/scatter";
import type { Answer } from "../answer";
import type { RoundRecord } from "../contract";
import { REFERENCE_SITES, siteId } from "./coupon";
import type { ScanOffsetPlan } from "./plan-type";

/** Readings of one site with one gauge in one session. */
export type ReadGroup = {
  gauge: string;
  session: string;
  count: number;
  /** Signed, mm. */
  mean: number;
  /** How often the common error of the gauge is in the mean, with its sign. */
  commonShare: number;
  /** Scatter of the mean as a multiple of the scatter of one plain reading: 1/sqrt(n). */
  spread: number;
  /** Share of readings of exactly nothing. */
  unsignedShare: number;
};

export type EndReadings = ReadGroup & { speedMmPerS: number; end: "left" | "right" };
export type ReferenceReadings = ReadGroup & { drawnMm: number };

export type ReadRound = {
  n: number;
  /** Drawn size of the reference step. */
  stepMm: number;
  ends: EndReadings[];
  references: ReferenceReadings[];
  scatter: ReadonlyMap<string, Scatter>;
};

type Taken = { value: number; u: number | null; shares: Answer["shares"]; gauge: string; session: string };

export function readRound(round: RoundRecord<ScanOffsetPlan>, gauges: readonly Gauge[]): ReadRound {
  const bySite = takenBySite(round);
  const scatter = new Map(
    gauges.map((gauge) => {
      const sites = [...bySite.values()].map((taken) =>
        taken.filter((t) => t.gauge === gauge.id).map((t) => ({ value: t.value, share: t.shares.scatter })),
      );
      return [gauge.id, pooledScatter(sites, gauge)] as const;
    }),
  );
  const groups = (site: string, size: number) =>
    [...groupBy(bySite.get(site) ?? [], (t) => `${t.gauge} ${t.session}`).values()].map((taken) => {
      const sdMm = scatter.get(taken[0]?.gauge ?? "")?.sdMm ?? 0;
      return groupOf(
        taken.map((t) => withOwnScatter(t, sdMm)),
        signShare(size, sdMm),
      );
    });
  const speeds = [...round.plan.speedsMmPerS].sort((a, b) => a - b);
  return {
    n: round.n,
    stepMm: round.plan.referenceStepMm,
    ends: speeds.flatMap((speedMmPerS) => {
      const sites = (["left", "right"] as const).map((end) => ({ end, site: siteId(speedMmPerS, end) }));
      const values = sites.flatMap(({ site }) => (bySite.get(site) ?? []).map((t) => t.value));
      const size = values.length > 0 ? mean(values) : 0;
      return sites.flatMap(({ end, site }) => groups(site, size).map((group) => ({ speedMmPerS, end, ...group })));
    }),
    references: Object.values(REFERENCE_SITES).flatMap((site) =>
      groups(site, round.plan.referenceStepMm).map((group) => ({ drawnMm: round.plan.referenceStepMm, ...group })),
    ),
    scatter,
  };
}

/** What was read in a picture has an uncertainty of its own: as so many times the usual one of its gauge. */
function withOwnScatter(taken: Taken, sdMm: number): Taken {
  return taken.u === null || sdMm === 0 ? taken : { ...taken, shares: { ...taken.shares, scatter: taken.u / sdMm } };
}

/**
 * Which way the common error of a gauge points in readings of a step of this size, -1 to 1: what it always reads too much is
 * added to the size, and a step within the scatter is read with either sign. Taken from the step, not from the sign of each
 * reading, as that hangs together with the reading's own error.
 */
function signShare(sizeMm: number, sdMm: number): number {
  return sdMm > 0 ? 2 * normalCdf(sizeMm / sdMm) - 1 : Math.sign(sizeMm);
}

function takenBySite(round: RoundRecord<ScanOffsetPlan>): Map<string, Taken[]> {
  const all = round.answers.flatMap((a) =>
    a.content.status === "read" && a.content.value.kind === "quantity"
      ? [{ site: a.site, value: a.content.value.value, u: a.u, shares: a.shares, gauge: a.gauge, session: a.session }]
      : [],
  );
  return groupBy(all, (t) => t.site);
}

function groupOf(taken: readonly Taken[], sign: number): ReadGroup {
  const first = taken[0] as Taken;
  return {
    gauge: first.gauge,
    session: first.session,
    count: taken.length,
    mean: mean(taken.map((t) => t.value)),
    commonShare: sign * mean(taken.map((t) => t.shares.common)),
    spread: Math.hypot(...taken.map((t) => t.shares.scatter)) / taken.length,
    unsignedShare: taken.filter((t) => t.value === 0).length / taken.length,
  };
}

function groupBy<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const name = key(item);
    const known = groups.get(name);
    if (known) known.push(item);
    else groups.set(name, [item]);
  }
  return groups;
}
