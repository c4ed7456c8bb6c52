"use client";
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { Site } from "../../../core/coupon/site";
import type { AnswerInput } from "../../../core/trial/answer-input";
import { takenAnswer } from "../../../core/trial/answer-input";
import { textFromInput } from "../../../core/trial/answer-text";
import { undoReading } from "../../../server/actions/trial-actions";
import type { Session, TakenReading } from "../../../server/trial/trial-view";
import { newClientKey } from "../../waiting/client-key";
import {
  drop,
  nothingWaits,
  onTaken,
  type Refused,
  send,
  subscribe,
  wait,
  waitingState,
} from "../../waiting/waiting-readings";

export type Taken =
  | { ok: true; onDisk: boolean; reading: TakenReading }
  | { ok: false; field: string; message: string };

type Props = {
  trialId: number;
  n: number;
  /** As the server has them. */
  initial: readonly TakenReading[];
  sites: readonly Site[];
  session: Session | undefined;
};

/** Readings of a round as the page has them: those on disk, then those that wait for the server. */
export function useReadings({ trialId, n, initial, sites, session }: Props) {
  const [onDisk, setOnDisk] = useState(initial);
  const [known, setKnown] = useState(initial);
  /** Taken back here: a page that the server made before that does not bring them back. */
  const [undone, setUndone] = useState<ReadonlySet<number>>(new Set());
  // The server's word, when it comes anew, counts; what was taken here since then stays.
  if (known !== initial) {
    setKnown(initial);
    const newest = Math.max(0, ...known.map((r) => r.id), ...initial.map((r) => r.id));
    setOnDisk((all) => [...initial.filter((r) => !undone.has(r.id)), ...all.filter((r) => r.id > newest)]);
  }
  const [busy, setBusy] = useState(false);
  const {
    waiting: everyWaiting,
    refused: everyRefused,
    why,
  } = useSyncExternalStore(subscribe, waitingState, nothingWaits);
  const here = (r: { trialId: number; n: number }) => r.trialId === trialId && r.n === n;
  const waiting = everyWaiting.filter(here);
  // The same list until something is taken or sent: what is worked out of it is kept while somebody types.
  const readings = useMemo(
    () => [...onDisk, ...everyWaiting.filter((r) => r.trialId === trialId && r.n === n).map(asTaken)],
    [onDisk, everyWaiting, trialId, n],
  );
  const taken = useRef(0);

  const add = useCallback(
    (reading: TakenReading) => setOnDisk((all) => (all.some((r) => r.id === reading.id) ? all : [...all, reading])),
    [],
  );
  useEffect(
    () =>
      onTaken((sent, reading) => {
        if (sent.trialId === trialId && sent.n === n) add(reading);
      }),
    [trialId, n, add],
  );

  async function take(siteId: string, input: AnswerInput, from: "typed" | "wedge" | "practice"): Promise<Taken> {
    const site = sites.find((s) => s.id === siteId);
    if (!site || !session) return { ok: false, field: "", message: "Say first which gauge you read with." };
    const sending = { trialId, n, site: siteId, input, from, clientKey: newClientKey(), session: session.id };
    // Behind what waits already, so that their order stays.
    const isBehind = waitingState().waiting.length > 0;
    setBusy(!isBehind);
    const result = isBehind ? null : await send(sending);
    setBusy(false);
    if (result?.ok) {
      add(result.value);
      return { ok: true, onDisk: true, reading: result.value };
    }
    if (result && !result.mayPass) return result;
    const read = takenAnswer(site, input, session, from);
    if (!read.ok) return { ok: false, ...read.issue };
    const raw = textFromInput(site, input).reading;
    const order = Date.now() + taken.current++ / 1000;
    const unsent = { ...sending, answer: read.answer, raw, order };
    wait(unsent, isBehind ? undefined : (result?.mayPass ?? null));
    return { ok: true, onDisk: false, reading: asTaken(unsent, 0) };
  }

  /** Takes back the newest reading. @returns it, or why not */
  async function undo(): Promise<Pick<TakenReading, "site" | "raw"> | string> {
    const unsent = waitingState().waiting.filter(here).at(-1);
    if (unsent) {
      drop(unsent.clientKey);
      return unsent;
    }
    const last = onDisk.at(-1);
    if (!last) return "There is nothing to take back.";
    setBusy(true);
    const result = await undoReading({ trialId, n, readingId: last.id }).catch(() => null);
    setBusy(false);
    if (!result?.ok) return result?.message ?? "The server does not answer: nothing was taken back.";
    setUndone((all) => new Set(all).add(last.id));
    setOnDisk((all) => all.filter((r) => r.id !== last.id));
    return last;
  }

  const refused: readonly Refused[] = everyRefused.filter(here);
  return {
    readings,
    onDisk,
    waiting: waiting.length,
    why,
    refused,
    take,
    undo,
    busy,
  };
}

/** As if it were on disk already: for the drawing and the result beside it. */
function asTaken(
  { site, raw, answer, clientKey, order }: ReturnType<typeof waitingState>["waiting"][number],
  i: number,
): TakenReading {
  return { id: -1 - i, site, raw, answer, clientKey, takenAt: order };
}
