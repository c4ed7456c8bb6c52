"use client";
import { type FormEvent, useState } from "react";
import { decimalsIn, inUnit } from "../../../core/metrology/quantity-text";
import { typed, yesOrNo } from "../../../core/trial/decision";
import { acceptedSuspects, leftOutReadings, lengthUnitOf } from "../../../core/trial/decisions";
import type { Finding } from "../../../core/trial/outcome";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button, buttonClass } from "../../primitives/button";
import { TextField } from "../../primitives/fields";
import { Link } from "../../primitives/link";
import { Fault, Notice } from "../../primitives/notice";
import { useDecisions } from "./use-decisions";

type Props = { view: TrialView; n: number; findings: readonly Finding[] };

type CardProps = Props & {
  label: string;
  /** What was left out or accepted is listed too. */
  showsSettled?: true;
};

/** What was noticed, and what a person decides about readings that contradict the others. */
export function FindingsCard({ view, n, findings, label, showsSettled }: CardProps) {
  const settled = showsSettled ? settledIn(view) : [];
  if (findings.length === 0 && settled.length === 0) return null;
  return (
    <section className="card grid gap-3 p-5" aria-label={label}>
      <FindingList view={view} n={n} findings={findings} />
      {settled.length > 0 && <Settled view={view} settled={settled} isOnly={findings.length === 0} />}
    </section>
  );
}

/** Each finding with what can be done about it. */
export function FindingList({ view, n, findings }: Props) {
  return (
    <>
      {findings.map((finding) => (
        <div key={finding.id}>
          <Notice tone={finding.tone} headline={finding.headline}>
            {finding.text}
            {finding.site && !finding.suspect && (
              <>
                {" "}
                <Link className="underline" href={readAt(view, n, finding.site)}>
                  Read it again
                </Link>
              </>
            )}
          </Notice>
          {finding.suspect && view.endedAt === null && (
            <SuspectChoices view={view} n={n} finding={finding} suspect={finding.suspect} />
          )}
        </div>
      ))}
    </>
  );
}

type SettledItem = { key: string; text: string; struck?: string };

/** What was left out, by the name of its point, and what was accepted. */
function settledIn(view: TrialView): SettledItem[] {
  const sites = view.rounds.flatMap((r) => r.spec?.sites ?? []);
  const unit = lengthUnitOf(view);
  return [
    ...leftOutReadings(view.decisions).map(({ key, site, value }) => ({
      key,
      text: "Left out:",
      struck: `${sites.find((s) => s.id === site)?.label ?? site}, ${typeof value === "number" ? inUnit(value, unit, decimalsIn(unit, 3)) : value}`,
    })),
    ...acceptedSuspects(view.decisions),
  ];
}

function readAt(view: TrialView, n: number, site: string): string {
  return `/trial/${view.id}/read?${n > 1 ? `round=${n}&` : ""}site=${encodeURIComponent(site)}`;
}

type SuspectProps = { view: TrialView; n: number; finding: Finding; suspect: NonNullable<Finding["suspect"]> };

/** Read again, leave out, or accept with a reason. */
function SuspectChoices({ view, n, finding, suspect }: SuspectProps) {
  const { busy, fault, keep } = useDecisions(view.id);
  const [accepting, setAccepting] = useState(false);
  const [reason, setReason] = useState("");
  const [missing, setMissing] = useState("");
  const accept = (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim() === "") return setMissing("Enter why these readings are right.");
    keep([typed(suspect.accept).as(reason.trim())]);
  };
  return (
    <div className="mt-2 grid gap-2 pl-3.5">
      <div className="flex flex-wrap gap-2">
        {finding.site && (
          <Link className={buttonClass("small")} href={readAt(view, n, finding.site)}>
            Read again
          </Link>
        )}
        {suspect.leaveOut.length > 0 && (
          <Button
            weight="small"
            disabled={busy}
            onClick={() => keep(suspect.leaveOut.map((key) => yesOrNo(key).as(true)))}
          >
            {suspect.leaveOut.length === 1 ? "Leave it out" : `Leave these ${suspect.leaveOut.length} readings out`}
          </Button>
        )}
        <Button weight="small" aria-expanded={accepting} disabled={busy} onClick={() => setAccepting(!accepting)}>
          Accept
        </Button>
      </div>
      {accepting && (
        <form className="flex flex-wrap items-start gap-2" aria-label="Accept" onSubmit={accept}>
          <div className="min-w-56 flex-1">
            <TextField label="Reason" value={reason} onChange={setReason} fault={missing} />
          </div>
          <Button weight="small" type="submit" className="mt-6" disabled={busy}>
            Accept it
          </Button>
        </form>
      )}
      {fault.message && <Fault>{fault.message}</Fault>}
    </div>
  );
}

type SettledProps = { view: TrialView; settled: readonly SettledItem[]; isOnly: boolean };

/** What was left out or accepted, each with the way back. */
function Settled({ view, settled, isOnly }: SettledProps) {
  const { busy, fault, keep } = useDecisions(view.id);
  return (
    <div className={isOnly ? "" : "border-t border-hair pt-2"}>
      <ul className="grid gap-1">
        {settled.map(({ key, text, struck }) => (
          <li key={key} className="flex flex-wrap items-center justify-between gap-2 text-[14px]">
            <span>
              {text} {struck && <s>{struck}</s>}
            </span>
            {view.endedAt === null && (
              <Button weight="small" disabled={busy} onClick={() => keep([{ key, value: "" }])}>
                Undo<span className="sr-only"> {struck ?? text}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {fault.message && <Fault>{fault.message}</Fault>}
    </div>
  );
}
