/**
 * The readings of the stagger as a model.
 *
 *   row end, signed by words:   y = S(v) +- (D + D_v)/2 + k c + k z + scatter       + at the right end, - at the left
 *   reference step:             y = L (1 + e) + c + z + scatter
 *   by the line:                S(v) + compensated = s0 + v tau + b q(v) + delta_v   tau = tau_on + tau_off
 *   one by one:                 S(v) free
 *   gap to the outline:         y = m - e C(v) - e d S(v)/2 - v delta/2 - d (D + D_v)/4 - h + c + z + scatter
 *
 * e is +1 at the right end and d is +1 for right-going rows. m is the drawn gap, C the shift of scanned rows against drawn lines,
 * h what the widths of tip and line, and a rectangle drawn around with backlash, take off every gap, delta = tau_off - tau_on. So
 * the gaps at both ends tell C from the lags that change the length of rows, and S once more.
 *
 * c and z are what a gauge always reads too much: k is the sign of the step, as the gauge reads its size. D is by how much
 * right-going rows are longer than left-going ones, D_v what a speed adds to it, delta_v how far the drive stands off the line, and b how
 * far its line bows: q is 0 at the slowest and the fastest speed and 1 halfway, so that s0 and tau are of the straight line through
 * both. Neighbouring speeds of a drive that bends stand off on the same side, which departures of their own would take for scatter. All are known
 * beforehand to be small, so that a row end that was misread contradicts its other end and the line.
 */
import { adjust, combine } from "../../estimate/adjustment";
import { departure, known, type Model, type Observation, ofReadings, type Row, usual } from "../../estimate/model";
import { normalCdf } from "../../fitting/normal";
import { mean } from "../../fitting/repeats";
import { gaugeTerms, type LengthReading, lengthReadings, modelOf } from "../../measuring/length-readings";
import { commonUncertaintyMm, readingUncertaintyMm } from "../../metrology/gauge";
import type { Measured } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { ENDS, type End, gapSiteId, REFERENCE_SITES, type RowEnd, signAt, siteId } from "./coupon";
import { SPACING_MM } from "./layout";
import { gapRow, knownOfGaps, wantedOfGaps } from "./observe-gaps";
import { hasOutline, type ScanOffsetPlan } from "./plan";
import { heldShift } from "./setting";

/** Relative uncertainty of the drawn size of the reference step: the scale of the axis. (0.2 %, common practice, no source) */
const AXIS_SCALE_U = 0.002;
/** By how much the step itself may be wrong where it is, sd, mm. (common practice, no source) */
const STEP_WRONG_BY_MM = 0.1;
/** How far a drive stands off the line at one speed, as stagger, sd, mm: a sound one, and one that bends gently. (common practice, no source) */
const [DEPARTURE_MM, GENTLE_MM] = [0.002, 0.008];
/** By how much rows of one direction may be longer, sd, mm, and what one speed adds to it. (common practice, no source) */
const [LONGER_MM, LONGER_AT_SPEED_MM] = [0.05, 0.005];
/** Lag and stagger before they are seen, sd. (common practice, no source) */
const [USUAL_LAG_S, USUAL_START_MM, USUAL_STAGGER_MM] = [0.001, 0.1, 0.5];
export const LAG = "lag";
export const START = "start";
export const LONGER = "longer";
const BOW = "bow";
/** Stagger halfway between the slowest and the fastest speed, off the line through both, sd, mm: of a sound drive, and of one that bends gently. (common practice, no source) */
const [BOW_MM, GENTLE_BOW_MM] = [0.004, 0.03];

type Round = RoundRecord<ScanOffsetPlan>;
type Reading = LengthReading & { at: End | null; round: Round };

/** Each speed by itself. */
export function observeOneByOne(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): Model | null {
  return modelFor(history, round, { speeds: [], compensatedMm: () => 0 });
}

/** Staggers by the readings at each speed alone, as they are, without looking for slips. */
export function staggersOneByOne(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
): { speedMmPerS: number; stagger: Measured }[] {
  const model = observeOneByOne({ ...history, rounds: [round] }, round);
  const adjustment = model && adjust(ofReadings(model));
  if (!adjustment) return [];
  return speedsRead(history, round).map((speedMmPerS) => ({
    speedMmPerS,
    stagger: combine(adjustment, staggerRow(speedMmPerS, [])).quantity,
  }));
}

/** Speeds that are read, rising. */
export function speedsRead(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): number[] {
  const read = readingsOf(history, [round]).flatMap((r) => (r.at ? [r.at.speedMmPerS] : []));
  return [...new Set(read)].sort((a, b) => a - b);
}

/** Parameters that make up the stagger at a speed, where a line is fitted: what is left of it beside what is compensated. */
export function lineRow(speedMmPerS: number, lineSpeeds: readonly number[]): Row {
  return { [START]: 1, [LAG]: speedMmPerS, [BOW]: bowAt(speedMmPerS, lineSpeeds) };
}

