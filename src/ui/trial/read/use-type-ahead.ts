"use client";
import { type RefObject, useEffect, useLayoutEffect, useRef, useState } from "react";
import { takesText } from "../../primitives/takes-text";
import type { AskHandle } from "./ask/ask-props";

type Words = "positive" | "negative";
type Key = { key: string; fromGauge: boolean; words: Words | null };

/** Alt with these chooses the words of the sign. */
const WORDS: Partial<Record<string, Words>> = { Digit1: "positive", Digit2: "negative" };

type Props = {
  /** A reading is on its way to disk. */
  busy: boolean;
  /** Changes with every reading that is on disk. */
  done: number;
  /** The last one was not taken, or is asked about. */
  held: boolean;
  handle: RefObject<AskHandle | null>;
};

/**
 * Keys that arrive while a reading is on its way to disk: kept in their order, and given to the next field when it is there.
 * Where the reading before is not taken, they are not either: they are named, so that nothing is lost without a word.
 *
 * @returns what was typed and not taken
 */
export function useTypeAhead(props: Props): string {
  const { done, held, handle } = props;
  const latest = useRef(props);
  latest.current = props;
  const waiting = useRef<Key[]>([]);
  // Keys that come while the kept ones are being given on belong behind them.
  const giving = useRef(false);
  const enterNext = useRef(false);
  const [turn, nextTurn] = useState(0);
  const [missed, setMissed] = useState("");

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const { busy, handle } = latest.current;
      if (!(busy || giving.current) || !handle.current || e.ctrlKey || e.metaKey) return;
      const words = e.altKey ? (WORDS[e.code] ?? null) : null;
      const isTyped = !e.altKey && (e.key.length === 1 || e.key === "Enter" || e.key === "Backspace");
      if (!isTyped && !words) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      if (words) waiting.current.push({ key: "", fromGauge: true, words });
      else if (e.key !== "Backspace")
        waiting.current.push({ key: e.key, fromGauge: !takesText(e.target), words: null });
      else if (waiting.current.at(-1)?.key !== "Enter") waiting.current.pop();
    };
    // Before the field itself has them.
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: what was named is dealt with once a reading is taken again
  useLayoutEffect(() => setMissed(""), [done]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a reading on disk, or a field that has its characters, moves this on
  useLayoutEffect(() => {
    if (latest.current.busy) return;
    if (!handle.current && waiting.current.length > 0) {
      // The next question takes no typed number.
      name(waiting.current);
      giving.current = false;
      enterNext.current = false;
      return;
    }
    if (enterNext.current) {
      enterNext.current = false;
      giving.current = false;
      handle.current?.submit();
      return;
    }
    const queue = waiting.current;
    const enter = queue.findIndex((k) => k.key === "Enter");
    const characters = queue.splice(0, enter < 0 ? queue.length : enter);
    if (characters.length > 0)
      handle.current?.type(
        characters.map((k) => k.key).join(""),
        characters.every((k) => k.fromGauge),
        characters.findLast((k) => k.words)?.words ?? undefined,
      );
    giving.current = enter >= 0;
    if (enter < 0) return;
    queue.shift();
    // The field has the characters after it is drawn again.
    enterNext.current = true;
    nextTurn((t) => t + 1);
  }, [done, turn]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is held moves this on
  useLayoutEffect(() => {
    if (held && waiting.current.length > 0) name(waiting.current);
  }, [held]);

  function name(keys: readonly Key[]) {
    setMissed(textOf(keys));
    waiting.current = [];
  }

  return missed;
}

function textOf(keys: readonly Key[]): string {
  return keys
    .map((k) => (k.key === "Enter" ? ", " : k.key))
    .join("")
    .replace(/, $/, "");
}
