/** The whole field corrected at once, by a table in the controller or by drawings that are bent the other way. */

import type { Figure } from "../../drawing/figure";
import type { FieldTerm } from "../../geometry/field-term";
import { holdOf, numberCorrection, numberIn, worthOf } from "../../measuring/number-correction";
import { measured } from "../../metrology/measured";
import { fixed, signed } from "../../metrology/quantity-text";
import { type FieldTable, fieldTableText } from "../../settings/field-table";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow, Finding } from "../../trial/outcome";
import { arrows, fieldFigures, remains } from "./figures";
import { type FieldFound, uncertaintyAt, worstOf } from "./found";
import { gridIn } from "./grid/observe";
import { type FieldMap, gridOf, type Vector, worstPoint } from "./map";
import { type FieldPlan, heldCoefficients, isReplacing, takenAs } from "./plan";
import { presentMap } from "./present";
import { fieldKey, fieldSetting, MAP_KEYS } from "./setting";
import { betweenNodes, commanded, tableAfter, tableIn } from "./table";
import { TABLE_SIZES, tableFormOf, tableSideMm, tableWish } from "./table-form";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

/** Corrections of a field, with findings and figures. */
export type Solved = Pick<
  Extract<GivenOutcome, { status: "solved" }>,
  "corrections" | "learned" | "predicted" | "wishes" | "artefacts"
> & { findings: Finding[]; figures: Figure[] };

/** Digits in which a shift is shown, mm. */
const DECIMALS = 3;

export function mapSolved(history: H, round: Round, found: FieldFound): Solved {
  const taken = takenAs(round.plan) === "artwork" ? "artwork" : "table";
  const key = MAP_KEYS[taken];
  const before = tableIn(round.inForce, key);
  const read = round.plan.how === "grid" ? gridIn(history, round) : null;
  const present = presentMap(history, round);
  const replaced = isReplacing(round.plan) ? heldCoefficients(history.machine) : [];
  const isKnown = replaced.every((term) => present[term] !== undefined);
  const next =
    before && read && isKnown ? tableAfter(withForm(before, round, present, replaced), read.map, found.reachMm) : null;
  const worst = worstOf(found);
  return {
    corrections:
      before && next
        ? [correctionOf(found, key, before, next), ...replaced.flatMap((term) => zeroed(history, round, term))]
        : [],
    findings: read ? [] : [squareOnly(taken)],
    figures: next ? figuresOf(history, found, next, taken) : fieldFigures(found, found.to).slice(0, 1),
    learned: {},
    wishes: next && taken === "table" ? [tableWish(history, round.plan, next)] : [],
    artefacts: [],
    predicted: `${taken === "table" ? "Load the table" : "Bend the drawing"} and burn again. The farthest point is ${fixed(worst.quantity.value, 3)} mm off now.`,
  };
}

/** c' = c(f^-1): what coefficients do that are set to 0 goes into the table, after all that it undoes. */
function withForm(before: FieldTable, { plan }: Round, present: FieldMap, replaced: readonly FieldTerm[]): FieldTable {
  const mm = Object.fromEntries(replaced.flatMap((term) => (present[term] ? [[term, present[term]]] : [])));
  if (Object.keys(mm).length === 0) return before;
  return { ...before, form: { halfMm: plan.fieldMm / 2, mm: { ...before.form?.mm, ...mm } } };
}

function zeroed({ machine }: H, round: Round, term: FieldTerm): Correction[] {
  const spec = fieldSetting(fieldKey(term));
  const old = numberIn(round, spec.key);
  if (old === null || old === 0) return [];
  return [
    numberCorrection(machine, {
      spec,
      estimate: "worst",
      old,
      change: measured(-old, holdOf(machine, spec).step / Math.sqrt(12), Infinity),
      heldBack: null,
      arithmetic: ["the table replaces this coefficient"],
      leaves: () => "rounding leaves nothing",
    }),
  ];
}

const CORNERS = gridOf(2);

/** The field as it is, what the correction shifts and, of a table, what is left between its nodes. */
function figuresOf(history: H, found: FieldFound, next: FieldTable, taken: "table" | "artwork"): Figure[] {
  const shifts = arrows("field shifts", "What the correction shifts", found.reachMm, (at) => commanded(next, at));
  const before = fieldFigures(found, found.to).slice(0, 1);
  if (taken === "artwork") return [...before, shifts];
  const read = tableFormOf(history.decisions);
  const across = read.ok ? read.form.across : Number(TABLE_SIZES[0]);
  const u = Math.max(...CORNERS.map((c) => uncertaintyAt(found, { x: c.x * found.reachMm, y: c.y * found.reachMm })));
  const own: FieldTable = { shape: "map", undone: next.undone.slice(-1), form: null };
  const left = (at: Vector) => found.to(betweenNodes(own, across, tableSideMm(history.machine), at));
  return [
    ...before,
    arrows(
      "field after",
      `As it will be, with ${across} × ${across} nodes, ± ${fixed(u, DECIMALS)} mm`,
      found.reachMm,
      left,
    ),
    remains(found, left),
    shifts,
  ];
}

/** A square shows too little to make a table. */
function squareOnly(taken: "table" | "artwork"): Finding {
  return {
    id: "square only",
    tone: "note",
    site: null,
    headline: `A square cannot make ${taken === "table" ? "a table" : "bent artwork"}.`,
    text: "The square shows whether the field is right. Burn a grid of dots to correct the field.",
  };
}

function correctionOf(found: FieldFound, key: string, before: FieldTable, next: FieldTable): Correction {
  const spec = fieldSetting(key);
  const [old, now] = [before, next].map((t) => worstPoint((at) => commanded(t, at), found.reachMm)) as [
    ReturnType<typeof worstPoint>,
    ReturnType<typeof worstPoint>,
  ];
  const worst = worstOf(found).quantity;
  const enter = Number(now.mm.toFixed(DECIMALS));
  const row: CorrectionRow = {
    key,
    label: `${spec.label}, largest shift`,
    estimate: "worst",
    at: null,
    old: Number(old.mm.toFixed(DECIMALS)),
    change: { ...worst, value: now.mm - old.mm },
    changeText: signed(now.mm - old.mm, DECIMALS),
    enter,
    rounding: enter - now.mm,
    arithmetic: [
      `in force during the burn: ${fieldTableText(before)}`,
      "new correction at a point = correction in force at the point that the burn put there",
      `largest shift ${fixed(now.mm, DECIMALS)} mm, at X ${signed(now.at.x, 1)}, Y ${signed(now.at.y, 1)} mm from the middle`,
    ],
    worth: worthOf(worst, 0),
    heldBack: null,
  };
  return {
    setting: key,
    label: spec.label,
    unit: "mm",
    decimals: DECIMALS,
    rows: [row],
    newValue: next,
    choice: null,
  };
}
