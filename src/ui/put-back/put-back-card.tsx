import type { MachineView } from "../../server/screens/machine-view";
import { PutBackItem } from "./put-back-item";
import { PutBackNote } from "./put-back-note";

/** What was set on purpose for a while: it stays on the bench until it is put back. */
export function PutBackCard({ view, now }: { view: MachineView; now: number }) {
  return (
    <section className="card p-5" aria-label="To put back">
      <h2 className="text-[17px] font-bold">To put back</h2>
      {view.putBack.length === 0 ? (
        <p className="text-ink2">No temporary changes.</p>
      ) : (
        <ul className="mt-1">
          {view.putBack.map((item) => (
            <li key={item.id} className="border-t border-hair py-1.5 first:border-0">
              <PutBackItem item={item} machine={view.slug} now={now} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <PutBackNote machine={view.slug} />
      </div>
    </section>
  );
}
