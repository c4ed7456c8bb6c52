"use client";
import { useRouter } from "next/navigation";
import type { MachineView } from "../../server/machine-view";
import { noteToPutBack } from "../../server/workshop-actions";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { PutBackItem } from "./put-back-item";

/** What was set on purpose for a while: it stays on the bench until it is put back. */
export function PutBackCard({ view, now }: { view: MachineView; now: number }) {
  const router = useRouter();
  const [what, setWhat, forget] = useSurviving(`put back ${view.slug}`, "");
  const { busy, fault, run } = useAction();
  return (
    <section className="card p-5" aria-label="To put back">
      <h2 className="text-[17px] font-bold">To put back</h2>
      {view.putBack.length === 0 ? (
        <p className="text-ink2">Nothing is set for a while only.</p>
      ) : (
        <ul className="mt-1">
          {view.putBack.map((item) => (
            <li key={item.id} className="border-t border-hair py-1.5 first:border-0">
              <PutBackItem item={item} machine={view.slug} now={now} />
            </li>
          ))}
        </ul>
      )}
      <form
        aria-label="Something to put back"
        className="mt-3 flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          run(
            () => noteToPutBack({ machine: view.slug, what }),
            () => {
              forget();
              router.refresh();
            },
          );
        }}
      >
        <div className="min-w-0 flex-1">
          <TextField
            label="Set for a while, such as travel limits off"
            words
            value={what}
            onChange={setWhat}
            fault={fault.message}
          />
        </div>
        <Button type="submit" disabled={busy}>
          Remember it
        </Button>
      </form>
    </section>
  );
}
