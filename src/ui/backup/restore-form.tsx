"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { benchFactsText } from "../../core/machine/bench-facts";
import { restoreBackup } from "../../server/actions/backup-actions";
import type { BackupRow } from "../../server/keeping/backup-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** Asked once more, with what it brings and what it takes away. */
export function RestoreForm({ row, now, onDone }: { row: BackupRow; now: number; onDone: () => void }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const restore = () =>
    run(
      () => restoreBackup({ name: row.name }),
      (facts) => {
        toast(`Restored: ${benchFactsText(facts)}.`);
        onDone();
        router.refresh();
      },
    );
  return (
    <section className="card grid gap-3 p-5" aria-labelledby="restore-title">
      <h2 id="restore-title" className="text-[17px] font-bold">
        Restore this backup?
      </h2>
      <p className="text-ink2">
        Made <Ago at={row.at} now={now} />
        {!("fault" in row.holds) && `; it holds ${benchFactsText(row.holds)}`}.
      </p>
      <p>
        The whole bench becomes as it was then. What was read and entered since is no longer on it. The bench as it is
        now is backed up first, so this can be undone.
      </p>
      <p className="text-ink2">What the controllers hold does not change: compare it with the ledger afterwards.</p>
      {fault.message && <Fault>{fault.message}</Fault>}
      <div className="flex flex-wrap gap-2">
        <Button weight="primary" disabled={busy} onClick={restore}>
          {busy ? "Restoring …" : "Restore it"}
        </Button>
        <Button onClick={onDone}>Leave the bench as it is</Button>
      </div>
    </section>
  );
}
