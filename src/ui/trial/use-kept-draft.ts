"use client";
import { useEffect, useRef, useState } from "react";
import type { Draft } from "../../core/procedures/draft";
import { keepDraft } from "../../server/actions";

const KEPT = "Everything fits. The layout is kept.";
const WAIT_MS = 400;
/** While it cannot be kept, it is tried again after this. */
const AGAIN_MS = 3000;

/** Keeps what is typed on disk shortly after the last key, and goes on trying; says whether it is there, also in words. */
export function useKeptDraft(
  trialId: number,
  n: number,
  draft: Draft,
  active: boolean,
): { kept: boolean; words: string } {
  const [words, setWords] = useState(KEPT);
  const first = useRef(true);
  useEffect(() => {
    if (!active) return;
    if (first.current) {
      first.current = false;
      return;
    }
    setWords("Keeping the layout…");
    let isLatest = true;
    const keep = async () => {
      const result = await keepDraft({ trialId, n, draft }).catch(() => null);
      if (!isLatest) return;
      if (result?.ok) return setWords(KEPT);
      setWords(`Not on disk: ${result?.message ?? "the server does not answer. Your entries are still in this page."}`);
      timer = setTimeout(keep, AGAIN_MS);
    };
    let timer = setTimeout(keep, WAIT_MS);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [trialId, n, draft, active]);
  return { kept: words === KEPT, words };
}
