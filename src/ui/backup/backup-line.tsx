"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { benchFactsText } from "../../core/machine/bench-facts";
import { throwAwayBackup } from "../../server/actions/backup-actions";
import type { BackupRow } from "../../server/keeping/backup-view";
import { Ago } from "../primitives/ago";
import { Button, buttonClass } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

const REASONS: Record<BackupRow["reason"], string> = {
  "by hand": "made by hand",
  "before a restore": "the bench before another backup was put in its place",
  "before an update": "the bench before it was brought up to date",
  "from a file": "taken in from a file",
};

const FAULTS: Partial<Record<string, string>> = {
  newer: "made by a newer Ustrina: it cannot be used with this one",
};

export function BackupLine({ row, now, onRestore }: { row: BackupRow; now: number; onRestore: () => void }) {
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  const { busy, fault, run } = useAction();
  const isSound = !("fault" in row.holds);
  const throwAway = () =>
    run(
      () => throwAwayBackup({ name: row.name }),
      () => {
        toast("The backup is deleted.");
        router.refresh();
      },
    );
  return (
    <tr className="border-t border-hair align-top">
      <th scope="row" className="py-2 pr-4 text-left font-semibold">
        <Ago at={row.at} now={now} />
        <span className="block text-[14px] font-normal text-ink2">{REASONS[row.reason]}</span>
      </th>
      <td className="py-2 pr-4" data-label="Holds">
        {"fault" in row.holds ? (
          <span className="text-ember">{FAULTS[row.holds.fault] ?? "damaged: it cannot be used"}</span>
        ) : (
          <>
            {benchFactsText(row.holds)}
            {row.holds.newest > 0 && (
              <span className="block text-[14px] text-ink2">
                last reading or entry <Ago at={row.holds.newest} now={now} />
              </span>
            )}
          </>
        )}
      </td>
      <td className="num py-2 pr-4 whitespace-nowrap" data-label="Size">
        {row.bytes < 1e5 ? "< 0.1" : (row.bytes / 1e6).toFixed(1)} MB
      </td>
      <td className="py-2 text-right whitespace-nowrap">
        <a className={buttonClass("small")} href={`/api/backups/${row.name}`} download>
          Download
        </a>{" "}
        {isSound && (
          <Button weight="small" onClick={onRestore}>
            Restore …
          </Button>
        )}{" "}
        <Button
          weight="quiet"
          disabled={busy}
          onClick={asked ? throwAway : () => setAsked(true)}
          onBlur={() => setAsked(false)}
        >
          {asked ? "Delete it for good" : "Delete"}
        </Button>
        {fault.message && <Fault>{fault.message}</Fault>}
      </td>
    </tr>
  );
}
