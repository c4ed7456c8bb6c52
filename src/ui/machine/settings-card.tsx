"use client";
import clsx from "clsx";
import { useState } from "react";
import { valueText } from "../../core/settings/entry-text";
import type { HeldView, MachineView } from "../../server/screens/machine-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Folded } from "../primitives/folded";
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
            className="touch-link underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            Report
          </Link>
          <Link
            href={`/ledger?machine=${view.slug}`}
            className="touch-link underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            Ledger
          </Link>
        </p>
      </div>
      {unwritten.length > 0 && (
        <div className="mt-2">
          <Notice tone="needs you" headline="Read back and write down.">
            {unwritten.length === 1
              ? "One value is not written down."
              : `${unwritten.length} values are not written down.`}{" "}
            Read each value back before you change anything. Choose “Not known” if you cannot read it.
          </Notice>
        </div>
      )}
      <ul className="mt-2">
        {view.held.map((held) => (
          <HeldRow
            key={`${held.setting.key} ${held.holder.id}`}
            view={view}
            held={held}
            now={now}
            isFirst={held === unwritten[0]}
          />
        ))}
      </ul>
      <HoldersForm view={view} />
    </section>
  );
}

const ORIGIN_WORDS = { found: "as found", trial: "from a trial", hand: "by hand", restored: "put back" } as const;

/** One value at one location. Opened, it can be changed in place. */
function HeldRow({ view, held, now, isFirst }: { view: MachineView; held: HeldView; now: number; isFirst: boolean }) {
  const { entry, holder, setting, unit } = held;
  const isCopy = view.held.find((h) => h.setting.key === setting.key)?.holder.id !== holder.id;
  return (
    <li className={clsx(!isCopy && "border-t border-hair first:border-0")}>
      <Folded
        isOpen={isFirst}
        titleClass="w-full rounded-sm py-1.5 hover:bg-paper"
        title={
          <span className="flex items-baseline justify-between gap-x-4">
            <span className={clsx("min-w-0", isCopy && "pl-3 text-[14px] text-ink2")}>
              {isCopy ? holder.name : setting.label}
            </span>
            <span className="num max-w-[60%] truncate text-right text-[14px]">
              {entry ? valueText(entry.value, unit) : "not written down"}
            </span>
          </span>
        }
      >
        <HeldDetail view={view} held={held} now={now} isFirst={isFirst} />
      </Folded>
    </li>
  );
}

function HeldDetail({
  view,
  held,
  now,
  isFirst,
}: {
  view: MachineView;
  held: HeldView;
  now: number;
  isFirst: boolean;
}) {
  const { entry, holder, setting, unit } = held;
  const [asked, setAsked] = useState<"found" | "hand" | null>(null);
  const open = asked ?? (isFirst ? "found" : null);
  const name = `${setting.label}, ${holder.name}`;
  return (
    <div className="pb-3 pl-6">
      <p className="text-[14px] text-ink2">{holder.name}</p>
      {entry && (
        <>
          {entry.value?.shape === "table" && <p className="num text-[14px]">{valueText(entry.value, unit)}</p>}
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
        </>
      )}
      {open === null ? (
        <div className="mt-1.5 flex flex-wrap gap-2">
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
      ) : (
        <WriteDownForm
          key={open}
          view={view}
          held={held}
          origin={open}
          onDone={() => setAsked(null)}
          canClose={asked !== null}
        />
      )}
    </div>
  );
}