/** 0 at the slowest and at the fastest speed of a line, 1 halfway. */
function bowAt(speedMmPerS: number, lineSpeeds: readonly number[]): number {
  const [slow, fast] = [Math.min(...lineSpeeds), Math.max(...lineSpeeds)];
  return (4 * (speedMmPerS - slow) * (fast - speedMmPerS)) / (fast - slow) ** 2;
}

/** What one speed has for itself. */
export const ownOf = (speedMmPerS: number) => `at ${speedMmPerS}`;

/** Speeds that lie on a line once what was compensated is added. */
export type OnLine = { speeds: readonly number[]; compensatedMm: (speedMmPerS: number) => number };

export function modelFor(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  { speeds: lineSpeeds, compensatedMm }: OnLine,
): Model | null {
  const rounds = [round, ...history.rounds.filter((r) => r !== round)];
  const readings = readingsOf(history, rounds).filter((r) => r.at === null || r.round === round);
  const ends = readings.filter((r) => r.at !== null);
  // A step that was read with a gauge says nothing of another.
  const gaugesUsed = new Set((ends.length > 0 ? ends : readings).map((r) => r.gauge.id));
  const used = readings.filter((r) => gaugesUsed.has(r.gauge.id));
  if (used.length === 0) return null;
  const speeds = [...new Set(ends.flatMap((r) => (r.at ? [r.at.speedMmPerS] : [])))].sort((a, b) => a - b);
  const bothEnds = new Set(ends.map((r) => r.at?.end)).size === 2;
  const gapSpeeds = speeds.filter((v) => ends.some((r) => r.at?.going && r.at.speedMmPerS === v));
  const gapGauges = [...new Set(ends.flatMap((r) => (r.at?.going ? [r.gauge.id] : [])))];
  const lineShare = ({ at }: Reading) =>
    at && lineSpeeds.includes(at.speedMmPerS) ? staggerShare(at) * compensatedMm(at.speedMmPerS) : 0;
  const sizes = sizesOf(used);
  const signOf = (r: Reading) => signShare(r, sizes);
  const model = modelOf(used, {
    row: (r) => (r.at ? rowOf(r.at, lineSpeeds, gapRow(r.at, r.gauge.id)) : { scale: r.round.plan.referenceStepMm }),
    y: (r) => r.value - drawnMm(r) + lineShare(r),
    terms: gaugeTerms(used, {
      jawsOf: () => "outside",
      lengthOf: (r) => (isStagger(r) ? (sizes.get(r.at.speedMmPerS) ?? 0) : drawnMm(r)),
    }).map((term) => ({
      ...term,
      of: (r) => signOf(r) * term.of(r),
    })),
    facts: (r) => ({
      pointLabel: labelOf(r),
      signedByWords: isStagger(r),
      sizeSign: signOf(r),
      ...(r.at ? { place: `${r.at.speedMmPerS}`, placeLabel: `${plain(r.at.speedMmPerS)} mm/s` } : {}),
    }),
    known: [
      ...speeds.map((v) => ownKnown(v, lineSpeeds)),
      ...(lineSpeeds.length > 0
        ? [usual(LAG, "usual lag", USUAL_LAG_S), usual(START, "usual stagger at low speed", USUAL_START_MM), bowKnown()]
        : []),
      ...(ends.length > 0
        ? [
            known(LONGER, "equal length of rows in both directions", {
              u: bothEnds ? LONGER_MM : LONGER_AT_SPEED_MM,
              canBeWrong: false,
            }),
          ]
        : []),
      ...speeds.map((v) => ({
        ...known(`${LONGER} ${v}`, "equal length of rows", { u: LONGER_AT_SPEED_MM, canBeWrong: false }),
        source: { id: LONGER, label: "Length of rows in both directions", kind: "B" as const },
      })),
      ...(gapSpeeds.length > 0 ? knownOfGaps(gapSpeeds, gapGauges) : []),
      ...(used.some((r) => r.at === null)
        ? [known("scale", "drawn size of the reference step", stepUncertainty(round))]
        : []),
    ],
    wanted: [
      ...speeds.map((v) => ({
        id: `offset ${plain(v)}`,
        label: `the stagger at ${plain(v)} mm/s`,
        row: halved(staggerRow(v, lineSpeeds)),
        // The tolerance is one of the stagger.
        proves: 2,
      })),
      ...(lineSpeeds.length > 0
        ? [
            { id: "lag", label: "the lag", row: { [LAG]: 0.5 } },
            { id: "constant", label: "the constant part", row: { [START]: 0.5 } },
          ]
        : []),
      ...wantedOfGaps(gapSpeeds, heldShift(round.plan, history.machine)),
    ],
  });
  const nothing = new Map(used.flatMap((r) => (r.value === 0 && !r.at?.going ? [[r.id, r]] : [])));
  return { ...model, observations: model.observations.map((o) => withUnsigned(o, nothing.get(o.id))) };
}

/** The stagger at a speed that is read. */
export function staggerRow(speedMmPerS: number, lineSpeeds: readonly number[]): Row {
  const own = { [ownOf(speedMmPerS)]: 1 };
  return lineSpeeds.includes(speedMmPerS) ? { ...lineRow(speedMmPerS, lineSpeeds), ...own } : own;
}

