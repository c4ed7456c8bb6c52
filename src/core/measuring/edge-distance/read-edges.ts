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
import { adjust, combine } from "../../estimate/adjustment";
import { type Model, ofReadings, usual } from "../../estimate/model";
import { AXES, type Axis } from "../../machine/machine-kind";
import type { Budgeted } from "../../metrology/budget";
import type { History, RoundRecord } from "../../trial/history";
import { axesOf } from "../axes-field";
import { modelWithKnown } from "../known-length";
import { type LengthReading, lengthReadings, type Term } from "../length-readings";
import { readLengths, type SiteRead } from "../read-lengths";
import {
  distanceOf,
  type EdgeTerms,
  edgeSite,
  type LinesLaid,
  ofEdge,
  PLACE_WORDS,
  PLACES,
  placeAlong,
  sideOf,
} from "./terms";

const TURN_RAD = 0.006;
const LEAN = 0.001;
/** How well the middle of a line is found by eye, or its width known, mm. (common practice, no source) */
const LINE_MM = 0.03;
const STRAY_MM = 0.01;
/** Half of the backlash of a drive, which moves a line to either side. (common practice, no source) */
const HALF_PLAY_MM = 0.02;

export type EdgesRead = {
  /** Measured minus nominal, away from its edge, at the corner; left out where the axis is not read. */
  errors: Partial<Record<Axis, Budgeted>>;
  /** Counter-clockwise, rad. */
  turn: Budgeted;
  read: SiteRead[];
};

/** Of each axis that is read. */
export function errorsRead({ errors }: EdgesRead): { axis: Axis; error: Budgeted }[] {
  return AXES.flatMap((axis) => {
    const error = errors[axis];
    return error ? [{ axis, error }] : [];
  });
}

/** How one procedure measures from edges. */
type EdgeProcedure<P extends EdgeTerms> = {
  linesOf: (plan: P) => LinesLaid;
  /** Id of the estimate that the error of an axis becomes. */
  estimateId: (axis: Axis) => string;
  /** What is measured from. */
  edge: "edge" | "stop";
  /** Usual error of a line before the first reading, sd, mm. */
  usualMm: number;
};

/** What a procedure reads off its lines, and the same readings as a model; `null` before the first reading. */
export function edgesOf<P extends EdgeTerms>(procedure: EdgeProcedure<P>) {
  const observe = (history: Known<P>, round: Burned<P>) => edgesModel(procedure, history, round);
  const read = (history: Known<P>, round: Burned<P>) => {
    const model = observe(history, round);
    return model && readEdges(procedure, model, history, round);
  };
  return { observe, read };
}

type Known<P> = Pick<History<P>, "gauges" | "decisions">;
type Burned<P> = Pick<RoundRecord<P>, "plan" | "answers">;

function readEdges<P extends EdgeTerms>(
  { estimateId }: EdgeProcedure<P>,
  model: Model,
  { gauges }: Known<P>,
  { plan: terms, answers }: Burned<P>,
): EdgesRead | null {
  const fit = adjust(ofReadings(model));
  if (!fit) return null;
  const seen = axesOf(terms).filter((axis) => model.wanted.some((w) => w.id === estimateId(axis)));
  return {
    errors: Object.fromEntries(seen.map((axis) => [axis, combine(fit, { [errorIn(axis)]: 1 })])),
    turn: combine(fit, { turn: 1 }),
    read: readLengths(answers, sitesOf(terms), gauges),
  };
}

/** The readings as a model: an error at the corner for each axis, and the turn of the stock that both share. */
function edgesModel<P extends EdgeTerms>(
  { linesOf, estimateId, edge, usualMm }: EdgeProcedure<P>,
  { gauges, decisions }: Known<P>,
  { plan: terms, answers }: Burned<P>,
): Model | null {
  const lines = linesOf(terms);
  const readings = lengthReadings(answers, sitesOf(terms), gauges, decisions);
  const seen = axesOf(terms).filter((axis) => readings.some((r) => ofEdge(r.site).axis === axis));
  if (seen.length === 0) return null;
  const half = terms.measuredTo === "near" ? terms.lineWidthMm / 2 : 0;
  return modelWithKnown(
    readings,
    terms,
    { answers, gauges, decisions },
    {
      jawsOf: () => "outside",
      lengthOf: (r) => distanceOf(terms, ofEdge(r.site).axis),
      row: (r) => ({ [errorIn(ofEdge(r.site).axis)]: 1 }),
      y: (r) => r.value + half - distanceOf(terms, ofEdge(r.site).axis),
      terms: [...layingTerms(terms, lines), ...seen.flatMap((axis) => lineTerms(terms, axis))],
      facts: (r) => {
        const { axis, which } = ofEdge(r.site);
        return {
          pointLabel: `the distance from the ${sideOf(terms, axis)} ${edge}, ${PLACE_WORDS[which]}`,
          signedByWords: false,
          axis,
        };
      },
      known: seen.map((axis) => usual(errorIn(axis), `usual error of ${axis.toUpperCase()}`, usualMm)),
      wanted: seen.map((axis) => ({
        id: estimateId(axis),
        label: `the error of ${axis.toUpperCase()}`,
        row: { [errorIn(axis)]: 1 },
        proves: 1,
      })),
    },
  );
}

const errorIn = (axis: Axis) => `error ${axis}`;

function sitesOf(terms: EdgeTerms): string[] {
  return axesOf(terms).flatMap((axis) => PLACES.map((which) => edgeSite(axis, which)));
}

/** The turn of the stock is no slip. It is fitted and removed. */
function layingTerms(terms: EdgeTerms, lines: LinesLaid): Term[] {
  const turned = turnSign(terms);
  return [
    {
      id: "turn",
      label: "turn of the stock",
      u: TURN_RAD,
      of: (r) => (ofEdge(r.site).axis === "x" ? turned : -turned) * alongOf(r, lines),
      canBeWrong: true,
    },
    {
      id: "lean",
      label: "squareness of Y",
      u: LEAN,
      of: (r) => (ofEdge(r.site).axis === "x" ? alongOf(r, lines) : 0),
      canBeWrong: false,
    },
  ];
}

/** Errors that all readings of a line share. */
function lineTerms({ measuredTo }: EdgeTerms, axis: Axis): Term[] {
  const of = (r: LengthReading) => Number(ofEdge(r.site).axis === axis);
  const name = axis.toUpperCase();
  const middle = measuredTo === "near" ? `width of the line of ${name}` : `middle of the line of ${name}`;
  return [
    { id: `line ${axis}`, label: middle, u: LINE_MM, of, canBeWrong: false },
    { id: `stray ${axis}`, label: `straightness of ${name}`, u: STRAY_MM, of, canBeWrong: false },
    { id: `play ${axis}`, label: `backlash of ${name}`, u: HALF_PLAY_MM, of, canBeWrong: false },
  ];
}

function alongOf({ site }: LengthReading, lines: LinesLaid): number {
  const { axis, which } = ofEdge(site);
  return placeAlong(lines[axis], which);
}

/** Whether a turn counter-clockwise takes the left or right edge away from its line (+1) or toward it, going away from the corner. */
function turnSign({ sideX, sideY }: Pick<EdgeTerms, "sideX" | "sideY">): 1 | -1 {
  return (sideX === "left") === (sideY === "back") ? -1 : 1;
}
