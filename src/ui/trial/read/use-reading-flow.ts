"use client";
import { useEffect, useRef, useState } from "react";
import type { Site } from "../../../core/coupon/site";
import { questionAbout } from "../../../core/course/plausibility";
import type { Sitting } from "../../../core/metrology/sitting";
import type { AnyProcedure } from "../../../core/procedures/contract";
import { siteIsDone, sitesLeft } from "../../../core/trial/answer";
import { type AnswerInput, readAnswerInput } from "../../../core/trial/answer-input";
import type { History } from "../../../core/trial/history";
import type { TakenReading } from "../../../server/trial/trial-view";
import type { AskHandle, InputFault } from "./ask/ask-props";
import { inOneLine, restOf, tooManyText } from "./in-one-line";
import { useKeptTyping } from "./use-kept-typing";
import type { useReadings } from "./use-readings";
import { useTypeAhead } from "./use-type-ahead";

type Store = Pick<ReturnType<typeof useReadings>, "readings" | "waiting" | "take" | "undo" | "busy">;

type Props = {
  /** Of the round in this tab. */
  name: string;
  sites: readonly Site[];
  start: string;
  store: Store;
  sitting: Sitting | undefined;
  procedure: AnyProcedure;
  historyOf: (readings: readonly TakenReading[]) => History;
};

/** Going from site to site: what is in hand, what was said about it, and the moves there are. */
export function useReadingFlow({ name, sites, start, store, sitting, procedure, historyOf }: Props) {
  const { readings, waiting, take, undo, busy } = store;
  const answers = readings.map((r) => r.answer);
  const [siteId, setSiteId] = useState(start);
  const [typed, setTyped] = useState<number | null>(null);
  const [fault, setFault] = useState<InputFault | null>(null);
  const [question, setQuestion] = useState<{ about: string; text: string } | null>(null);
  const [said, setSaid] = useState("");
  const [fills, setFills] = useState(0);
  const handle = useRef<AskHandle>(null);
  const site = sites.find((s) => s.id === siteId) ?? sites[0];
  const waited = useRef(waiting);
  useEffect(() => {
    if (waited.current > 0 && waiting === 0) setSaid("all on disk");
    waited.current = waiting;
  }, [waiting]);

  function goTo(id: string) {
    setSiteId(id);
    setTyped(null);
    setFault(null);
    setQuestion(null);
  }

  function step(by: number) {
    const at = sites.findIndex((s) => s.id === site?.id);
    const next = sites[Math.min(sites.length - 1, Math.max(0, at + by))];
    if (next) goTo(next.id);
  }

  /** What cannot be read, or is asked about for the first time, is not sent. @param before readings so far. @returns how the screen says so */
  function heldBack(input: AnswerInput, before: readonly TakenReading[]): (() => void) | null {
    if (!site || !sitting || input.kind === "cannot read") return null;
    const read = readAnswerInput(site, input, sitting);
    if (!read.ok) return () => setFault(read.issue);
    const about = JSON.stringify([site.id, input]);
    const asked = question?.about === about ? null : questionAbout(procedure, historyOf(before), site, read.value);
    return asked === null ? null : () => setQuestion({ about, text: asked });
  }

  async function takeHere(input: AnswerInput, from: "typed" | "wedge" | "practice" = "typed") {
    if (!site || busy) return;
    const inputs = inOneLine(input);
    const wanted = site.repeats - answers.filter((a) => a.site === site.id).length;
    if (inputs.length > Math.max(1, wanted) && !site.openEnded)
      return setFault({ field: "text", message: tooManyText(inputs.length, wanted) });
    const taken: TakenReading[] = [];
    let done = "taken";
    for (const [i, one] of inputs.entries()) {
      const held = heldBack(one, [...readings, ...taken]);
      const result = held ? null : await take(site.id, one, from);
      if (!result?.ok) {
        // What was taken of the line is on disk; the rest of it stays in the field.
        if (i > 0 && input.kind === "quantity") handle.current?.fill(restOf(inputs, i), input.words);
        if (result) setFault(result);
        held?.();
        return;
      }
      taken.push(result.reading);
      if (!result.onDisk) done = "waits";
    }
    moved(input.kind === "quantity" ? `${done}: ${input.text}` : done);
    const after = [...answers, ...taken.map((r) => r.answer)];
    const enough = input.kind === "cannot read" || siteIsDone(site, after);
    if (!enough || site.openEnded) return;
    const at = sites.indexOf(site);
    const left = sitesLeft(sites, answers).filter((s) => s !== site);
    const next = left.find((s) => sites.indexOf(s) > at) ?? left[0];
    if (next) goTo(next.id);
  }

  async function takeBack() {
    const result = await undo();
    if (typeof result === "string") {
      setFault({ field: "", message: result });
      return;
    }
    goTo(result.site);
    moved(`taken back: ${result.raw}`);
  }

  /** Something changed on disk: the field begins anew. */
  function moved(words: string) {
    setSaid(words);
    setFault(null);
    setQuestion(null);
    setTyped(null);
    kept.forget();
    setFills((f) => f + 1);
  }

  function repeat() {
    const last = readings.at(-1);
    if (last) goTo(last.site);
  }

  function typing(value: number | null) {
    setTyped(value);
    setFault(null);
    setQuestion(null);
  }

  const kept = useKeptTyping(name, site?.id ?? "", goTo, handle);
  const missed = useTypeAhead({ busy, done: fills, held: fault !== null || question !== null, handle });
  const cannot = () => takeHere({ kind: "cannot read", why: "said so while reading" });
  return {
    site,
    answers,
    typed,
    fault,
    said,
    fills,
    handle,
    busy,
    question: question?.text ?? null,
    missed,
    kept,
    goTo,
    step,
    takeHere,
    takeBack,
    moved,
    repeat,
    typing,
    cannot,
  };
}

export type ReadingFlow = ReturnType<typeof useReadingFlow>;
