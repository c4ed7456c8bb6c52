/** The close-up of a row end: tips as they were read so far, and where the jaws go. */

import type { Feature } from "../../coupon/site";
import { ASKED, at, dimensionAcross, line, mark, words } from "../../drawing/close-up";
import type { Detail, Primitive, Tone } from "../../drawing/scene";
import { mean } from "../../fitting/repeats";
import { plain, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { REFERENCE_SITES } from "./coupon";
import type { ScanOffsetPlan } from "./plan";

/** Rows shown in the close-up, in row pitches from the middle. */
const ROWS = [2, 1, 0, -1, -2];
const RADIUS = 3.4;
const ROW_WIDTH = 0.3;
/** The step drawn, in row pitches, for a step of this many mm. */
const FULL_STEP_MM = 0.3;
const FULL_STEP_DRAWN = 1.4;
const [JAWS_Y, JAW_REACH] = [-1.5, 0.42];
/** Distance of the outline and reach of the rows of the other direction in the close-up, in row pitches. */
const [GAP_DRAWN, OTHER_ROWS_DRAWN] = [1.6, 0.5];
/** So far to the side, in radii, that words stay clear of the lines at the tips and of the edge. */
const LABEL_AT = 0.58;

export function detailOf(history: History<ScanOffsetPlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const read = quantitiesAt(round.answers, site.id);
  const value = focus.typed ?? (read.length > 0 ? mean(read) : null);
  const gap = site.measurand.kind === "row gap" && site.measurand.rows.kind === "row ends" ? site.measurand.rows : null;
  if (gap) return gapDetail(site.label, gap, value, lengthUnitOf(history));
  const reference = (Object.values(REFERENCE_SITES) as string[]).includes(site.id);
  const shown = value ?? (reference ? round.plan.referenceStepMm : FULL_STEP_MM);
  const right = site.id.endsWith("right");
  const drawn = clampStep(shown);
  const times = shown === 0 ? null : Math.abs(drawn / shown) * round.plan.rowPitchMm;
  return {
    title: `Detail, ${site.label}`,
    note:
      value === null
        ? "not read yet: step drawn as an example"
        : times === null
          ? "tip to tip between neighbouring rows"
          : `tip to tip; step drawn ${times < 1 ? `${plain(1 / times, 1)} times smaller` : `${plain(times, 1)} times larger`} than the pitch`,
    radius: RADIUS,
    primitives: [
      ...(reference ? referenceRows(drawn, right) : blockRows(drawn, right)),
      ...jaws(drawn, right, value === null ? "?" : shownNumber(Math.abs(value), lengthUnitOf(history), 2), reference),
    ],
  };
}

/** Rows of one direction beside the outline, the other rows faint, and the gap between the facing edges. */
function gapDetail(
  label: string,
  { end, going }: Extract<Feature, { kind: "row ends" }>,
  value: number | null,
  unit: LengthUnit,
): Detail {
  const side = end === "right" ? 1 : -1;
  const edge = side * (GAP_DRAWN - ROW_WIDTH / 2);
  return {
    title: `Detail, ${label}`,
    note: "from the tips to the near edge of the outline; not to scale",
    radius: RADIUS,
    primitives: [
      ...ROWS.map((row) => {
        const isAsked = (row % 2 === 0) === (going === "right");
        return rowMark(row, isAsked ? 0 : -side * OTHER_ROWS_DRAWN, end === "right", isAsked ? "ink" : "faint");
      }),
      rowLabel(going === "right" ? 0 : 1, end === "right", going === "right" ? "right-going →" : "← left-going"),
      mark(at(side * GAP_DRAWN, -RADIUS), at(side * GAP_DRAWN, RADIUS), ROW_WIDTH),
      line(at(0, 0), at(0, JAWS_Y - JAW_REACH / 2), ASKED),
      jawsAt(0, edge, value === null ? "?" : shownNumber(value, unit, 2)),
    ],
  };
}

function jawsAt(a: number, b: number, text: string): Primitive {
  return dimensionAcross(at(Math.min(a, b), JAWS_Y), at(Math.max(a, b), JAWS_Y), JAWS_Y, text, "needs you");
}

function clampStep(mm: number): number {
  const drawn = (mm / FULL_STEP_MM) * FULL_STEP_DRAWN;
  return Math.max(-2.4, Math.min(2.4, drawn));
}

/** Positive step: the end of right-going rows lies further right. */
function blockRows(step: number, right: boolean): Primitive[] {
  return ROWS.flatMap((row) => {
    const rightGoing = row % 2 === 0;
    const tip = (rightGoing ? step : -step) / 2;
    // Beside the outermost rows the round close-up leaves no room for words.
    const label = Math.abs(row) > 1 ? [] : [rowLabel(row, right, rightGoing ? "right-going →" : "← left-going")];
    return [rowMark(row, tip, right), ...label];
  });
}

function referenceRows(step: number, right: boolean): Primitive[] {
  return ROWS.map((row) => rowMark(row, ((row > 0 ? -step : step) / 2) * (right ? 1 : -1), right));
}

function rowMark(row: number, tip: number, right: boolean, tone: Tone = "ink"): Primitive {
  const far = right ? -RADIUS * 1.2 : RADIUS * 1.2;
  const cap = right ? -ROW_WIDTH / 2 : ROW_WIDTH / 2;
  return mark(at(far, row), at(tip + cap, row), ROW_WIDTH, tone);
}

function rowLabel(row: number, right: boolean, text: string): Primitive {
  return words(at((right ? -1 : 1) * RADIUS * LABEL_AT, row + 0.25), text, { tone: "faint" });
}

/** Two extension lines at the tips and the dimension between them. */
function jaws(step: number, right: boolean, text: string, reference: boolean): Primitive[] {
  const upper = reference ? ((right ? -1 : 1) * step) / 2 : step / 2;
  const foot = JAWS_Y - JAW_REACH / 2;
  return [
    line(at(upper, reference ? 1 : 0.15), at(upper, foot), ASKED),
    line(at(-upper, reference ? 0 : 1.15), at(-upper, foot), ASKED),
    jawsAt(upper, -upper, text),
  ];
}
