/**
 * What the gaps between rows and the outline of their block show besides the stagger: the shift of scanned rows against drawn
 * lines, and how much longer or shorter than drawn the rows are. The equations are those of the whole model, beside it.
 */
import { known, type Observation, type Row, usual, type Wanted } from "../../estimate/model";
import { plain } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import { type End, signAt } from "./coupon";
import type { HeldShift } from "./setting";

/** Shift of scanned rows before it is seen, sd, mm. (common practice, no source) */
const USUAL_SHIFT_MM = 0.3;
/** Difference of the two lags before it is seen, sd, s, and what else changes the length of rows at a speed, sd, mm. (common practice, no source) */
const [USUAL_LAG_DIFFERENCE_S, LENGTH_AT_SPEED_MM] = [0.0005, 0.005];
/** What widths and backlash take off a gap, sd, mm. (common practice, no source) */
const HIDDEN_MM = 0.3;
/** tau_off - tau_on: it makes rows longer. */
export const LAG_DIFFERENCE = "lag difference";

const shiftAt = (speedMmPerS: number) => `shift at ${speedMmPerS}`;

/** A shift that is wanted: of one speed, or of several together where a controller stores one value for all. */
export type ShiftPlace = { id: string; label: string; at: number | null; speeds: readonly number[] };

/** @param gapSpeeds at which gaps are read */
export function shiftPlaces(gapSpeeds: readonly number[], shiftIs: HeldShift): ShiftPlace[] {
  if (gapSpeeds.length === 0) return [];
  if (shiftIs !== "by speed") return [{ id: "shift", label: "Shift of scanned rows", at: null, speeds: gapSpeeds }];
  return gapSpeeds.map((v) => ({
    id: `shift at ${plain(v)}`,
    label: `Shift of rows at ${plain(v)} mm/s`,
    at: v,
    speeds: [v],
  }));
}

/** The mean over its speeds. */
export function shiftRow({ speeds }: Pick<ShiftPlace, "speeds">): Row {
  return Object.fromEntries(speeds.map((v) => [shiftAt(v), 1 / speeds.length]));
}

/** What a gap shows besides the stagger; nothing of other readings. */
export function gapRow(at: End, gauge: string): Row {
  if (at.going === null) return {};
  const v = at.speedMmPerS;
  return {
    [shiftAt(v)]: -signAt(at.end),
    [LAG_DIFFERENCE]: -v / 2,
    [`length ${v}`]: -0.5,
    [`hidden ${gauge}`]: -1,
  };
}

/** @param gauges ids of those with which gaps are read */
export function knownOfGaps(gapSpeeds: readonly number[], gauges: readonly string[]): Observation[] {
  return [
    ...gapSpeeds.map((v) => usual(shiftAt(v), "usual shift of scanned rows", USUAL_SHIFT_MM)),
    usual(LAG_DIFFERENCE, "usual difference of the lags", USUAL_LAG_DIFFERENCE_S),
    ...gapSpeeds.map((v) => ({
      ...known(`length ${v}`, "length of rows by the lags alone", { u: LENGTH_AT_SPEED_MM, canBeWrong: false }),
      source: { id: "length at speed", label: "Length of rows by the lags alone", kind: "B" as const },
    })),
    ...gauges.map((id) =>
      known(`hidden ${id}`, "width of tips and lines in the gaps", { u: HIDDEN_MM, canBeWrong: false }),
    ),
  ];
}

export function wantedOfGaps(gapSpeeds: readonly number[], shiftIs: HeldShift): Wanted[] {
  return [
    ...shiftPlaces(gapSpeeds, shiftIs).map((place) => ({
      id: place.id,
      label: withinSentence(place.label),
      row: shiftRow(place),
      ...(shiftIs === null ? {} : { proves: 1 }),
    })),
    ...(gapSpeeds.length > 0
      ? [{ id: LAG_DIFFERENCE, label: "the difference of the lags", row: { [LAG_DIFFERENCE]: 1 } }]
      : []),
  ];
}
