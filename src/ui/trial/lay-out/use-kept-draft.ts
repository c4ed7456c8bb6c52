"use client";
import { useEffect, useRef, useState } from "react";
import { type Draft, isSameDraft } from "../../../core/trial/draft";
import { keepDraft } from "../../../server/actions/trial-actions";

const KEPT = "Everything fits. The layout is kept.";
const KEEPING = "Keeping the layout…";
const WAIT_MS = 400;
/** While it cannot be kept, it is tried again after this. */
const AGAIN_MS = 3000;

type Props = {
  trialId: number;
  n: number;
  draft: Draft;
  setDraft: (draft: Draft) => void;
  /** As the server has it now: another window may have changed it. */
  onServer: Draft;
  active: boolean;
};

export type KeptState = {
  kept: boolean;
  words: string;
  /** What another window laid out meanwhile, where this one has something else; `null` where they agree. */
  theirs: Draft | null;
  /** Takes theirs, or goes on with this one in its place. */
  settle: (with_: "theirs" | "mine") => void;
};

/**
 * Keeps what is typed on disk shortly after the last key, and goes on trying. What another window changed is taken over where
 * nothing was typed here since, and else shown beside it: nothing is lost of either.
 */
export function useKeptDraft({ trialId, n, draft, setDraft, onServer, active }: Props): KeptState {
  const [words, setWords] = useState(KEPT);
  const [theirs, setTheirs] = useState<Draft | null>(null);
  const [late, lookAgain] = useState(0);
  /** What this page last knew to be on disk, and everything that it put there. */
  const base = useRef(onServer);
  const own = useRef<Draft[]>([onServer]);
  const current = useRef(draft);
  current.current = draft;

  useEffect(() => {
    if (!active || own.current.some((d) => isSameDraft(d, onServer))) return;
    if (isSameDraft(current.current, base.current)) {
      base.current = onServer;
      own.current.push(onServer);
      setDraft(onServer);
      setWords(`${KEPT} It was changed in another window.`);
    } else setTheirs(onServer);
  }, [active, onServer, setDraft]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: after a draft that was kept late this is looked at again
  useEffect(() => {
    if (!active || theirs) return;
    if (isSameDraft(draft, base.current)) return setWords((w) => (w.startsWith(KEPT) ? w : KEPT));
    setWords(KEEPING);
    let isLatest = true;
    const keep = async () => {
      const result = await keepDraft({ trialId, n, draft, base: base.current }).catch(() => null);
      if (result?.ok && result.value.kept) {
        base.current = draft;
        own.current.push(draft);
        // What was typed meanwhile is held against what is on disk now.
        if (isLatest) setWords(KEPT);
        else lookAgain((n) => n + 1);
        return;
      }
      if (!isLatest) return;
      if (result?.ok && !result.value.kept) return setTheirs(result.value.theirs);
      const why =
        result && !result.ok ? result.message : "the server does not answer. Your entries are still in this page.";
      setWords(`Not on disk: ${why}`);
      timer = setTimeout(keep, AGAIN_MS);
    };
    let timer = setTimeout(keep, WAIT_MS);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [trialId, n, draft, active, theirs, late]);

  function settle(with_: "theirs" | "mine") {
    if (!theirs) return;
    base.current = theirs;
    own.current.push(theirs);
    setTheirs(null);
    if (with_ === "theirs") {
      setDraft(theirs);
      setWords(KEPT);
    }
  }

  // The effect speaks one render late: a field that was typed this moment is not on disk, whatever the words still are.
  const isOnDisk = isSameDraft(draft, base.current);
  const kept = theirs === null && isOnDisk && words.startsWith(KEPT);
  return { kept, words: wordsNow(), theirs, settle };

  function wordsNow(): string {
    if (theirs) return "Another window saved a different layout.";
    return !isOnDisk && words.startsWith(KEPT) ? KEEPING : words;
  }
}
