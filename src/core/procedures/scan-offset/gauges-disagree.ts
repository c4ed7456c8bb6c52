/** Two gauges, or two sittings, that read the same places differently by more than their doubts explain. */
import { mean } from "../../fitting/repeats";
import { expandedUncertainty } from "../../fitting/student-t";
import { commonUncertaintyMm, zeroUncertaintyMm } from "../../metrology/gauge";
import { measured } from "../../metrology/measured";
import { shownLength } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import type { History } from "../contract";
import type { Finding } from "../outcome";
import type { Analysis } from "./analysis";
import type { ScanOffsetPlan } from "./plan-type";
import type { ReadGroup } from "./read-round";
import { meanUncertaintyMm } from "./stagger";

type Placed = ReadGroup & { place: string };

export function gaugesDisagree(history: History<ScanOffsetPlan>, analysis: Analysis, unit: LengthUnit): Finding[] {
  const groups: Placed[] = analysis.read.ends.map((e) => ({ ...e, place: `${e.speedMmPerS} ${e.end}` }));
  const sessions = [...new Set(groups.map((g) => g.session))];
  return sessions.flatMap((later, i) => sessions.slice(0, i).flatMap((earlier) => compare(earlier, later)));

  function compare(earlier: string, later: string): Finding[] {
    const pairs = groups.flatMap((a) => {
      const b = groups.find((g) => g.session === later && g.place === a.place);
      return a.session === earlier && b ? [{ a, b }] : [];
    });
    const first = pairs[0];
    if (!first) return [];
    const sizes = pairs.map(({ a, b }) => Math.abs(b.mean) - Math.abs(a.mean));
    const scatter = Math.hypot(...pairs.map(({ a, b }) => Math.hypot(scatterOf(a), scatterOf(b)))) / pairs.length;
    const freedom = Math.min(
      ...[first.a, first.b].map((g) => analysis.read.scatter.get(g.gauge)?.degreesOfFreedom ?? Infinity),
    );
    const difference = measured(mean(sizes), Math.hypot(scatter, common(first.a, first.b)), freedom);
    if (Math.abs(difference.value) <= expandedUncertainty(difference)) return [];
    const [old, now] = [nameOf(first.a), nameOf(first.b)];
    const which = old === now ? `The later sitting with the ${now} reads` : `The ${now} read`;
    return [
      {
        id: `gauges ${earlier} ${later}`,
        tone: "needs you",
        headline: `${which} ${shownLength(Math.abs(difference.value), unit, 3)} ${difference.value > 0 ? "more" : "less"} than ${old === now ? "the earlier one" : `the ${old}`}.`,
        text: "That is more than their limits of error and placing explain. Look at the zero of the jaws, and at the same tips, again.",
        site: null,
      },
    ];
  }

  function scatterOf(group: ReadGroup): number {
    return meanUncertaintyMm(analysis.read, group);
  }

  /** One gauge cancels its limit; its zero was looked at anew. */
  function common(a: ReadGroup, b: ReadGroup): number {
    const of = (id: string) => history.gauges.find((g) => g.id === id);
    const [x, y] = [of(a.gauge), of(b.gauge)];
    if (!x || !y) return 0;
    const zeros = Math.hypot(zeroUncertaintyMm(x), zeroUncertaintyMm(y));
    return a.gauge === b.gauge ? zeros : Math.hypot(zeros, commonUncertaintyMm(x), commonUncertaintyMm(y));
  }

  function nameOf(group: ReadGroup): string {
    return (history.gauges.find((g) => g.id === group.gauge)?.name ?? group.gauge).toLowerCase();
  }
}
