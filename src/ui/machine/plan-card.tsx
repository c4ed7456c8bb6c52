import clsx from "clsx";
import { STATE_WORDS } from "../../core/course/state";
import { fixed } from "../../core/metrology/quantity-text";
import type { PlanLineView, PlanView } from "../../server/screens/plan-view";
import { Ago } from "../primitives/ago";
import { Concern } from "../primitives/concern";
import { Link } from "../primitives/link";
import { StateMark } from "../primitives/state-mark";

const NAMES = { "first day": "Plan of the first day", later: "Work to do" } as const;

type Props = { plan: PlanView; slug: string; now: number };

/** The work in order, with time, stock and gauge. A proof ticks a line. */
export function PlanCard({ plan, slug, now }: Props) {
  const done = plan.lines.filter((l) => l.done).length;
  const minutes = plan.lines.reduce((sum, l) => sum + (l.needed?.minutes ?? 0), 0);
  return (
    <Concern
      name={NAMES[plan.occasion]}
      keptAs={`${plan.occasion} ${slug}`}
      fact={[
        `${done} of ${plan.lines.length} valid`,
        ...(minutes > 0 ? [`about ${timeText(minutes)} of work`] : []),
      ].join(" · ")}
      isOpen={plan.occasion === "later" || done === 0}
    >
      <ol>
        {plan.lines.map((line) => (
          <Line key={line.procedure.id} line={line} slug={slug} now={now} />
        ))}
      </ol>
    </Concern>
  );
}

function Line({
  line: { procedure, done, summary, before, needed },
  slug,
  now,
}: Omit<Props, "plan"> & { line: PlanLineView }) {
  const { id, title, state, since, reasons } = procedure;
  return (
    <li className="grid grid-cols-[20px_1fr_auto] gap-x-3 border-t border-hair py-2 first:border-0">
      <StateMark state={state} />
      <div className="min-w-0">
        <p>
          <Link
            href={`/machine/${slug}/${id}`}
            className={clsx("underline decoration-line underline-offset-4", !done && "font-semibold")}
          >
            {title}
          </Link>{" "}
          <span className="text-[14px] text-ink2">
            {STATE_WORDS[state]}
            {since !== null && (
              <>
                {" · "}
                <Ago at={since} now={now} />
              </>
            )}
          </span>
        </p>
        {!done && <p className="text-[14px] text-ink2 first-letter:uppercase">{reasons[0] ?? summary}</p>}
        {!done && before.length > 0 && (
          <p className="text-[14px] text-ink2">
            Do this before {listText(before.map((title) => title.toLowerCase()))}.
          </p>
        )}
      </div>
      {needed && (
        <p className="text-right text-[14px] text-ink2">
          <span className="num">{timeText(needed.minutes)}</span>
          <span className="block">{[needed.gauge ?? "no gauge", ...stockTexts(needed.pieces)].join(", ")}</span>
        </p>
      )}
    </li>
  );
}

function timeText(minutes: number): string {
  const hours = Math.floor(minutes / 60);
  const rest = minutes - 60 * hours;
  return [hours > 0 ? `${hours} h` : "", rest > 0 ? `${rest} min` : ""].filter(Boolean).join(" ");
}

function stockTexts(pieces: readonly { widthMm: number; heightMm: number }[]): string[] {
  return [...new Set(pieces.map((p) => `${fixed(Math.ceil(p.widthMm), 0)} × ${fixed(Math.ceil(p.heightMm), 0)} mm`))];
}

function listText(words: readonly string[]): string {
  const last = words.at(-1) ?? "";
  return words.length < 2 ? last : `${words.slice(0, -1).join(", ")} and ${last}`;
}
