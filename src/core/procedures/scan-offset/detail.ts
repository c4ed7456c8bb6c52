/** The close-up of a row end: tips as they were read so far, and where the jaws go. */

import type { Detail, Primitive, Tone } from "../../drawing/scene";
import { mean } from "../../fitting/repeats";
import { plain, shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../answer";
import type { Focus, History } from "../contract";
import { lengthUnitOf } from "../shown-unit";
import { REFERENCE_SITES } from "./coupon";
import type { ScanOffsetPlan } from "./plan-type";

/** Rows shown in the close-up, in row pitches from the middle. */
const ROWS = [2, 1, 0, -1, -2];
const RADIUS = 3.4;
const ROW_WIDTH = 0.3;
/** The step drawn, in row pitches, for a step of this many mm. */
const FULL_STEP_MM = 0.3;
const FULL_STEP_DRAWN = 1.4;
const JAW_REACH = 0.42;
/** So far to the side, in radii, that words stay clear of the lines at the tips and of the edge. */
const LABEL_AT = 0.58;

export function detailOf(history: History<ScanOffsetPlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const read = quantitiesAt(round.answers, site.id);
  const value = focus.typed ?? (read.length > 0 ? mean(read) : null);
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
  const line = (x: number, from: number, to: number): Primitive => ({
    kind: "stroke",
    points: [
      { x, y: from },
      { x, y: to },
    ],
    closed: false,
    weight: "thin",
    widthMm: 0,
    dashed: false,
    tone,
  });
  const at = -1.5;
  const first = right ? upper : -upper;
  return [
    line(upper, reference ? 1 : 0.15, at - JAW_REACH / 2),
    line(-upper, reference ? 0 : 1.15, at - JAW_REACH / 2),
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
