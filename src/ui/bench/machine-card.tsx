import clsx from "clsx";
import { isOpen, type State } from "../../core/course/state";
import type { BenchMachine, BenchProcedure } from "../../server/screens/bench-machine";
import { Folded } from "../primitives/folded";
import { MachineIdentity, NextStepLine } from "./machine-corner";
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
  const columns = isPage || isOneOfMany ? "gap-x-3 sm:columns-2" : "gap-x-3 sm:columns-2 xl:columns-3";
  const lines = (procedures: readonly BenchProcedure[]) =>
    procedures.map((p) => (
      <ProcedureLine key={p.id} procedure={p} machine={{ slug: machine.slug, name: machine.spec.name }} now={now} />
    ));
  return (
    <article
      aria-label={machine.spec.name}
      className={clsx(
        "card grid overflow-hidden",
        isOneOfMany ? "sm:grid-cols-[170px_1fr_196px]" : "sm:grid-cols-[204px_1fr]",
      )}
    >
      {isOneOfMany ? (
        <>
          <div className="px-3 pt-2 pb-1">
            <MachineIdentity machine={machine} isPage={isPage} isShort />
          </div>
          <div className="px-3 py-2 sm:order-last sm:border-l sm:border-hair">
            <NextStepLine machine={machine} isShort />
          </div>
        </>
      ) : (
        <div className="grid content-start gap-2 p-3 sm:border-r sm:border-hair">
          <MachineIdentity machine={machine} isPage={isPage} isShort={false} />
          <NextStepLine machine={machine} isShort={false} />
        </div>
      )}
      <div className="min-w-0 px-2.5 py-1.5 max-sm:pt-0">
        <div className={columns}>
          <ul>{lines(waiting)}</ul>
          {valid.length > 0 && (
            <Folded title={`${valid.length} valid`} onPhone={!isOneOfMany}>
              <ul>{lines(valid)}</ul>
            </Folded>
          )}
        </div>
        {rest.length > 0 && (
          <Folded title={`Only when there is a reason: ${rest.length}`} className="mt-0.5">
            <ul className={columns}>{lines(rest)}</ul>
          </Folded>
        )}
      </div>
    </article>
  );
}

/** Never done, and no reason for it yet. */
function isForAReason({ state, occasional }: BenchProcedure): boolean {
  return occasional && state === "not done";
}

/** What needs the person first; the others in the order in which they are done. */
function rankOf(state: State): number {
  if (isOpen(state) || state === "stale") return 0;
  return state === "drifting" || state === "check due" ? 1 : 2;
}
