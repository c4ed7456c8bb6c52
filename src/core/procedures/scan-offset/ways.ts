/** The cheapest ways to a verdict where the uncertainty is too large for the tolerance. */

import type { Gauge } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { shownLength } from "../../metrology/quantity-text";
import { type Ruling, ruling } from "../../metrology/tolerance";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { WayOut } from "../../trial/verdict";
import { type Analysis, type SpeedResult, staggerUsed } from "./analysis";
import { REFERENCE_SITES, siteId } from "./coupon";
import { timesText } from "./estimates";
import { foresee, type MoreReading } from "./more-reading";
import type { ScanOffsetPlan } from "./plan";

/** Nobody reads a site more often than this. */
const MORE = [1, 2, 3, 4, 6, 8, 12, 16] as const;
const MOST_WAYS = 3;
/** A way that takes so many times the readings of the cheapest is none. */
const WORTH_NAMING = 5;

type Way = { way: WayOut; readings: number };

/**
 * Ways by which every undecided speed is expected to be proved, or not proved, if the readings to come agree with those so
 * far. Empty where no amount of reading settles it.
 */
export function waysOut(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
): WayOut[] {
  const undecided = analysis.speeds.filter(
    (s) => ruling(staggerUsed(analysis, s).quantity, history.tolerance) === "cannot tell",
  );
  if (undecided.length === 0) return [];
  const others = history.available.filter((g) => history.gauges.every((used) => used.id !== g.id));
  const found = [null, ...others].flatMap((gauge) => cheapest(history, round, analysis, undecided, gauge) ?? []);
  const sorted = found.sort((a, b) => a.readings - b.readings);
  const least = sorted[0]?.readings ?? 0;
  return sorted
    .filter((w) => w.readings <= WORTH_NAMING * least)
    .slice(0, MOST_WAYS)
    .map((w) => w.way);
}

function cheapest(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
  undecided: readonly SpeedResult[],
  gauge: Gauge | null,
): Way | null {
  const some = undecided.map((s) => s.speedMmPerS);
  const all = analysis.speeds.map((s) => s.speedMmPerS);
  const choices = MORE.flatMap((more) =>
    [some, all].flatMap((speeds) =>
      [0, more].map((references): MoreReading => ({ ends: more, speeds, references, gauge })),
    ),
  ).sort((a, b) => readingsIn(a) - readingsIn(b));
  for (const more of choices) {
    const then = foresee(history, round, more);
    const settled = undecided.map((s) => {
      const at = then?.speeds.find((f) => f.speedMmPerS === s.speedMmPerS);
      if (!at) return null;
      const value = staggerUsed(analysis, s).quantity.value;
      const quantity = { ...staggerUsed(analysis, at).quantity, value };
      return { quantity, ruling: ruling(quantity, history.tolerance) };
    });
    if (settled.every((s) => s !== null && s.ruling !== "cannot tell")) {
      const found = settled.flatMap((s) => (s ? [s] : []));
      return { way: wayOf(history, more, found), readings: readingsIn(more) };
    }
  }
  return null;
}

/** Two ends a speed, and two of the reference step. */
function readingsIn(more: MoreReading): number {
  return 2 * more.ends * more.speeds.length + 2 * more.references;
}

function wayOf(
  history: History<ScanOffsetPlan>,
  more: MoreReading,
  settled: { quantity: Parameters<typeof expandedUncertainty>[0]; ruling: Ruling }[],
): WayOut {
  const half = Math.max(...settled.map((s) => expandedUncertainty(s.quantity)));
  const outcome = settled.every((s) => s.ruling === "proved") ? "proved" : "told either way";
  const where = `${more.speeds.length === 1 ? "both ends of one block" : `both ends of ${more.speeds.length} blocks`}${more.references > 0 ? " and of the reference step" : ""}`;
  const how = `${timesText(more.ends)}${more.gauge ? ` with the ${more.gauge.name.toLowerCase()}` : " more"}`;
  return {
    text: `Read ${where} ${how} (${readingsIn(more)} readings): ± ${shownLength(half, lengthUnitOf(history), 3)} is then expected, and ${outcome} if they agree with those so far.`,
    sites: [
      ...more.speeds.flatMap((v) => [siteId(v, "left"), siteId(v, "right")]),
      ...(more.references > 0 ? Object.values(REFERENCE_SITES) : []),
    ],
    more: more.ends,
    gauge: more.gauge?.id ?? null,
  };
}
