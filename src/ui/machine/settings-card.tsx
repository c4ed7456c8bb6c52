"use client";
import { useState } from "react";
import { valueText } from "../../core/settings/entry-text";
import type { HeldView, MachineView } from "../../server/screens/machine-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Link } from "../primitives/link";
import { Notice } from "../primitives/notice";
import { HoldersForm } from "./holders-form";
import { WriteDownForm } from "./write-down-form";

/** What each place holds now, with where it came from; on the first visit all of it is read back and written down. */
export function SettingsCard({ view, now }: { view: MachineView; now: number }) {
  const unwritten = view.held.filter((h) => h.entry === null);
  return (
    <section className="card p-5" aria-label="Settings">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-[17px] font-bold">Settings</h2>
        <p className="flex gap-4 text-[14px]">
          <Link
            href={`/machine/${view.slug}/report`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            Report
          </Link>
          <Link
            href={`/ledger?machine=${view.slug}`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            Ledger
          </Link>
        </p>
      </div>
      {unwritten.length > 0 && (
        <div className="mt-2">
          <Notice tone="needs you" headline="Read back and write down.">
            {unwritten.length === 1 ? "One place is" : `${unwritten.length} places are`} not written down yet. Look at
            what each holds, before anything is changed; “not known” is an answer.
          </Notice>
        </div>
      )}
      {[...new Set(view.held.map((h) => h.setting.key))].map((key) => {
        const places = view.held.filter((h) => h.setting.key === key);
        return (
          <div key={key} className="mt-2">
            <h3 className="font-semibold">{places[0]?.setting.label}</h3>
            <ul>
              {places.map((held) => (
                <HeldRow key={held.holder.id} view={view} held={held} now={now} isFirst={held === unwritten[0]} />
              ))}
            </ul>
          </div>
        );
      })}
      <HoldersForm view={view} />
    </section>
  );
}

const ORIGIN_WORDS = { found: "as found", trial: "from a trial", hand: "by hand", restored: "put back" } as const;

function HeldRow({ view, held, now, isFirst }: { view: MachineView; held: HeldView; now: number; isFirst: boolean }) {
  const { entry, holder, setting, unit } = held;
  const [asked, setAsked] = useState<"found" | "hand" | null>(null);
  const open = asked ?? (isFirst ? "found" : null);
  const name = `${setting.label}, ${holder.name}`;
  return (
    <li className="border-t border-hair py-2.5 first:border-0">
      <div className="flex items-start justify-between gap-x-4 gap-y-1 max-sm:flex-wrap">
        <div className="min-w-0">
          <p>{holder.name}</p>
          <p className="num text-[14px]">{entry ? valueText(entry.value, unit) : "not written down yet"}</p>
          {entry && (
            <p className="text-[14px] text-ink2">
              {entry.trialId === null ? (
                ORIGIN_WORDS[entry.origin]
              ) : (
                <Link href={`/trial/${entry.trialId}`} className="underline decoration-line underline-offset-4">
                  trial {entry.trialCode}
                </Link>
              )}
              {entry.readBack && ", read back"} · <Ago at={entry.at} now={now} />
              {entry.note && ` · ${entry.note}`}
            </p>
          )}
        </div>
        {open === null && (
          <div className="flex shrink-0 gap-2">
            <Button weight="small" onClick={() => setAsked("found")}>
              {entry ? "It holds something else" : "Write down"}
              <span className="sr-only"> {name}</span>
            </Button>
            {entry && (
              <Button weight="small" onClick={() => setAsked("hand")}>
                Enter by hand<span className="sr-only"> {name}</span>
              </Button>
            )}
          </div>
        )}
      </div>
      {open !== null && (
        <WriteDownForm
          key={open}
          view={view}
          held={held}
          origin={open}
          onDone={() => setAsked(null)}
          canClose={asked !== null}
        />
      )}
    </li>
  );
}
