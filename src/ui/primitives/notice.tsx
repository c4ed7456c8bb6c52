import clsx from "clsx";
import type { ReactNode } from "react";

type Tone = "needs you" | "note" | "good";

const BAR: Record<Tone, string> = {
  "needs you": "border-ember",
  note: "border-steel",
  good: "border-verdigris",
};
const WORD: Record<Tone, string> = { "needs you": "Needs you", note: "Note", good: "Good" };

/** A finding: a bar in its tone, a headline, what it means and what to do. */
export function Notice({ tone, headline, children }: { tone: Tone; headline: string; children?: ReactNode }) {
  return (
    <div className={clsx("border-l-[3px] py-0.5 pl-3", BAR[tone])}>
      <span className="sr-only">{WORD[tone]}: </span>
      <strong className="font-semibold">{headline}</strong> {children && <span className="text-ink">{children}</span>}
    </div>
  );
}

/** Faults that belong to no field of a form. */
export function Faults({ of }: { of: readonly string[] }) {
  return of.map((message) => <Fault key={message}>{message}</Fault>);
}

/** A fault at its field. */
export function Fault({ id, children }: { id?: string; children: ReactNode }) {
  return (
    <p id={id} role="alert" className="text-ember">
      {children}
    </p>
  );
}
