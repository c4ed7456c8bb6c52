/** The close-up of a row end: tips as they were read so far, and where the jaws go. */

import type { Feature } from "../../coupon/site";
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
const JAW_REACH = 0.42;
/** Distance of the outline and reach of the rows of the other direction in the close-up, in row pitches. */
const [GAP_DRAWN, OTHER_ROWS_DRAWN] = [1.6, 0.5];
const [INK, FAINT] = ["ink", "faint"] as const;
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
  const line = side * GAP_DRAWN;
  const at = -1.5;
  const edge = line - (side * ROW_WIDTH) / 2;
  return {
    title: `Detail, ${label}`,
    note: "from the tips to the near edge of the outline; not to scale",
    radius: RADIUS,
    primitives: [
      ...ROWS.map((row) => {
        const isAsked = (row % 2 === 0) === (going === "right");
        return {
          ...rowStroke(row, isAsked ? 0 : -side * OTHER_ROWS_DRAWN, end === "right"),
          tone: isAsked ? INK : FAINT,
        };
      }),
      rowLabel(going === "right" ? 0 : 1, end === "right", going === "right" ? "right-going →" : "← left-going"),
      upright(line, -RADIUS, RADIUS, "mark", INK),
      upright(0, 0, at - JAW_REACH / 2, "thin", "needs you"),
      {
        kind: "dimension",
        from: { x: Math.min(0, edge), y: at },
        to: { x: Math.max(0, edge), y: at },
        along: "x",
        at,
        text: value === null ? "?" : shownNumber(value, unit, 2),
        tone: "needs you",
      },
    ],
  };
}

function upright(x: number, from: number, to: number, weight: "mark" | "thin", tone: Tone): Primitive {
  return {
    kind: "stroke",
    points: [
      { x, y: from },
      { x, y: to },
    ],
    closed: false,
    weight,
    widthMm: weight === "mark" ? ROW_WIDTH : 0,
    dashed: false,
    tone,
  };
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
    return [rowStroke(row, tip, right), ...label];
  });
}

function referenceRows(step: number, right: boolean): Primitive[] {
  return ROWS.map((row) => rowStroke(row, ((row > 0 ? -step : step) / 2) * (right ? 1 : -1), right));
}

function rowStroke(row: number, tip: number, right: boolean): Primitive {
  const far = right ? -RADIUS * 1.2 : RADIUS * 1.2;
  const cap = right ? -ROW_WIDTH / 2 : ROW_WIDTH / 2;
  return {
    kind: "stroke",
    points: [
      { x: far, y: row },
      { x: tip + cap, y: row },
    ],
    closed: false,
    weight: "mark",
    widthMm: ROW_WIDTH,
    dashed: false,
    tone: "ink",
  };
}

function rowLabel(row: number, right: boolean, text: string): Primitive {
  return {
    kind: "text",
    at: { x: (right ? -1 : 1) * RADIUS * LABEL_AT, y: row + 0.25 },
    text,
    anchor: "middle",
    size: 1,
    tone: "faint",
  };
}

/** Two extension lines at the tips and the dimension between them. */
function jaws(step: number, right: boolean, text: string, reference: boolean): Primitive[] {
  const tone: Tone = "needs you";
  const upper = reference ? ((right ? -1 : 1) * step) / 2 : step / 2;
  const at = -1.5;
  const first = right ? upper : -upper;
  return [
    upright(upper, reference ? 1 : 0.15, at - JAW_REACH / 2, "thin", tone),
    upright(-upper, reference ? 0 : 1.15, at - JAW_REACH / 2, "thin", tone),
    {
      kind: "dimension",
      from: { x: Math.min(first, -first), y: at },
      to: { x: Math.max(first, -first), y: at },
      along: "x",
      at,
      text,
      tone,
    },
  ];
}
