"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { benchFactsText } from "../../core/machine/bench-facts";
import { backUpNow } from "../../server/actions/backup-actions";
import type { BackupRow } from "../../server/keeping/backup-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { HeadRow } from "../primitives/head-row";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { TopBar } from "../shell/top-bar";
import { BackupLine } from "./backup-line";
import { RestoreForm } from "./restore-form";
import { TakeIn } from "./take-in";

/** Copies of the whole bench, and how one is put back. */
export function BackupScreen({ rows, now }: { rows: BackupRow[]; now: number }) {
  const router = useRouter();
  const [restoring, setRestoring] = useState<BackupRow | null>(null);
  const { busy, fault, run } = useAction();
  const newest = rows[0];
  const make = () =>
    run(backUpNow, (facts) => {
      toast(`Backed up and checked: ${benchFactsText(facts)}.`);
      router.refresh();
    });
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Backup" }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_380px]">
        <section aria-labelledby="backup-title" className="min-w-0">
          <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
            <div>
              <h1 id="backup-title" className="text-2xl font-bold">
                Backup
              </h1>
              <p className="text-ink2">
                {newest ? (
                  <>
                    The newest is <Ago at={newest.at} now={now} plain /> old.
                  </>
                ) : (
                  "There is no backup of this bench yet."
                )}
              </p>
            </div>
            <Button weight={restoring ? "plain" : "primary"} disabled={busy} onClick={make}>
              {busy ? "Copying and checking …" : "Back up now"}
            </Button>
          </div>
          {fault.message && <Fault>{fault.message}</Fault>}
          {rows.length === 0 ? (
            <p className="card px-5 py-4 text-ink2">
              A backup is one file with everything: machines, trials, readings, the ledger. It is made while the bench
              is in use, opened again, and counts only when it is found whole.
            </p>
          ) : (
            <div className="card relative overflow-x-auto px-5 py-2">
              <table className="stacked-table w-full">
                <HeadRow
                  cells={[
                    { label: "Made", className: "pr-4" },
                    { label: "Holds", className: "pr-4" },
                    { label: "Size", className: "pr-4" },
                    { label: "" },
                  ]}
                />
                <tbody>
                  {rows.map((row) => (
                    <BackupLine key={row.name} row={row} now={now} onRestore={() => setRestoring(row)} />
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </section>
        <div className="grid content-start gap-4">
          {restoring && (
            <RestoreForm key={restoring.name} row={restoring} now={now} onDone={() => setRestoring(null)} />
          )}
          <TakeIn />
          <section className="card p-5">
            <h2 className="font-semibold">Where they lie</h2>
            <p className="mt-1 text-ink2">
              In the folder <span className="num">backups</span> beside the data of the bench, on the same disk.
              Download one now and then, and keep it on another disk.
            </p>
            <p className="mt-3 text-ink2">
              The same from a terminal, also while the pages do not come:{" "}
              <span className="num block break-words text-ink">npm run -s ustrina -- backup</span>
              <span className="num block break-words text-ink">npm run -s ustrina -- restore FILE</span>
            </p>
          </section>
        </div>
      </main>
    </>
  );
}
