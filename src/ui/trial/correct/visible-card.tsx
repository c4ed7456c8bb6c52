import type { Visible } from "../../../core/trial/outcome";
import type { TrialView } from "../../../server/trial/trial-view";
import { Link } from "../../primitives/link";
import { aloneText, listedShort } from "../shared/alone-text";

type Props = { view: TrialView; n: number; visible: readonly Visible[] };

/** For each result, the smallest error of one reading that would have been noticed, and the readings that nothing checks. */
export function VisibleCard({ view, n, visible }: Props) {
  if (visible.length === 0) return null;
  const alone = [...new Set(visible.flatMap((result) => result.alone))];
  return (
    <section className="card px-5 py-4" aria-label="Errors that would be noticed">
      <h2 className="font-semibold">Errors that would be noticed</h2>
      <ul className="mt-1 grid">
        {visible.map((result) => (
          <li key={result.estimate} className="border-t border-hair py-2 first:border-0">
            <h3 className="font-semibold">{result.label}</h3>
            {result.seen && (
              <p>
                An error of {result.seen.smallest} in one reading is noticed 8 times out of 10. A smaller error can
                change this result by up to {result.seen.moves}.
              </p>
            )}
            {result.unchecked.length > 0 && (
              <p>
                No other reading checks {listedShort(result.unchecked)}.{" "}
                {result.site && (
                  <Link
                    className="underline"
                    href={`/trial/${view.id}/read?${n > 1 ? `round=${n}&` : ""}site=${encodeURIComponent(result.site)}`}
                  >
                    Read this point again
                  </Link>
                )}
              </p>
            )}
          </li>
        ))}
      </ul>
      {alone.length > 0 && <p className="border-t border-hair pt-2">{aloneText(alone)}</p>}
    </section>
  );
}
