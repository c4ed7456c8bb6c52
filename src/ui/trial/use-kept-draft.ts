"use client";
import { useEffect, useRef, useState } from "react";
import type { Draft } from "../../core/procedures/draft";
import { keepDraft } from "../../server/actions";

const WAIT_MS = 400;

/** Keeps what is typed on disk shortly after the last key; says in words whether it is there. */
export function useKeptDraft(trialId: number, n: number, draft: Draft, active: boolean): string {
  const [state, setState] = useState<"kept" | "waiting" | "failed">("kept");
  const first = useRef(true);
  useEffect(() => {
    if (!active) return;
    if (first.current) {
      first.current = false;
      return;
    }
    setState("waiting");
    const timer = setTimeout(async () => {
      const result = await keepDraft({ trialId, n, draft }).catch(() => null);
      setState(result?.ok ? "kept" : "failed");
    }, WAIT_MS);
    return () => clearTimeout(timer);
  }, [trialId, n, draft, active]);
  if (state === "waiting") return "Keeping the layout…";
  if (state === "failed") return "Not on disk: the server does not answer. Your entries are still in this page.";
  return "Everything fits. The layout is kept.";
}
