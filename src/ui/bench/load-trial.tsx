"use client";
import { useRouter } from "next/navigation";
import { loadTrial } from "../../server/actions/trial-actions";
import { FilePick } from "../primitives/file-pick";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** A trial document from another computer, taken onto this bench. */
export function LoadTrial() {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  return (
    <div className="text-[14px]">
      <FilePick
        label="Load a trial from another computer (JSON):"
        accept=".json,application/json"
        disabled={busy}
        onText={(text) =>
          run(
            () => loadTrial({ text }),
            (id) => router.push(`/trial/${id}`),
          )
        }
      />
      {busy && <p role="status">Loading…</p>}
      {fault.message && <Fault>{fault.message}</Fault>}
    </div>
  );
}