function halved(row: Row): Row {
  return Object.fromEntries(Object.entries(row).map(([id, c]) => [id, c / 2]));
}

/** How much of the stagger a reading shows. */
function staggerShare({ end, going }: End): number {
  return going === null ? 1 : (-signAt(end) * signAt(going)) / 2;
}

/** The stagger and the length of rows in each direction, with what a gap shows besides. */
function rowOf(at: End, lineSpeeds: readonly number[], more: Row): Row {
  const { speedMmPerS, going } = at;
  const longer = going === null ? signAt(at.end) / 2 : -signAt(going) / 4;
  const stagger = Object.entries(staggerRow(speedMmPerS, lineSpeeds)).map(([id, c]) => [id, staggerShare(at) * c]);
  return { ...Object.fromEntries(stagger), [LONGER]: longer, [`${LONGER} ${speedMmPerS}`]: longer, ...more };
}

function isStagger(r: Reading): r is Reading & { at: End } {
  return r.at !== null && r.at.going === null;
}

/** What the reading would be if nothing were off. */
function drawnMm({ at, round }: Reading): number {
  if (at === null) return round.plan.referenceStepMm;
  return at.going === null ? 0 : SPACING_MM.outline;
}

function ownKnown(speedMmPerS: number, lineSpeeds: readonly number[]): Observation {
  const id = ownOf(speedMmPerS);
  if (!lineSpeeds.includes(speedMmPerS)) return usual(id, "usual stagger", USUAL_STAGGER_MM);
  return {
    ...departure(id, "straightness of the line", DEPARTURE_MM, GENTLE_MM),
    source: { id: "departure", label: "Departure from the line", kind: "B" },
  };
}

function bowKnown(): Observation {
  return {
    ...departure(BOW, "straightness of the line", BOW_MM, GENTLE_BOW_MM),
    source: { id: "departure", label: "Departure from the line", kind: "B" },
  };
}

function stepUncertainty({ plan }: RoundRecord<ScanOffsetPlan>) {
  return { u: AXIS_SCALE_U, wrongBy: STEP_WRONG_BY_MM / plan.referenceStepMm };
}

/** Mean of the readings at each speed, mm. */
function sizesOf(readings: readonly Reading[]): Map<number, number> {
  const bySpeed = new Map<number, number[]>();
  for (const { at, value } of readings)
    if (at?.going === null) bySpeed.set(at.speedMmPerS, [...(bySpeed.get(at.speedMmPerS) ?? []), value]);
  return new Map([...bySpeed].map(([v, values]) => [v, mean(values)]));
}

/**
 * Which way the common error of a gauge points in a reading, -1 to 1: what it always reads too much is added to the size, and a
 * step within the scatter is read with either sign. Taken from the step at that speed, not from the sign of each reading, as that hangs together
 * with the reading's own error.
 */
function signShare({ at, gauge }: Reading, sizes: ReadonlyMap<number, number>): number {
  return at?.going === null ? 2 * normalCdf((sizes.get(at.speedMmPerS) ?? 0) / readingUncertaintyMm(gauge)) - 1 : 1;
}

/** A reading of nothing only says that the step is smaller than what the gauge may hide: its common error has no sign there. */
function withUnsigned(o: Observation, reading: Reading | undefined): Observation {
  if (!reading) return o;
  return { ...o, u: Math.hypot(o.u, commonUncertaintyMm(reading.gauge)) };
}

function readingsOf(
  { gauges, decisions }: Pick<History<ScanOffsetPlan>, "gauges" | "decisions">,
  rounds: readonly RoundRecord<ScanOffsetPlan>[],
): Reading[] {
  return rounds.flatMap((round) => {
    const going: readonly (RowEnd | null)[] = hasOutline(round.plan) ? [null, ...ENDS] : [null];
    const ends = round.plan.speedsMmPerS.flatMap((speedMmPerS) =>
      ENDS.flatMap((end) =>
        going.map((g) => ({ site: endSite(speedMmPerS, end, g), at: { speedMmPerS, end, going: g } })),
      ),
    );
    const references = Object.values(REFERENCE_SITES).map((site) => ({ site, at: null }));
    const places = new Map<string, End | null>([...ends, ...references].map(({ site, at }) => [site, at]));
    return lengthReadings(round.answers, [...places.keys()], gauges, decisions).map((r) => ({
      ...r,
      round,
      at: places.get(r.site) ?? null,
    }));
  });
}

function endSite(speedMmPerS: number, end: RowEnd, going: RowEnd | null): string {
  return going === null ? siteId(speedMmPerS, end) : gapSiteId(speedMmPerS, end, going);
}

function labelOf({ at, site }: Reading): string {
  if (at?.going) return `${plain(at.speedMmPerS)} mm/s, ${at.end} gap of ${at.going}-going rows`;
  if (at) return `${plain(at.speedMmPerS)} mm/s, ${at.end} end`;
  return site === REFERENCE_SITES.left ? "the reference step, left end" : "the reference step, right end";
}
