"use client";
import { useState } from "react";
import type { AnswerInput } from "../../core/procedures/answer-input";
import { takeReading, undoReading } from "../../server/actions";
import type { TakenReading } from "../../server/trial-view";

export type Taken = { ok: true } | { ok: false; field: string; message: string };

/** Readings of a round as the page has them: each stands here only once it is on disk. */
export function useReadings(trialId: number, n: number, initial: readonly TakenReading[]) {
  const [readings, setReadings] = useState(initial);
  const [known, setKnown] = useState(initial);
  // The server's word, when it comes anew, counts; what was taken here since then stays.
  if (known !== initial) {
    setKnown(initial);
    const newest = Math.max(0, ...known.map((r) => r.id), ...initial.map((r) => r.id));
    setReadings((all) => [...initial, ...all.filter((r) => r.id > newest)]);
  }
  const [busy, setBusy] = useState(false);

  async function take(site: string, input: AnswerInput, from: "typed" | "wedge" | "practice"): Promise<Taken> {
    setBusy(true);
    const result = await takeReading({ trialId, n, site, input, from, clientKey: crypto.randomUUID() }).catch(
      () => null,
    );
    setBusy(false);
    if (!result)
      return {
        ok: false,
        field: "",
        message: "Not taken: the server does not answer. What you typed is still here; try again.",
      };
    if (!result.ok) return result;
    setReadings((all) => [...all, result.value]);
    return { ok: true };
  }

  /** Takes back the newest reading. @returns it, or why not */
  async function undo(): Promise<TakenReading | string> {
    const last = readings.at(-1);
    if (!last) return "There is nothing to take back.";
    setBusy(true);
    const result = await undoReading({ trialId, n, readingId: last.id }).catch(() => null);
    setBusy(false);
    if (!result?.ok) return result?.message ?? "The server does not answer: nothing was taken back.";
    setReadings((all) => all.filter((r) => r.id !== last.id));
    return last;
  }

  return { readings, take, undo, busy };
}
