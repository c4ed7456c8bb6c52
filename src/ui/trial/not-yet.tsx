import type { TrialView } from "../../server/trial/trial-view";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { stageHref } from "./shared/stages";

/** A stage that waits for the burn. */
export function NotYet({ view, n }: { view: TrialView; n: number }) {
  return (
    <main className="mx-auto w-full max-w-xl flex-1 px-6 py-14">
      <h2 className="text-xl font-bold">Not burned yet.</h2>
      <p className="mt-2 text-ink2">Lay the coupon out and burn it; then there is something to read.</p>
      <Link href={stageHref(view, "burn", n)} className={buttonClass("primary", "mt-5")}>
        To the burn
      </Link>
    </main>
  );
}
