/** What is to be done on a machine, in which order and why: on its first day, after a lens was exchanged, after anything that changed. */
import { firstToDo, type Stands, type State } from "./state";

export type ToPlan = Stands & {
  procedure: Stands["procedure"] & { title: string };
  state: State;
  /** When it came into this state, ms; `null` where it was never done. */
  since: number | null;
  /** It was proved before, however it stands now. */
  wasProved: boolean;
};

export type PlanLine<S extends ToPlan> = {
  of: S;
  /** Proved, and valid since. */
  done: boolean;
  /** Titles of what is in the plan and needs a setting that this one corrects. */
  before: string[];
};

export type WorkPlan<S extends ToPlan> = {
  occasion: "first day" | "change";
  /** What is done first, then what is to be done, in order. */
  lines: PlanLine<S>[];
};

/**
 * The plan of the first day holds whatever belongs to the machine, until all of it is proved. Afterwards there is a plan while something is
 * out of date: it holds what is, and what was proved again since the first of it went out of date.
 *
 * @param stands in practice order
 * @returns `null` where nothing is to be planned
 */
export function workPlan<S extends ToPlan>(stands: readonly S[]): WorkPlan<S> | null {
  const isFirstDay = stands.some((s) => !s.wasProved && !s.procedure.occasional);
  const out = stands.filter(isOutOfDate);
  if (!isFirstDay && out.length === 0) return null;
  const from = Math.min(...out.map((s) => s.since ?? Number.POSITIVE_INFINITY));
  const isPlanned = (s: S) =>
    isOutOfDate(s) || (isFirstDay ? !s.procedure.occasional : s.state === "holding" && (s.since ?? 0) > from);
  const planned = stands.filter(isPlanned);
  const done = planned.filter((s) => s.state === "holding");
  const ordered = [...done, ...inOrder(planned.filter((s) => s.state !== "holding"))];
  return {
    occasion: isFirstDay ? "first day" : "change",
    lines: ordered.map((of) => ({ of, done: of.state === "holding", before: waitingFor(of, ordered) })),
  };
}

/** Something changed since, or a trial that answers it is under way. */
function isOutOfDate({ state }: ToPlan): boolean {
  return state !== "holding" && state !== "not done";
}

function inOrder<S extends ToPlan>(left: readonly S[]): S[] {
  const first = firstToDo(left);
  return first === null ? [] : [first, ...inOrder(left.filter((s) => s !== first))];
}

function waitingFor({ procedure }: ToPlan, planned: readonly ToPlan[]): string[] {
  const corrected = procedure.settings.map((s) => s.key);
  const needs = (other: ToPlan) =>
    other.procedure !== procedure &&
    other.procedure.needs.some((need) => need.on === "setting" && corrected.includes(need.what));
  return planned.filter((s) => s.state !== "holding" && needs(s)).map((s) => s.procedure.title);
}
