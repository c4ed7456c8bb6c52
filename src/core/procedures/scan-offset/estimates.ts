/** What a round of readings amounts to: lag, constant part and offset at each speed, each with its uncertainty budget. */

import { type Budgeted, times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, withUncertainty } from "../../metrology/quantity-text";
import type { UnitId } from "../../metrology/units";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf, shownUnit } from "../../trial/decisions";
import { estimate } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate } from "../../trial/outcome";
import { type Analysis, staggerUsed } from "./analysis";
import { REFERENCE_SITES, siteId } from "./coupon";
import { foresee, type MoreReading } from "./more-reading";
import { LAG_DIFFERENCE } from "./observe-gaps";
import type { ScanOffsetPlan } from "./plan";

const PER_DIRECTION = 1 / 2;
/** A help is named when it takes at least this share off the uncertainty. */
const WORTH_NAMING = 0.1;

type Foreseen = NonNullable<ReturnType<typeof foresee>>;
type Help = { text: string; foreseen: Foreseen };
type Wanted = {
  id: string;
  label: string;
  unit: UnitId;
  headline: boolean;
  now: Budgeted;
  /** Share of it that is reported: half of a stagger goes into each direction. */
  per?: number;
  ifRead: (foreseen: Foreseen) => Budgeted | null;
};

export const offsetId = (speedMmPerS: number) => `offset ${plain(speedMmPerS)}`;

export function estimatesOf(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
  left: boolean,
): Estimate[] {
  const suffix = left ? " left" : "";
  const wanted: Wanted[] = analysis.speeds.map((speed) => ({
    id: offsetId(speed.speedMmPerS),
    label: `At ${plain(speed.speedMmPerS)} mm/s${suffix}`,
    unit: "mm",
    headline: false,
    now: staggerUsed(analysis, speed),
    ifRead: (f) => {
      const then = f.speeds.find((s) => s.speedMmPerS === speed.speedMmPerS);
      return then ? staggerUsed(analysis, then) : null;
    },
  }));
  const { lag, constant } = analysis;
  if (lag && constant)
    wanted.unshift(
      { id: "lag", label: "Lag", unit: "us", headline: true, now: lag, ifRead: (f) => f.lag },
      {
        id: "constant",
        label: "Constant part",
        unit: "mm",
        headline: true,
        now: constant,
        ifRead: (f) => f.constant,
      },
    );
  for (const { place } of analysis.shifts) {
    const among = (a: Pick<Analysis, "shifts">) => a.shifts.find((s) => s.place.id === place.id)?.shift ?? null;
    const now = among(analysis);
    if (now)
      wanted.push({
        id: place.id,
        label: `${place.label}${suffix}`,
        unit: "mm",
        headline: place.at === null,
        now,
        ifRead: among,
        per: 1,
      });
  }
  if (analysis.lagDifference)
    wanted.push({
      id: LAG_DIFFERENCE,
      label: "Lag off minus lag on",
      unit: "us",
      headline: false,
      now: analysis.lagDifference,
      ifRead: (f) => f.lagDifference,
      per: 1,
    });
  const helps = helpsFor(history, round, analysis);
  return wanted.map((w) => {
    const now = times(w.now, w.per ?? PER_DIRECTION);
    const { unit, headline } = w;
    return estimate(w.id, w.label, now, {
      unit,
      headline,
      helps: helpText(w, now, helps, shownUnit(unit, lengthUnitOf(history))),
    });
  });
}

function helpText(wanted: Wanted, now: Budgeted, helps: readonly Help[], unit: UnitId): string | null {
  const before = expandedUncertainty(now.quantity);
  const found = helps
    .flatMap((help) => {
      const then = wanted.ifRead(help.foreseen);
      return then ? [{ text: help.text, quantity: times(then, wanted.per ?? PER_DIRECTION).quantity }] : [];
    })
    .sort((a, b) => expandedUncertainty(a.quantity) - expandedUncertainty(b.quantity))[0];
  if (!found || expandedUncertainty(found.quantity) > (1 - WORTH_NAMING) * before) return null;
  const [, half = ""] = withUncertainty(found.quantity, unit).split(" ± ");
  return `${found.text}. Expect ± ${half}.`;
}

/** As many readings again, of the rows or of the reference step, or one look with the finest other gauge. */
function helpsFor(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>, analysis: Analysis): Help[] {
  const speeds = analysis.speeds.map((s) => s.speedMmPerS);
  const counts = speeds.flatMap((v) =>
    (["left", "right"] as const).map((end) => quantitiesAt(round.answers, siteId(v, end)).length),
  );
  const again = Math.max(1, ...counts);
  const hasStep = Object.values(REFERENCE_SITES).some((site) => quantitiesAt(round.answers, site).length > 0);
  const base: MoreReading = { ends: 0, speeds, references: 0, gauge: null };
  const options: { text: string; more: MoreReading }[] = [
    { text: `Read each row end ${timesText(again)} more`, more: { ...base, ends: again } },
  ];
  options.push({
    text: `Read the reference step ${timesText(2 * again)}${hasStep ? " more" : ""} at each end`,
    more: { ...base, references: 2 * again },
  });
  const finer = finestOther(history);
  if (finer)
    options.push({
      text: `Read each row end once with the ${finer.name.toLowerCase()}`,
      more: { ...base, ends: 1, references: 1, gauge: finer },
    });
  return options.flatMap(({ text, more }) => {
    const then = foresee(history, round, more);
    return then ? [{ text, foreseen: then }] : [];
  });
}

/** The gauge not read with yet whose step and limit are smallest together. */
export function finestOther(history: History<ScanOffsetPlan>) {
  return history.available
    .filter((g) => history.gauges.every((used) => used.id !== g.id))
    .sort((a, b) => a.limitMm + a.resolutionMm - b.limitMm - b.resolutionMm)[0];
}

export function timesText(count: number): string {
  return count === 1 ? "once" : count === 2 ? "twice" : `${count} times`;
}
