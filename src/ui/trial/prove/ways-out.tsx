"use client";
import { useRouter } from "next/navigation";
import type { WayOut } from "../../../core/trial/verdict";
import { readMore } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Fault } from "../../primitives/notice";
import { useAction } from "../../primitives/use-action";
import { stageHref } from "../shared/stages";

/** The cheapest ways to a verdict: each asks for its readings and leads to them. */
export function WaysOut({ view, n, ways }: { view: TrialView; n: number; ways: readonly WayOut[] }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  if (ways.length === 0) return null;
  const go = (way: WayOut) =>
    run(
      () => readMore({ trialId: view.id, n, sites: way.sites, more: way.more }),
      () => {
        const href = stageHref(view, "read", n);
        router.push(way.gauge ? `${href}${href.includes("?") ? "&" : "?"}gauge=${way.gauge}` : href);
      },
    );
  return (
    <div className="mt-4">
      <h3 className="font-semibold">{ways.length === 1 ? "The way out" : "Ways out, cheapest first"}</h3>
      <ul className="mt-1 grid gap-2">
        {ways.map((way, i) => (
          <li key={way.text} className="flex items-start justify-between gap-4 border-t border-hair pt-2">
            <span>{way.text}</span>
            <Button weight={i === 0 ? "primary" : "plain"} disabled={busy} onClick={() => go(way)}>
              Read them
            </Button>
          </li>
        ))}
      </ul>
      {fault.message && <Fault>{fault.message}</Fault>}
    </div>
  );
}
