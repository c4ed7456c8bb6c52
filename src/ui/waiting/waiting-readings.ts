"use client";
/**
 * Readings that could not be sent: they wait in this browser, in their order, until the server is back, over reloads too. Each is
 * marked as not on disk until the server says that it is; sent twice it is taken once.
 */
import type { Answer } from "../../core/trial/answer";
import type { AnswerInput } from "../../core/trial/answer-input";
import { takeReading } from "../../server/actions/trial-actions";
import type { TakenReading } from "../../server/trial/trial-view";

export type Sending = {
  trialId: number;
  n: number;
  site: string;
  input: AnswerInput;
  from: "typed" | "wedge" | "practice";
  clientKey: string;
  session: number;
};
export type Waiting = Sending & { answer: Answer; raw: string; order: number };
/** Kept like those that wait, until the person has seen why or sends it again. */
export type Refused = Waiting & { message: string };
export type WaitingState = {
  waiting: readonly Waiting[];
  refused: readonly Refused[];
  /** Why they wait, by the server's word; `null` = it does not answer. */
  why: string | null;
};
export type Sent = Awaited<ReturnType<typeof takeReading>>;

const PREFIX = "ustrina reading ";
const AGAIN_MS = 2000;
/** A server that says nothing for so long is away. */
const AWAY_AFTER_MS = 8000;

const NOTHING: WaitingState = { waiting: [], refused: [], why: null };
let state = NOTHING;
let timer: ReturnType<typeof setTimeout> | null = null;
let isSending = false;
const listeners = new Set<() => void>();
const takers = new Set<(sent: Waiting, reading: TakenReading) => void>();

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export const waitingState = () => state;
/** On the server nothing waits. */
export const nothingWaits = () => NOTHING;

/** Told of each waiting reading that is on disk now. */
export function onTaken(taker: (sent: Waiting, reading: TakenReading) => void): () => void {
  takers.add(taker);
  return () => takers.delete(taker);
}

/** Sends a reading; `null` where the server does not answer. */
export async function send({ trialId, n, site, input, from, clientKey, session }: Sending): Promise<Sent | null> {
  const away = new Promise<null>((done) => setTimeout(() => done(null), AWAY_AFTER_MS));
  const asked = takeReading({ trialId, n, site, input, from, clientKey, session }).catch(() => null);
  return Promise.race([asked, away]);
}

/** @param why by the server's word; `null` = it does not answer */
export function wait(reading: Waiting, why: string | null = state.why): void {
  keep(reading);
  change({ ...state, why, waiting: [...state.waiting, reading] });
  sendSoon(AGAIN_MS);
}

/** A refused one waits again, behind the others. */
export function sendAgain({ message: _, ...reading }: Refused): void {
  drop(reading.clientKey);
  wait(reading);
  sendSoon(0);
}

/** Takes back a reading that was never sent, or puts a refused one out of sight. */
export function drop(clientKey: string): void {
  forget(clientKey);
  const others = <R extends Waiting>(list: readonly R[]) => list.filter((r) => r.clientKey !== clientKey);
  change({ ...state, waiting: others(state.waiting), refused: others(state.refused) });
}

/** What waited when the page was left, and what waits in other windows of this browser. */
export function beginSending(): () => void {
  const known = new Set([...state.waiting, ...state.refused].map((r) => r.clientKey));
  const kept = keptBefore()
    .filter((k) => !known.has(k.clientKey))
    .sort((a, b) => a.order - b.order);
  const isRefused = (r: Waiting | Refused): r is Refused => "message" in r;
  if (kept.length > 0)
    change({
      ...state,
      waiting: [...state.waiting, ...kept.filter((k) => !isRefused(k))].sort((a, b) => a.order - b.order),
      refused: [...state.refused, ...kept.filter(isRefused)],
    });
  const now = () => sendSoon(0);
  now();
  window.addEventListener("online", now);
  window.addEventListener("focus", now);
  return () => {
    window.removeEventListener("online", now);
    window.removeEventListener("focus", now);
  };
}

function sendSoon(ms: number): void {
  if (timer) clearTimeout(timer);
  timer = state.waiting.length > 0 ? setTimeout(sendAll, ms) : null;
}

/** In their order; stops at the first that gets no answer, or cannot be kept just now. */
async function sendAll(): Promise<void> {
  if (isSending) return;
  isSending = true;
  for (let first = state.waiting[0]; first; first = state.waiting[0]) {
    const answer = await send(first);
    if (!answer || (!answer.ok && answer.mayPass)) {
      change({ ...state, why: answer?.mayPass ?? null });
      break;
    }
    const sent = first;
    drop(sent.clientKey);
    if (answer.ok) for (const taker of takers) taker(sent, answer.value);
    else refuse({ ...sent, message: answer.message });
  }
  isSending = false;
  sendSoon(AGAIN_MS);
}

function refuse(reading: Refused): void {
  keep(reading);
  change({ ...state, refused: [...state.refused, reading] });
}

function change(next: WaitingState): void {
  state = next;
  for (const listener of listeners) listener();
}

/** A browser that is full or keeps nothing still holds it in this page. */
function keep(reading: Waiting | Refused): void {
  try {
    localStorage.setItem(PREFIX + reading.clientKey, JSON.stringify(reading));
  } catch {
    return;
  }
}

function forget(clientKey: string): void {
  try {
    localStorage.removeItem(PREFIX + clientKey);
  } catch {
    return;
  }
}

function keptBefore(): (Waiting | Refused)[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(PREFIX))
      .flatMap((key) => parsed(localStorage.getItem(key)));
  } catch {
    return [];
  }
}

function parsed(text: string | null): Waiting[] {
  try {
    const read = JSON.parse(text ?? "") as Waiting;
    return typeof read.clientKey === "string" && typeof read.trialId === "number" ? [read] : [];
  } catch {
    return [];
  }
}
