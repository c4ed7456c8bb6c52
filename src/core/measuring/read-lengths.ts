/** Lengths that were read, sorted by site and gauge, with the scatter of each gauge pooled over the sites of a round. */

import { mean } from "../fitting/repeats";
import { type Gauge, resolutionUncertaintyMm } from "../metrology/gauge";
import { pooledScatter, type Scatter } from "../metrology/scatter";
import { withinSentence } from "../metrology/sentence-case";
import type { Answer } from "../trial/answer";

/** All readings at one site with one gauge. */
export type SiteRead = {
  site: string;
  values: number[];
  mean: number;
  /** Scatter of the mean, mm: what the gauge always reads wrong is no part of it. */
  u: number;
  gauge: Gauge;
  scatter: Scatter;
};

/** Gauge by gauge, in the order of the sites. */
export function readLengths(
  answers: readonly Answer[],
  sites: readonly string[],
  gauges: readonly Gauge[],
): SiteRead[] {
  return gauges.flatMap((gauge) => {
    const own = sites.map((site) => ({ site, here: answers.flatMap((a) => takenAt(a, site, gauge.id)) }));
    const scatter = pooledScatter(
      own.map(({ here }) => here),
      gauge,
    );
    return own.flatMap(({ site, here }): SiteRead[] => {
      if (here.length === 0) return [];
      const values = here.map((t) => t.value);
      const scattered = (scatter.sdMm * Math.hypot(...here.map((t) => t.share))) / here.length;
      const u = Math.max(scattered, resolutionUncertaintyMm(gauge) / Math.sqrt(here.length));
      return [{ site, values, mean: mean(values), u, gauge, scatter }];
    });
  });
}

/** Its name within a line of words. */
export function gaugeName({ name }: Pick<Gauge, "name">): string {
  return withinSentence(name);
}

function takenAt({ site: at, content, gauge: by, shares }: Answer, site: string, gauge: string) {
  if (at !== site || by !== gauge || content.status !== "read" || content.value.kind !== "quantity") return [];
  return [{ value: content.value.value, share: shares.scatter }];
}
