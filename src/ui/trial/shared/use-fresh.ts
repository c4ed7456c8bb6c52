"use client";
import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import type { TrialStamp } from "../../../server/trial/trial-view";

/** Another window's readings are seen here within two seconds. */
const ASK_EVERY_MS = 1500;

/**
 * Asks while the page is seen, and at once when it is looked at again, whether the trial changed elsewhere; then the page gets it.
 *
 * @param isKnown whether the page has everything that a stamp stands for
 */
export function useFresh(trialId: number, isKnown: (stamp: TrialStamp) => boolean, active = true): void {
  const router = useRouter();
  const latest = useRef({ isKnown, router });
  latest.current = { isKnown, router };
  useEffect(() => {
    if (!active) return;
    let gone = false;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      const stamp = await fetch(`/api/trials/${trialId}/stamp`)
        .then((answer) => (answer.ok ? (answer.json() as Promise<TrialStamp>) : null))
        .catch(() => null);
      if (stamp && !gone && !latest.current.isKnown(stamp)) latest.current.router.refresh();
    };
    const timer = setInterval(ask, ASK_EVERY_MS);
    window.addEventListener("focus", ask);
    document.addEventListener("visibilitychange", ask);
    return () => {
      gone = true;
      clearInterval(timer);
      window.removeEventListener("focus", ask);
      document.removeEventListener("visibilitychange", ask);
    };
  }, [trialId, active]);
}
