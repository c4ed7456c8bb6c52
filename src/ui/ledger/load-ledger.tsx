"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { countText } from "../../core/metrology/count-text";
import { importLedger } from "../../server/actions/workshop-actions";
import { buttonClass } from "../primitives/button";
import { FilePick } from "../primitives/file-pick";
import { useAction } from "../primitives/use-action";

/** The ledger of one machine as files, and one from elsewhere taken in. */
export function LoadLedger({ machine }: { machine: string }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const load = (text: string) =>
    run(
      () => importLedger({ machine, text }),
      ({ added, known }) => {
        toast(`${countText(added, "entry", "entries")} added, ${known} there already.`);
        router.refresh();
      },
    );
  return (
    <section aria-label="Files" className="no-print mt-5 flex flex-wrap items-end gap-x-6 gap-y-3 text-[14px]">
      <p className="flex gap-2">
        <a className={buttonClass("small")} href={`/api/ledger/${machine}/ledger.json`} download>
          Export (JSON)
        </a>
        <a className={buttonClass("small")} href={`/api/ledger/${machine}/ledger.csv`} download>
          Table (CSV)
        </a>
      </p>
      <div>
        <FilePick
          label="Import a ledger (JSON):"
          accept=".json,application/json"
          disabled={busy}
          fault={fault.message}
          onText={load}
        />
      </div>
    </section>
  );
}
