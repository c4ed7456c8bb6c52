"use client";
import clsx from "clsx";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { isOpen, STATE_WORDS, type State } from "../../core/course/state";
import type { BenchProcedure } from "../../server/screens/bench-machine";
import { Ago } from "../primitives/ago";
import { Link } from "../primitives/link";
import type { MenuItem } from "../primitives/menu";
import { MenuDoor } from "../primitives/menu-door";
import { StateMark } from "../primitives/state-mark";
import { useBegin } from "../shell/use-begin";

const LOOK: Record<State, { line: string; name: string; state: string }> = {
  open: { line: "bg-ember-tint", name: "text-ember", state: "text-ember" },
  "to prove": { line: "bg-ember-tint", name: "text-ember", state: "text-ember" },
  stale: { line: "bg-ember-tint", name: "text-ember", state: "text-ember" },
  drifting: { line: "bg-ochre-tint", name: "", state: "text-ochre" },
  "check due": { line: "bg-ochre-tint", name: "", state: "text-ochre" },
  holding: { line: "", name: "", state: "text-ink2" },
  "not done": { line: "", name: "", state: "text-ink2" },
};

type Props = { procedure: BenchProcedure; machine: { slug: string; name: string }; now: number };

/** One procedure of a machine: its state, what remains of the error, and what can be done with it. */
export function ProcedureLine({ procedure, machine, now }: Props) {
  const { id, title, state, since, reasons, detail } = procedure;
  const look = LOOK[state];
  const [reason, ...more] = reasons;
  const isProgress = isOpen(state);
  return (
    <li
      className={clsx(
        "group relative flex break-inside-avoid items-start gap-1.5 border-b border-hair py-[3px] pr-1 pl-1 max-sm:py-1.5",
        look.line,
      )}
    >
      <span className="mt-0.5">
        <StateMark state={state} size={17} />
      </span>
      <div className="min-w-0 flex-1">
        <Link
          href={`/machine/${machine.slug}/${id}`}
          className={clsx("touch-link font-semibold hover:underline", look.name)}
        >
          {title}
        </Link>
        <p className="flex flex-wrap justify-between gap-x-2 text-[13px] leading-snug">
          <span className={look.state} title={more.join("; ") || undefined}>
            {STATE_WORDS[state]}
            {isProgress && detail && `, ${detail}`}
            {reason && `: ${reason}`}
            {more.length > 0 && ` (+${more.length})`}
            {!isProgress && since !== null && (
              <>
                {" · "}
                <Ago at={since} now={now} plain />
              </>
            )}
          </span>
          {!isProgress && <span className="num ml-auto whitespace-nowrap">{detail}</span>}
        </p>
      </div>
      <LineMenu procedure={procedure} machine={machine} />
    </li>
  );
}

/** Out of sight until the line is pointed at or has the focus; on a touch screen always there. */
const SEEN_WHEN_USED =
  "pointer-fine:sm:absolute pointer-fine:sm:top-0 pointer-fine:sm:right-0 pointer-fine:sm:opacity-0 group-hover:opacity-100 group-focus-within:opacity-100 data-[state=open]:opacity-100";

function LineMenu({ procedure, machine }: Pick<Props, "procedure" | "machine">) {
  const items = useActions(procedure, machine.slug);
  return (
    <MenuDoor
      label={`Actions for the ${procedure.title.toLowerCase()} of ${machine.name}`}
      items={items}
      className={SEEN_WHEN_USED}
    />
  );
}

function useActions({ id, state, stocks, href }: BenchProcedure, machine: string): MenuItem[] {
  const router = useRouter();
  const { begin } = useBegin();
  const stock = stocks?.[0]?.newest || null;
  const start = (check: boolean) => () => begin({ machine, procedure: id, stock, check }, (message) => toast(message));
  const page = { label: "Open the page", onSelect: () => router.push(`/machine/${machine}/${id}`) };
  if (href) return [{ label: "Continue the trial", onSelect: () => router.push(href) }, page];
  return [
    ...(state === "not done" ? [] : [{ label: "Begin a check", onSelect: start(true) }]),
    { label: state === "not done" ? "Begin the first trial" : "Begin a new trial", onSelect: start(false) },
    page,
  ];
}
