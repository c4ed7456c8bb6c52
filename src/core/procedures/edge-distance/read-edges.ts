/**
 * How far the lines lie off their nominal distances, at the corner in which the edges meet, and how the stock lies turned.
 *
 *   read at s along an edge:  y = n + e - w/2 [near edge] + k s t + s l + c + z + scatter
 *
 * n nominal, e the error at the corner, t the turn of the stock about that corner, counter-clockwise, k = -1 or +1 by edge and corner,
 * l how much this line leans against the other, c and z what the gauge always reads too much. Taken at the corner, a stock that lies
 * a little turned does not put the origin off. Before it is seen, a stock laid by hand is turned by half a degree at most, and axes lean
 * by a millimetre a metre. (common practice, no source)
 */
import type { Budgeted } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge, zeroUncertaintyMm } from "../../metrology/gauge";
import { type SourcedObservation, sourcedFit } from "../../metrology/sourced-fit";
import type { Answer } from "../answer";
import type { Axis } from "../axes";
import { gaugeName, placingOf, readLengths, type SiteRead } from "../read-lengths";
import { distanceOf, type EdgeTerms, edgeAxes, edgeSite, type LinesLaid, ofEdge, placesAlong } from "./terms";

const TURN_RAD = 0.006;
const LEAN = 0.001;
/** How well the middle of a line is found by eye, or its width known, mm. (common practice, no source) */
const LINE_MM = 0.03;
const STRAY_MM = 0.01;
/** Half of the play of a drive: a line lies to one side or the other. (common practice, no source) */
const HALF_PLAY_MM = 0.02;

export type EdgesRead = {
  /** Measured minus nominal, away from its edge, at the corner; left out where the axis is not read. */
  errors: Partial<Record<Axis, Budgeted>>;
  /** Counter-clockwise, rad. */
  turn: Budgeted;
  read: SiteRead[];
};

/** Something that several readings have in common. */
type Term = { id: string; label: string; u: number; of: (r: SiteRead) => number };

/** @returns `null` before anything is read */
export function readEdges(
  terms: EdgeTerms,
  lines: LinesLaid,
  answers: readonly Answer[],
  gauges: readonly Gauge[],
): EdgesRead | null {
  const axes = edgeAxes(terms);
  const sites = axes.flatMap((axis) => ([1, 2] as const).map((which) => edgeSite(axis, which)));
  const read = readLengths(answers, sites, gauges);
  const seen = axes.filter((axis) => read.some((r) => ofEdge(r.site).axis === axis));
  if (seen.length === 0) return null;
  const inCommon = [
    ...layingTerms(terms, lines),
    ...gaugeTerms(read),
    ...seen.flatMap((axis) => lineTerms(terms, axis)),
  ].filter((term) => term.u > 0);
  const half = terms.measuredTo === "near" ? (terms.lineWidthMm ?? 0) / 2 : 0;
  const observations: SourcedObservation[] = [
    ...read.map((r) => ({
      row: [...seen.map((axis) => Number(ofEdge(r.site).axis === axis)), ...inCommon.map((term) => term.of(r))],
      ...{ y: r.mean + half - distanceOf(terms, ofEdge(r.site).axis), u: r.u, source: placingOf(r) },
    })),
    ...inCommon.map(({ id, label, u }, i) => ({
      row: [...seen.map(() => 0), ...inCommon.map((_, k) => Number(k === i))],
      ...{ y: 0, u, source: { id, label, kind: "B" as const, degreesOfFreedom: "infinite" as const } },
    })),
  ];
  const fit = sourcedFit(observations);
  if (!fit) return null;
  const unit = (k: number) => Array.from({ length: k + 1 }, (_, i) => Number(i === k));
  return {
    errors: Object.fromEntries(seen.map((axis, k) => [axis, fit.combine(unit(k))])),
    turn: fit.combine(unit(seen.length)),
    read,
  };
}

/** The turn comes first: it is asked for by its place. */
function layingTerms(terms: EdgeTerms, lines: LinesLaid): Term[] {
  const turned = turnSign(terms);
  return [
    {
      ...{ id: "turn", label: "How the stock lies turned", u: TURN_RAD },
      of: (r) => (ofEdge(r.site).axis === "x" ? turned : -turned) * alongOf(r, lines),
    },
    { id: "lean", label: "How Y leans", u: LEAN, of: (r) => (ofEdge(r.site).axis === "x" ? alongOf(r, lines) : 0) },
  ];
}

function gaugeTerms(read: readonly SiteRead[]): Term[] {
  const used = [...new Map(read.map((r) => [r.gauge.id, r.gauge])).values()];
  return used.flatMap((gauge) => {
    const of = (r: SiteRead) => Number(r.gauge.id === gauge.id);
    const name = gaugeName(gauge);
    return [
      { id: `limit ${gauge.id}`, label: `Limit of error, ${name}`, u: commonUncertaintyMm(gauge), of },
      { id: `zero ${gauge.id}`, label: `Zero of the jaws, ${name}`, u: zeroUncertaintyMm(gauge), of },
    ];
  });
}

/** Both readings of a line share where it lies and where its middle is taken to be. */
function lineTerms({ measuredTo }: EdgeTerms, axis: Axis): Term[] {
  const of = (r: SiteRead) => Number(ofEdge(r.site).axis === axis);
  return [
    { id: "line", label: measuredTo === "near" ? "Width of the line" : "Middle of the line", u: LINE_MM, of },
    { id: "stray", label: "How the axis strays", u: STRAY_MM, of },
    { id: "play", label: "From which side the line was come to", u: HALF_PLAY_MM, of },
  ];
}

function alongOf({ site }: SiteRead, lines: LinesLaid): number {
  const { axis, which } = ofEdge(site);
  return placesAlong(lines[axis])[which - 1] as number;
}

/** Whether a turn counter-clockwise takes the left or right edge away from its line (+1) or toward it, going away from the corner. */
function turnSign({ sideX, sideY }: Pick<EdgeTerms, "sideX" | "sideY">): 1 | -1 {
  return (sideX === "left") === (sideY === "back") ? -1 : 1;
}
