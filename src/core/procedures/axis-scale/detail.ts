/** The close-up of what is measured: from the same edge of tick 0 to the same edge of this tick, the rule along the guide line. */
import { at, dimensionAcross, FAINT, line, mark, quarterTurn, ring, words } from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import { knownLengthDetail } from "../../measuring/known-length";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { placesOf } from "./places";
import type { AxisScalePlan } from "./plan";

const NOTES = {
  side: "top face; not to scale",
  readout: "the number that the machine showed",
  distance: "from the same edge of both; not to scale",
  tick: "from the same edge of both; not to scale",
} as const;
const RADIUS = 3.4;
const [HALF, LINE, TICK] = [2, 0.34, 1.1];

export function detailOf(history: History<AxisScalePlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { round, site, text } = looked;
  const place = placesOf(round.plan).find((p) => p.site === focus.site);
  if (!place) return knownLengthDetail(looked);
  const primitives = place.kind === "side" ? partDrawn(place.of, text) : marksDrawn(place, text);
  return {
    title: `Detail, ${site.label}`,
    note: NOTES[place.kind],
    radius: RADIUS,
    strip: { low: -3.1, high: 2.2 },
    primitives: place.axis === "y" ? primitives.map(quarterTurn) : primitives,
  };
}

/** Marks on their guide line, the arrows at the same edge; of a readout the mark that it belongs to. */
function marksDrawn(place: ReturnType<typeof placesOf>[number], text: string): Primitive[] {
  const edge = -LINE / 2;
  const [first, last] = place.kind === "tick" ? ["0", String(place.index)] : ["1", "2"];
  const asked =
    place.kind === "readout"
      ? [ring(at(markX(place.end), 0), 0.7), label(markX(place.end), -TICK - 1, text)]
      : [dimensionAcross(at(-HALF + edge, -TICK), at(HALF + edge, -TICK), -TICK - 0.75, text)];
  return [
    line(at(-HALF - 0.6, -TICK), at(HALF + 0.6, -TICK), FAINT),
    mark(at(-HALF, -TICK), at(-HALF, TICK), LINE),
    mark(at(HALF, -TICK), at(HALF, TICK), LINE),
    label(-HALF, TICK + 0.35, first ?? ""),
    label(HALF, TICK + 0.35, last ?? ""),
    ...asked,
  ];
}

function markX(end: "from" | "to"): number {
  return end === "from" ? -HALF : HALF;
}

function partDrawn(of: "part" | "hole", text: string): Primitive[] {
  const [w, h] = of === "part" ? [HALF, TICK] : [HALF + 0.25, TICK + 0.25];
  const corners = [at(-w, -h), at(w, -h), at(w, h), at(-w, h)];
  return [
    ...corners.map((from, i) => mark(from, corners[(i + 1) % corners.length] ?? from, 0.12)),
    label(0, 0, of),
    dimensionAcross(at(-w, -h), at(w, -h), -h - 0.75, text),
  ];
}

function label(x: number, y: number, text: string): Primitive {
  return words(at(x, y), text, { tone: "ink" });
}
