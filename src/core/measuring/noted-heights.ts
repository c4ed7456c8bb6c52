/** Heights that are found by eye and noted at the machine, one by one: how they scatter is estimated, with what is expected of an eye. */
import type { Observation, Row, ScatterGroup } from "../estimate/model";
import { leaveOut } from "../trial/decisions";
import type { History, RoundRecord } from "../trial/history";
import { readingNamer } from "./length-readings";

/** What is noted at a point, with its name within a sentence, and the parameters that make it up. */
export type NotedPoint = { site: string; label: string; row: Row };

/** How an eye finds a height again, mm, how many degrees of freedom that is worth, and the step in which heights are noted, mm. */
export type Eye = { sdMm: number; freedom: number; stepMm: number };

const GROUP = "eye";

/** The scatter of an eye as expected before heights are repeated. */
export function eyeGroup(eye: Eye): ScatterGroup {
  return { id: GROUP, priorFreedom: eye.freedom, leastFactor: stepUncertaintyMm(eye) / oneHeightMm(eye) };
}

/** Standard uncertainty of one height as expected, mm. */
export function oneHeightMm(eye: Eye): number {
  return Math.hypot(eye.sdMm, stepUncertaintyMm(eye));
}

/** A step is as good as even over its width. [JCGM 100:2008 F.2.2.1] */
function stepUncertaintyMm({ stepMm }: Eye): number {
  return stepMm / Math.sqrt(12);
}

/**
 * @param sense -1 where a number that grows stands for a lower height
 * @param sourceLabel of the line in the budget
 */
export function notedHeights<P>(
  { decisions }: Pick<History<P>, "decisions">,
  { answers }: Pick<RoundRecord<P>, "answers">,
  points: readonly NotedPoint[],
  { eye, sense = 1, sourceLabel }: { eye: Eye; sense?: 1 | -1; sourceLabel: string },
): Observation[] {
  const counts = new Map<string, number>();
  const nameOf = readingNamer();
  return answers.flatMap((a): Observation[] => {
    const point = points.find((p) => p.site === a.site);
    if (!point || a.content.status !== "read" || a.content.value.kind !== "quantity") return [];
    const repeat = counts.get(point.site) ?? 0;
    counts.set(point.site, repeat + 1);
    const typed = a.content.value.value;
    const id = nameOf(a, typed);
    if (leaveOut(id).of(decisions)) return [];
    return [
      {
        id,
        label: `reading ${repeat + 1} of ${point.label}`,
        row: point.row,
        y: sense * typed,
        u: oneHeightMm(eye),
        source: { id: "reading", label: sourceLabel, kind: "A" },
        group: GROUP,
        reading: {
          point: point.site,
          pointLabel: point.label,
          repeat,
          gauge: GROUP,
          gaugeLabel: "readout",
          session: a.session,
          typed,
          per: sense,
          sizeSign: 1,
          signedByWords: false,
        },
        canBeWrong: true,
      },
    ];
  });
}
