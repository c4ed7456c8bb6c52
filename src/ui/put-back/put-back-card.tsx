import { countText } from "../../core/metrology/count-text";
import type { MachineView } from "../../server/screens/machine-view";
import { Concern } from "../primitives/concern";
import { PutBackItem } from "./put-back-item";
import { PutBackNote } from "./put-back-note";

/** What was set on purpose for a while: it stays on the bench until it is put back. */
export function PutBackCard({ view, now }: { view: MachineView; now: number }) {
  const count = view.putBack.length;
  return (
    <Concern
      keptAs={`put back ${view.slug}`}
      name="To put back"
      fact={count === 0 ? "nothing" : countText(count, "temporary change")}
      isOpen={count > 0}
    >
      {count > 0 && (
        <ul className="mb-3">
          {view.putBack.map((item) => (
            <li key={item.id} className="border-t border-hair py-1.5 first:border-0">
              <PutBackItem item={item} machine={view.slug} now={now} />
            </li>
          ))}
        </ul>
      )}
      <PutBackNote machine={view.slug} />
    </Concern>
  );
}
