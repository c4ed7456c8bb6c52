/**
 * What was read of a bed: its plane by the readouts at which its places are in focus; the gap is the same everywhere by that.
 *
 *   z = a + b (x - xm) + c (y - ym) [+ d ((x - xm)^2 + (y - ym)^2)] + bow + scatter
 *
 * A number that grows when the head goes away is larger where the bed is higher. d is the curvature of a galvo's field, which centre and corners
 * tell from a tilt. Bow is how far a place of a sound bed stands off its plane.
 */

import { type Adjustment, adjust, combine } from "../../estimate/adjustment";
import { departure, type Model, type Observation, ofReadings, type Row, usual } from "../../estimate/model";
import { elementAt } from "../../fitting/element-at";
import { mean } from "../../fitting/repeats";
import type { MachineSpec } from "../../machine/machine-spec";
import { examinationOf } from "../../measuring/examined";
import { withoutLeftOut } from "../../measuring/length-readings";
import { type Eye, eyeGroup, type NotedPoint, notedHeights } from "../../measuring/noted-heights";
import type { Budgeted } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import { quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { type Place, placesOf, supportsOf } from "./places";
import type { BedTiltPlan } from "./plan";

/** How a place is found again, mm, before anybody came to one twice, and what that is worth. (common practice, no source) */
const EYE = { sdMm: 0.1, freedom: 2 };
/** How far a place of a bed stands off its plane, sd, mm: of a sound bed, and of one that is bowed a little. (common practice, no source) */
const [FLAT_MM, BOWED_MM] = [0.02, 0.1];
/** How much a bed leans from side to side before it is seen, sd, mm. (common practice, no source) */
const USUAL_LEAN_MM = 3;

export const LIFT = "lift";

type Point = { x: number; y: number };

export type BedPlane =
  | {
      status: "solved";
      /** Height at a place minus height at another, without curvature. */
      difference: (from: Point, to: Point) => Budgeted;
      /** d, 1/mm; `null` where it is not fitted. */
      curvature: Measured | null;
      /** The bed keeps no plane. */
      isBowed: boolean;
    }
  | { status: "in line" }
  | { status: "few" };

export type BedRead = {
  /** `offMm`: how far the readings of a place stand off the plane; `null` where there is none. */
  places: (Place & { read: number[]; offMm: number | null })[];
  plane: BedPlane;
  /** How much each support is to be raised, so that all are as high as the highest. */
  lifts: { support: Place; lift: Budgeted }[];
};

/** A number that grows when the head goes away is larger where the bed is higher. */
function heightSense({ readAt }: BedTiltPlan): 1 | -1 {
  return readAt === "scale, closer" ? -1 : 1;
}

export function isCurved({ places }: BedTiltPlan, { kind }: Pick<MachineSpec, "kind">): boolean {
  return kind === "galvo" && places !== "3";
}

export function readBed(history: History<BedTiltPlan>, round: RoundRecord<BedTiltPlan>): BedRead {
  const { plan } = round;
  const { machine } = history;
  const answers = withoutLeftOut(round.answers, history.decisions);
  const places = placesOf(plan, machine).map((p) => ({ ...p, read: quantitiesAt(answers, p.id), offMm: null }));
  const read = places.filter((p) => p.read.length > 0);
  if (read.length < neededFor(plan, machine)) return { places, plane: { status: "few" }, lifts: [] };
  const examined = examinationOf(history, round, observeBed);
  if (!examined) return { places, plane: { status: "in line" }, lifts: [] };
  const { adjustment, isLoose } = examined;
  const plane: BedPlane = {
    status: "solved",
    difference: (from, to) => combine(adjustment, differenceRow(from, to)),
    curvature: isCurved(plan, machine) ? combine(adjustment, { curve: 1 }).quantity : null,
    isBowed: isLoose,
  };
  return {
    places: places.map((p) => ({ ...p, offMm: p.read.length > 0 ? offPlane(adjustment, p.id) : null })),
    plane,
    lifts: liftsOf(plane, supportsOf(plan, machine)),
  };
}

export function neededFor(plan: BedTiltPlan, machine: Pick<MachineSpec, "kind">): number {
  return isCurved(plan, machine) ? 4 : 3;
}

/** @returns `null` while nothing is read; without results while too few places are, or those that are lie in one line */
export function observeBed(history: History<BedTiltPlan>, round: RoundRecord<BedTiltPlan>): Model | null {
  const { plan } = round;
  const { machine } = history;
  const readings = readingsOf(history, round);
  const places = placesOf(plan, machine).filter((p) => readings.some((r) => r.reading?.point === p.id));
  if (places.length === 0) return null;
  const model: Model = {
    observations: [
      ...readings,
      usual("across", "usual tilt across", USUAL_LEAN_MM / machine.widthMm),
      usual("away", "usual tilt away", USUAL_LEAN_MM / machine.depthMm),
      ...places.map((p) => ({
        ...departure(bowOf(p.id), "flatness of the bed", FLAT_MM, BOWED_MM),
        source: { id: "flatness", label: "Flatness of the bed", kind: "B" as const },
      })),
    ],
    groups: [eyeGroup(eyeOf(plan))],
    wanted: [],
  };
  const asRead = places.length < neededFor(plan, machine) ? null : adjust(ofReadings(model));
  if (!asRead) return model;
  const supports = supportsOf(plan, machine);
  const height = (p: Place) => combine(asRead, differenceRow({ x: 0, y: 0 }, p)).quantity.value;
  const sorted = supports.toSorted((a, b) => height(a) - height(b));
  const [lowest, highest] = [sorted[0], sorted.at(-1)];
  return {
    ...model,
    wanted: [
      ...(lowest && highest
        ? [{ id: LIFT, label: "the largest difference", row: differenceRow(lowest, highest), proves: 1 }]
        : []),
      { id: "across", label: "the tilt across", row: { across: machine.widthMm } },
      { id: "away", label: "the tilt away", row: { away: machine.depthMm } },
    ],
  };
}

const bowOf = (place: string) => `bow ${place}`;

function differenceRow(from: Point, to: Point): Row {
  return { across: to.x - from.x, away: to.y - from.y };
}

function eyeOf({ settableMm }: BedTiltPlan): Eye {
  return { ...EYE, stepMm: settableMm };
}

function readingsOf(history: History<BedTiltPlan>, round: RoundRecord<BedTiltPlan>): Observation[] {
  const { plan, answers } = round;
  const places = placesOf(plan, history.machine);
  const read = places.filter((p) => quantitiesAt(answers, p.id).length > 0);
  const middle = { x: mean(read.map((p) => p.x)), y: mean(read.map((p) => p.y)) };
  const points = places.map((place): NotedPoint => {
    const [x, y] = [place.x - middle.x, place.y - middle.y];
    const row = { height: 1, across: x, away: y, [bowOf(place.id)]: 1 };
    return {
      site: place.id,
      label: `point ${place.label}`,
      row: isCurved(plan, history.machine) ? { ...row, curve: x * x + y * y } : row,
    };
  });
  return notedHeights(history, round, points, {
    eye: eyeOf(plan),
    sense: heightSense(plan),
    sourceLabel: "Finding and reading each point",
  });
}

/** How far a place stands off the plane: its bow, and what its readings leave. */
function offPlane(adjustment: Adjustment, place: string): number {
  const { model, residuals, u } = adjustment;
  const left = model.observations.flatMap((o, i) =>
    o.reading?.point === place ? [elementAt(residuals, i) * elementAt(u, i)] : [],
  );
  return combine(adjustment, { [bowOf(place)]: 1 }).quantity.value + (left.length > 0 ? mean(left) : 0);
}

function liftsOf(
  { difference }: Extract<BedPlane, { status: "solved" }>,
  supports: readonly Place[],
): BedRead["lifts"] {
  const [first] = supports;
  if (!first) return [];
  const highest = supports.reduce((best, s) => (difference(best, s).quantity.value > 0 ? s : best), first);
  return supports.map((support) => ({ support, lift: difference(support, highest) }));
}
