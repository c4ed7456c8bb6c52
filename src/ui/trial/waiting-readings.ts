"use client";
/**
 * Readings that could not be sent: they wait in this browser, in their order, until the server is back, over reloads too. Each is
 * marked as not on disk until the server says that it is; sent twice it is taken once.
 */
import type { Answer } from "../../core/procedures/answer";
import type { AnswerInput } from "../../core/procedures/answer-input";
import { takeReading } from "../../server/actions";
import type { TakenReading } from "../../server/trial-view";

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
export type Refused = Waiting & { message: string };
export type WaitingState = { waiting: readonly Waiting[]; refused: readonly Refused[] };
export type Sent = { ok: true; value: TakenReading } | { ok: false; field: string; message: string };

const PREFIX = "ustrina reading ";
const AGAIN_MS = 2000;
/** A server that says nothing for so long is away. */
const AWAY_AFTER_MS = 8000;

const NOTHING: WaitingState = { waiting: [], refused: [] };
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

export function wait(reading: Waiting): void {
  keep(reading);
  change({ ...state, waiting: [...state.waiting, reading] });
  sendSoon(AGAIN_MS);
}

/** Takes back a reading that was never sent, or a refused one out of sight. */
export function drop(clientKey: string): void {
  forget(clientKey);
  const others = <R extends Waiting>(list: readonly R[]) => list.filter((r) => r.clientKey !== clientKey);
  change({ waiting: others(state.waiting), refused: others(state.refused) });
}

/** What waited when the page was left, and what waits in other windows of this browser. */
export function beginSending(): () => void {
  const kept = keptBefore();
  const unknown = kept.filter((k) => state.waiting.every((w) => w.clientKey !== k.clientKey));
  if (unknown.length > 0)
    change({ ...state, waiting: [...state.waiting, ...unknown].sort((a, b) => a.order - b.order) });
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

/** In their order; stops at the first that gets no answer. */
async function sendAll(): Promise<void> {
  if (isSending) return;
  isSending = true;
  for (let first = state.waiting[0]; first; first = state.waiting[0]) {
    const answer = await send(first);
    if (!answer) break;
    const sent = first;
    drop(sent.clientKey);
    if (answer.ok) for (const taker of takers) taker(sent, answer.value);
    else change({ ...state, refused: [...state.refused, { ...sent, message: answer.message }] });
  }
  isSending = false;
  sendSoon(AGAIN_MS);
}

function change(next: WaitingState): void {
  state = next;
  for (const listener of listeners) listener();
}

/** A browser that is full or keeps nothing still holds it in this page. */
function keep(reading: Waiting): void {
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

function keptBefore(): Waiting[] {
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
