import { kindText } from "../../core/machine/machine-kind";
import { plain } from "../../core/metrology/quantity-text";
import type { BenchMachine, BenchProcedure } from "../../server/screens/bench-machine";
import { Ago } from "../primitives/ago";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { StateMark } from "../primitives/state-mark";
import { BeginButton } from "../shell/begin-button";

type Props = {
  machine: BenchMachine;
  now: number;
  /** On the page of the machine itself. */
  isPage?: boolean;
};

export function MachineCard({ machine, now, isPage = false }: Props) {
  const { spec, next } = machine;
  const facts = [
    kindText(spec.kind),
    `${plain(spec.widthMm)} × ${plain(spec.depthMm)} mm`,
    machine.optic ? `optic ${machine.optic}` : "",
  ].filter(Boolean);
  return (
    <div className="card p-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div className="min-w-0">
          {isPage ? (
            <h1 className="inline text-2xl font-bold">{spec.name}</h1>
          ) : (
            <h2 className="inline text-[19px] font-bold">
              <Link href={`/machine/${machine.slug}`} className="hover:underline">
                {spec.name}
              </Link>
            </h2>
          )}
          <span className="ml-3 text-[14px] text-ink2">{facts.join(" · ")}</span>
        </div>
        <div className="flex items-center gap-4 max-sm:w-full max-sm:justify-between">
          <div className="text-right max-sm:text-left">
            <p className="font-semibold">{next.title}</p>
            <p className="text-[14px] text-ink2">{next.reason}</p>
          </div>
          {next.action === "continue" && next.href && (
            <Link href={next.href} className={buttonClass("primary")}>
              Continue
            </Link>
          )}
          {(next.action === "begin" || next.action === "check") && next.procedure && (
            <BeginButton
              machine={machine.slug}
              procedure={next.procedure}
              stock={next.stock}
              weight="primary"
              check={next.action === "check"}
            />
          )}
        </div>
      </div>
      <ul className="mt-5 flex flex-wrap gap-x-3 gap-y-4">
        {machine.procedures
          .filter((p) => !isForAReason(p))
          .map((p) => (
            <ProcedureMark
              key={p.id}
              procedure={p}
              machine={machine.slug}
              now={now}
              next={next.procedure === p.id ? next.action : "none"}
            />
          ))}
      </ul>
      <ForAReason procedures={machine.procedures.filter(isForAReason)} machine={machine.slug} />
    </div>
  );
}

/** Never done, and no reason for it yet. */
function isForAReason({ state, occasional }: BenchProcedure): boolean {
  return occasional && state === "not done";
}

function ForAReason({ procedures, machine }: { procedures: readonly BenchProcedure[]; machine: string }) {
  if (procedures.length === 0) return null;
  return (
    <div className="mt-4">
      <p className="text-[14px] text-ink2">Only when there is a reason:</p>
      <ul className="mt-1 grid gap-x-6 gap-y-1 sm:grid-cols-2">
        {procedures.map((p) => (
          <li key={p.id} className="flex flex-wrap items-baseline gap-x-3">
            <Link
              href={`/machine/${machine}/${p.id}`}
              className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
            >
              {p.title}
            </Link>
            <BeginButton machine={machine} procedure={p.id} weight={"quiet"} label="Begin its first trial" />
          </li>
        ))}
      </ul>
    </div>
  );
}

const STATE_INK: Record<BenchProcedure["state"], string> = {
  "not done": "text-ink2",
  open: "text-ember",
  "to prove": "text-ember",
  holding: "text-verdigris",
  "check due": "text-ochre",
  drifting: "text-ochre",
  stale: "text-ember",
};

function ProcedureMark({
  procedure,
  machine,
  now,
  next,
}: {
  procedure: BenchProcedure;
  machine: string;
  now: number;
  /** What the card offers already. */
  next: BenchMachine["next"]["action"];
}) {
  const { state, detail, since, reasons } = procedure;
  const stock = procedure.stocks?.[0]?.newest || null;
  const waits = state === "open" || state === "to prove";
  return (
    <li className="flex min-w-52 items-start gap-3 rounded-md border border-hair px-3 py-2.5">
      <span className="mt-0.5">
        <StateMark state={state} />
      </span>
      <div>
        <p className="font-semibold">
          <Link
            href={`/machine/${machine}/${procedure.id}`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {procedure.title}
          </Link>
        </p>
        <p className={`text-[14px] ${STATE_INK[state]}`}>
          {state}
          {since !== null && (
            <>
              {" · "}
              <Ago at={since} now={now} />
            </>
          )}
        </p>
        {reasons.map((reason) => (
          <p key={reason} className="text-[14px] text-ink2">
            {reason}
          </p>
        ))}
        {detail && <p className={`text-[13px] text-ink2 ${waits ? "" : "num"}`}>{detail}</p>}
        {waits && procedure.href && next !== "continue" && (
          <Link
            href={procedure.href}
            className="text-[14px] text-ink2 underline decoration-line underline-offset-4 hover:text-ink"
          >
            Continue
          </Link>
        )}
        {!waits && (
          <p className="flex flex-wrap gap-x-3">
            {state !== "not done" && next !== "check" && (
              <BeginButton machine={machine} procedure={procedure.id} weight="quiet" check stock={stock} />
            )}
            {next !== "begin" && (
              <BeginButton
                machine={machine}
                procedure={procedure.id}
                weight={"quiet"}
                stock={stock}
                label={state === "not done" ? "Begin its first trial" : "Begin a new trial"}
              />
            )}
          </p>
        )}
      </div>
    </li>
  );
}
