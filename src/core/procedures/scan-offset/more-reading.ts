/** What more reading would do to the doubt: the same fits over readings that are not taken yet. */
import type { Budgeted } from "../../metrology/budget";
import { freedomOfDoubt, type Gauge, readingUncertaintyMm } from "../../metrology/gauge";
import type { Scatter } from "../../metrology/scatter";
import type { Analysis } from "./analysis";
import type { EndReadings, ReadGroup, ReadRound, ReferenceReadings } from "./read-round";
import { fitLine, fitReadings, type StaggerFit, widened } from "./stagger";

export type MoreReading = {
  /** More readings at every row end of these speeds, the same means as now. */
  ends: number;
  speeds: readonly number[];
  /** More readings at each end of the reference step. */
  references: number;
  /** Another gauge; `null` = the one used last. */
  gauge: Gauge | null;
};

export type Foreseen = {
  at: (speedMmPerS: number) => Budgeted | null;
  coefficient: (k: number) => Budgeted | null;
};

/** Session of a gauge that is not in hand yet. */
const NEW_SESSION = "not begun";

/**
 * The doubt as it would be. Values stay as they are: only how well they are known changes.
 *
 * @param gauges those that were read with
 */
export function foresee(analysis: Analysis, gauges: readonly Gauge[], more: MoreReading): Foreseen {
  const read = withMore(analysis.read, more);
  const known = more.gauge && !gauges.some((g) => g.id === more.gauge?.id) ? [...gauges, more.gauge] : gauges;
  const { trusted, compensated, birgeRatio } = analysis;
  const bare = analysis.line ? fitLine(read, analysis.others, known, trusted, compensated) : null;
  const line = bare && widened(bare, birgeRatio);
  let readings: StaggerFit | null = null;
  const byReadings = () => {
    readings ??= fitReadings(read, analysis.others, known);
    return readings;
  };
  return {
    at: (v) => {
      const fit = analysis.use === "line" && trusted.includes(v) ? line : byReadings();
      return fit ? fit.at(v) : null;
    },
    coefficient: (k) => line?.coefficient(k) ?? null,
  };
}

function withMore(read: ReadRound, more: MoreReading): ReadRound {
  const { gauge } = more;
  if (gauge) {
    const ends = newest(read.ends, (e) => `${e.speedMmPerS} ${e.end}`).filter((e) =>
      more.speeds.includes(e.speedMmPerS),
    );
    const added = ends.map((e) => asNew(e, gauge, more.ends));
    const addedReferences = stepGroups(read, gauge.id, NEW_SESSION, more.references);
    return {
      ...read,
      ends: [...read.ends, ...added],
      references: [...read.references, ...addedReferences],
      scatter: new Map([...read.scatter, [gauge.id, scatterOfNew(gauge, [...added, ...addedReferences])]]),
    };
  }
  const grownEnds = (e: EndReadings) => (more.speeds.includes(e.speedMmPerS) ? grown(e, more.ends) : e);
  const ends = read.ends.map(grownEnds);
  const last = read.ends.at(-1);
  const references =
    read.references.length > 0
      ? read.references.map((r) => grown(r, more.references))
      : stepGroups(read, last?.gauge ?? "", last?.session ?? "", more.references);
  return { ...read, ends, references, scatter: withMoreFreedom(read, [...ends, ...references]) };
}

/** The same mean from so many more plain readings. */
function grown<T extends ReadGroup>(group: T, extra: number): T {
  const count = group.count + extra;
  return { ...group, count, spread: Math.sqrt((group.spread * group.count) ** 2 + extra) / count };
}

function withMoreFreedom(read: ReadRound, groups: readonly ReadGroup[]): Map<string, Scatter> {
  const before = [...read.ends, ...read.references];
  return new Map(
    [...read.scatter].map(([id, scatter]) => {
      const count = (all: readonly ReadGroup[]) =>
        all.filter((g) => g.gauge === id).reduce((sum, g) => sum + g.count, 0);
      const freedom =
        (Number.isFinite(scatter.degreesOfFreedom) ? scatter.degreesOfFreedom : 0) + count(groups) - count(before);
      return [id, freedom > 0 ? { ...scatter, degreesOfFreedom: freedom } : scatter];
    }),
  );
}

/** So many readings of the reference step at each of its two ends; none for 0. */
function stepGroups(read: ReadRound, gauge: string, session: string, count: number): ReferenceReadings[] {
  if (count === 0) return [];
  const group = {
    gauge,
    session,
    count,
    mean: read.stepMm,
    drawnMm: read.stepMm,
    commonShare: 1,
    spread: 1 / Math.sqrt(count),
    unsignedShare: 0,
  };
  return [group, group];
}

function asNew(group: EndReadings, gauge: Gauge, count: number): EndReadings {
  return {
    ...group,
    gauge: gauge.id,
    session: NEW_SESSION,
    count,
    commonShare: Math.sign(group.mean) || 1,
    spread: 1 / Math.sqrt(count),
    unsignedShare: 0,
  };
}

function scatterOfNew(gauge: Gauge, groups: readonly ReadGroup[]): Scatter {
  const repeats = groups.reduce((sum, g) => sum + g.count - 1, 0);
  const prior = gauge.placing ? freedomOfDoubt(gauge.placing.relativeDoubt) : 0;
  return {
    sdMm: readingUncertaintyMm(gauge),
    degreesOfFreedom: prior + repeats || Infinity,
    basis: "experience",
  };
}

/** The last group of each site: where there were several sessions, the newest. */
function newest<T>(groups: readonly T[], key: (group: T, index: number) => string): T[] {
  return [...new Map(groups.map((g, i) => [key(g, i), g] as const)).values()];
}
