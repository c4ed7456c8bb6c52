"use client";
import clsx from "clsx";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { fromInternal } from "../../core/metrology/units";
import { valueText } from "../../core/settings/entry-text";
import { takeBackEntry } from "../../server/actions/workshop-actions";
import type { LedgerRow } from "../../server/ledger/ledger-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { PutBackForm } from "./put-back-form";

const ORIGIN_WORDS = { found: "as found", trial: "from a trial", hand: "by hand", restored: "put back" } as const;

/** One record: what, where, from what; taken back while it is the newest, put back while it is not. */
export function LedgerLine({ row, now }: { row: LedgerRow; now: number }) {
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  const { busy, fault, run } = useAction();
  const takeBack = () =>
    run(
      () => takeBackEntry({ machine: row.machineSlug, entryId: row.id }),
      () => {
        toast("Taken back: what was there before is in force again.");
        router.refresh();
      },
    );
  return (
    <>
      <tr className={clsx("border-t border-hair align-top", !row.current && "text-ink2")}>
        <td className="py-2 pr-4 whitespace-nowrap">
          <Ago at={row.at} now={now} />
        </td>
        <td className="py-2 pr-4">
          <Link href={`/machine/${row.machineSlug}`} className="hover:underline">
            {row.machine}
          </Link>
        </td>
        <td className="py-2 pr-4 whitespace-nowrap">{row.label}</td>
        <td className="min-w-36 py-2 pr-4" data-label="Held by">
          {row.holderName ?? "–"}
        </td>
        <td data-label="Value" className={clsx("num py-2 pr-4 text-[14px]", row.undoneAt !== null && "line-through")}>
          {valueText(row.value, row.shownUnit)}
          {row.u !== null && row.undoneAt === null && (
            <span className="text-ink2"> (u ≤ {fromInternal(row.u, row.shownUnit).toFixed(4)})</span>
          )}
        </td>
        <td className="py-2 pr-4 text-[14px]" data-label="Origin">
          {row.current && <b className="font-semibold text-verdigris">in force · </b>}
          {row.undoneAt !== null && <b className="font-semibold">taken back · </b>}
          {row.trialId !== null ? (
            <Link
              href={`/trial/${row.trialId}`}
              className="underline decoration-line underline-offset-4 hover:decoration-ink"
            >
              {row.origin === "found" ? "found in trial" : "trial"} {row.trialCode}
            </Link>
          ) : (
            ORIGIN_WORDS[row.origin]
          )}
          {row.readBack ? ", read back" : ""}
          {row.note && <span className="block text-ink2">{row.note}</span>}
        </td>
        <td className="no-print py-1 text-right whitespace-nowrap">
          {row.current && (
            <Button weight="quiet" disabled={busy} onClick={takeBack}>
              Take back<span className="sr-only"> {row.label}</span>
            </Button>
          )}
          {row.holders.length > 0 && !asked && (
            <Button weight="quiet" onClick={() => setAsked(true)}>
              Put this back<span className="sr-only"> {row.label}</span>
            </Button>
          )}
          {fault.message && <Fault>{fault.message}</Fault>}
        </td>
      </tr>
      {asked && (
        <tr>
          <td colSpan={7} className="pb-3">
            <PutBackForm row={row} onDone={() => setAsked(false)} />
          </td>
        </tr>
      )}
    </>
  );
}
