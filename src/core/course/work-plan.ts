/** The work on a machine in its order: on the first day, after another lens or any other change, or when a check is due. */
import { firstToDo, type Stands, type State } from "./state";

export type ToPlan = Stands & {
  procedure: Stands["procedure"] & { title: string };
  state: State;
  /** Start of this state, ms; `null` if it was never done. */
  since: number | null;
  /** A proof exists, valid or not. */
  wasProved: boolean;
};

export type PlanLine<S extends ToPlan> = {
  of: S;
  /** Valid now. */
  done: boolean;
  /** Titles of procedures in the plan that need a setting which this procedure corrects. */
  before: string[];
};

export type Occasion = "first day" | "later";

export type WorkPlan<S extends ToPlan> = {
  occasion: Occasion;
  /** Finished lines, then open lines in order. */
  lines: PlanLine<S>[];
};

/**
 * The plan of the first day lists all procedures that belong to the machine, until each is proved. A later plan lists open procedures, and
 * procedures that were proved since the oldest of them was opened.
 *
 * @param stands in practice order
 * @returns `null` if nothing is open
 */
export function workPlan<S extends ToPlan>(stands: readonly S[]): WorkPlan<S> | null {
  const isFirstDay = stands.some((s) => !s.wasProved && !s.procedure.occasional);
  const open = stands.filter(needsWork);
  if (!isFirstDay && open.length === 0) return null;
  const from = Math.min(...open.map((s) => s.since ?? Number.POSITIVE_INFINITY));
  const isPlanned = (s: S) =>
    needsWork(s) || (isFirstDay ? !s.procedure.occasional : s.state === "holding" && (s.since ?? 0) > from);
  const planned = stands.filter(isPlanned);
  const done = planned.filter((s) => s.state === "holding");
  const ordered = [...done, ...inOrder(planned.filter((s) => s.state !== "holding"))];
  return {
    occasion: isFirstDay ? "first day" : "later",
    lines: ordered.map((of) => ({ of, done: of.state === "holding", before: dependentsOf(of, ordered) })),
  };
}

/** Out of date, due for a check, or under way. */
function needsWork({ state }: ToPlan): boolean {
  return state !== "holding" && state !== "not done";
}

function inOrder<S extends ToPlan>(left: readonly S[]): S[] {
  const first = firstToDo(left);
  return first === null ? [] : [first, ...inOrder(left.filter((s) => s !== first))];
}

function dependentsOf({ procedure }: ToPlan, planned: readonly ToPlan[]): string[] {
  const corrected = procedure.settings.map((s) => s.key);
  const needs = (other: ToPlan) =>
    other.procedure !== procedure &&
    other.procedure.needs.some((need) => need.on === "setting" && corrected.includes(need.what));
  return planned.filter((s) => s.state !== "holding" && needs(s)).map((s) => s.procedure.title);
}
