"use client";
import { useEffect, useRef, useState } from "react";
import type { Draft } from "../../core/procedures/draft";
import { keepDraft } from "../../server/actions";

const WAIT_MS = 400;

/** Keeps what is typed on disk shortly after the last key; says whether it is there, also in words. */
export function useKeptDraft(
  trialId: number,
  n: number,
  draft: Draft,
  active: boolean,
): { kept: boolean; words: string } {
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
  return { kept: state === "kept", words: WORDS[state] };
}

const WORDS = {
  kept: "Everything fits. The layout is kept.",
  waiting: "Keeping the layout…",
  failed: "Not on disk: the server does not answer. Your entries are still in this page.",
} as const;
