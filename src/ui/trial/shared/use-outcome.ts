"use client";
/** The result of a history. A worker calculates slow responses. Meanwhile the page shows the result before. */
import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from "react";
import type { ArrayGiven } from "../../../core/marking/array-given";
import { isAnswerKnown, knownAnswer, learnAnswer } from "../../../core/marking/known-answers";
import type { AnyProcedure } from "../../../core/procedures/contract";
import type { History } from "../../../core/trial/history";
import type { Outcome } from "../../../core/trial/outcome";
import type { FromResponder, ToResponder } from "../../../workers/response-messages";

export type Worked = {
  /** History of the outcome: the newest, or the one before while a worker calculates. */
  history: History;
  outcome: Outcome;
  /** Finished share of the calculation; `null` = finished. */
  share: number | null;
};

export function useOutcome(procedure: AnyProcedure, newest: History): Worked {
  const orders = useMemo(() => procedure.responses?.(newest) ?? NONE, [procedure, newest]);
  // Server and page must render the same at first, so both start without an answer.
  const [known, setKnown] = useState<History | null>(null);
  const [share, setShare] = useState(0);
  const settle = useCallback(() => {
    setKnown(newest);
    setShare(0);
  }, [newest]);
  const isOpen = orders.length > 0 && known !== newest;
  useLayoutEffect(() => {
    if (isOpen && orders.every(isAnswerKnown)) settle();
  }, [isOpen, orders, settle]);
  useEffect(() => {
    const open = orders.filter((given) => !isAnswerKnown(given));
    return isOpen && open.length > 0 ? workOut(open, setShare, settle) : undefined;
  }, [isOpen, orders, settle]);

  const history = useMemo(() => (isOpen ? (known ?? unread(newest)) : newest), [isOpen, known, newest]);
  const outcome = useMemo(
    () => (isOpen && !known ? WORKING : procedure.solve(history)),
    [procedure, isOpen, known, history],
  );
  return { history, outcome, share: isOpen ? share : null };
}

const NONE: readonly ArrayGiven[] = [];
const WORKING: Outcome = {
  status: "open",
  missing: "Calculating the response.",
  table: null,
  findings: [],
};

function unread(history: History): History {
  return { ...history, rounds: history.rounds.map((r) => ({ ...r, answers: [] })) };
}

/** @returns a function that stops the worker */
function workOut(orders: readonly ArrayGiven[], onShare: (share: number) => void, onDone: () => void): () => void {
  const worker = new Worker(new URL("../../../workers/response.worker.ts", import.meta.url), { type: "module" });
  let at = 0;
  const ask = () => {
    const given = orders[at];
    if (given) worker.postMessage({ given } satisfies ToResponder);
    else onDone();
  };
  worker.onmessage = ({ data }: MessageEvent<FromResponder>) => {
    if (data.kind === "progress") return onShare((at + data.share) / orders.length);
    const given = orders[at];
    if (given) learnAnswer(given, data.answer);
    at++;
    ask();
  };
  // Without a worker the page calculates and waits.
  worker.onerror = () => {
    orders.forEach(knownAnswer);
    onDone();
  };
  ask();
  return () => worker.terminate();
}
