import { isOpen, type State } from "../../core/course/state";
import type { BenchMachine, BenchProcedure } from "../../server/screens/bench-machine";
import { Folded } from "../primitives/folded";
import { MachineCorner } from "./machine-corner";
import { ProcedureLine } from "./procedure-line";

type Props = {
  machine: BenchMachine;
  now: number;
  /** On the page of the machine itself. */
  isPage?: boolean;
  /** One of many: what is valid is folded. */
  isOneOfMany?: boolean;
};

/** A machine at a glance: its next step at the left, its procedures in columns, what needs the person first. */
export function MachineCard({ machine, now, isPage = false, isOneOfMany = false }: Props) {
  const usual = machine.procedures.filter((p) => !isForAReason(p)).sort((a, b) => rankOf(a.state) - rankOf(b.state));
  const waiting = usual.filter((p) => p.state !== "holding");
  const valid = usual.filter((p) => p.state === "holding");
  const rest = machine.procedures.filter(isForAReason);
  const lines = (procedures: readonly BenchProcedure[]) =>
    procedures.map((p) => (
      <ProcedureLine key={p.id} procedure={p} machine={{ slug: machine.slug, name: machine.spec.name }} now={now} />
    ));
  return (
    <article className="card grid overflow-hidden sm:grid-cols-[204px_1fr]" aria-label={machine.spec.name}>
      <MachineCorner machine={machine} isPage={isPage} />
      <div className="min-w-0 px-2.5 py-1.5 max-sm:pt-0">
        <div className={COLUMNS}>
          <ul>{lines(waiting)}</ul>
          {valid.length > 0 && (
            <Folded title={`${valid.length} valid`} onPhone={!isOneOfMany}>
              <ul>{lines(valid)}</ul>
            </Folded>
          )}
        </div>
        {rest.length > 0 && (
          <Folded title={`Only when there is a reason: ${rest.length}`} className="mt-0.5">
            <ul className={COLUMNS}>{lines(rest)}</ul>
          </Folded>
        )}
      </div>
    </article>
  );
}

const COLUMNS = "gap-x-3 sm:columns-2 xl:columns-3";

/** Never done, and no reason for it yet. */
function isForAReason({ state, occasional }: BenchProcedure): boolean {
  return occasional && state === "not done";
}

/** What needs the person first; the others in the order in which they are done. */
function rankOf(state: State): number {
  if (isOpen(state) || state === "stale") return 0;
  return state === "drifting" || state === "check due" ? 1 : 2;
}
