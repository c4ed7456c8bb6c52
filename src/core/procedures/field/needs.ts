/** What each setting has to change, in mm at the corner of the field, with the uncertainty that the readings leave. */
import type { Row } from "../../estimate/model";
import { remembering } from "../../measuring/remembering";
import type { Budgeted } from "../../metrology/budget";
import { type Composed, composed } from "./compose";
import { type MapTerm, mapped, unmapped, type Vector } from "./map";
import { type FieldPlan, settableTerms } from "./plan";
import { presentMap } from "./present";
import { foundIn } from "./ways";

export type Need = {
  term: MapTerm;
  /** By how much the controller has to move the corner more, mm: minus the error that is left. */
  need: Budgeted;
};

export type Needs = { needs: Need[]; composed: Composed };

/** @returns `null` until the field is read, or when the terms of the plan cannot be told apart */
export const needsOf = remembering<FieldPlan, Needs | null>((history, round) => {
  const { plan } = round;
  const found = foundIn(history, round);
  if (!found) return null;
  const half = plan.fieldMm / 2;
  const present = presentMap(history, round);
  const made = composed(found, present, settableTerms(plan), half);
  if (!made) return null;
  const needs = settableTerms(plan).map((term): Need => {
    const value = (made.controller[term] ?? 0) - (present[term] ?? 0);
    const spread = found.combined(rowOf(term, plan, found.terms));
    return { term, need: { ...spread, quantity: { ...spread.quantity, value } } };
  });
  return { needs, composed: made };
});

/** How an error of a solved term enters what a setting needs, up to its sign: what the controller cannot hold goes partly into what it can. */
function rowOf(term: MapTerm, plan: FieldPlan, errors: readonly MapTerm[]): Row {
  const settable = settableTerms(plan);
  const row: Record<string, number> = {};
  for (const error of errors) {
    const share = sharesOf(settable, error)[term] ?? 0;
    if (Math.abs(share) > 1e-6) row[error] = share;
  }
  return row;
}

const remembered = new Map<string, Readonly<Record<string, number>>>();

/** An error so small that settings answer it in proportion, as a share of half the field. */
const SMALL = 1e-3;

/** What a small error of one term asks of each setting, mm per mm: the same in fields of all sizes. */
function sharesOf(settable: readonly MapTerm[], error: MapTerm): Readonly<Record<string, number>> {
  const key = `${settable.join()}|${error}`;
  const before = remembered.get(key);
  if (before) return before;
  const map = { [error]: SMALL };
  const seen = { to: (at: Vector) => mapped(map, at, 1), from: (at: Vector) => unmapped(map, at, 1) };
  const made = composed(seen, {}, settable, 1)?.controller ?? {};
  const shares = Object.fromEntries(settable.map((t) => [t, (made[t] ?? 0) / SMALL]));
  remembered.set(key, shares);
  return shares;
}
