"use client";
import { useRouter } from "next/navigation";
import { loadTrial } from "../../server/actions/trial-actions";
import { FilePick } from "../primitives/file-pick";
import { useAction } from "../primitives/use-action";

/** A trial document from another computer, taken onto this bench. */
export function LoadTrial() {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  return (
    <div className="text-[14px]">
      <FilePick
        label="Trial file (JSON)"
        accept=".json,application/json"
        disabled={busy}
        fault={fault.message}
        onText={(text) =>
          run(
            () => loadTrial({ text }),
            (id) => router.push(`/trial/${id}`),
          )
        }
      />
      {busy && <p role="status">Loading…</p>}
    </div>
  );
}
