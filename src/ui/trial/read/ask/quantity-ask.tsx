"use client";
import clsx from "clsx";
import { type Ref, useImperativeHandle, useRef, useState } from "react";
import type { Ask } from "../../../../core/coupon/site";
import { DEFAULT_UNIT, UNITS } from "../../../../core/metrology/units";
import { readAnswerInput } from "../../../../core/trial/answer-input";
import { nextLengthUnit } from "../../../../core/trial/decisions";
import { Button } from "../../../primitives/button";
import { Kbd } from "../../../primitives/kbd";
import { Fault } from "../../../primitives/notice";
import { OneOf } from "../../../primitives/one-of";
import type { AskHandle, AskProps } from "./ask-props";
import { Keypad } from "./keypad";
import { Question } from "./question";

/** What the key changes to. */
const UNIT_WORDS = { mm: "mm", in: "inch", thou: "thou" } as const;

type Words = "positive" | "negative" | null;

/** A size, typed large; where it has a sign, the words chosen give it. */
export function QuantityAsk({
  site,
  unit: lengthUnit,
  sitting,
  start,
  isFinished = false,
  busy,
  fault,
  question,
  onTake,
  onTyped,
  onText,
  handle,
  onUnit,
  onCannot,
}: AskProps & { handle: Ref<AskHandle> }) {
  const ask = site.ask as Extract<Ask, { kind: "quantity" }>;
  const [text, setText] = useState(start?.text ?? "");
  const [words, setWords] = useState<Words>(start?.words ?? null);
  const field = useRef<HTMLInputElement>(null);
  // Whether all of the text came from a gauge that types, with no field focused.
  const [fromGauge, setFromGauge] = useState(false);
  const unit = ask.dimension === "length" ? lengthUnit : DEFAULT_UNIT[ask.dimension];

  function update(next: string, nextWords: Words) {
    setText(next);
    setWords(nextWords);
    onText?.(next, nextWords);
    const read = readAnswerInput(site, { kind: "quantity", text: next, words: nextWords ?? "positive", unit }, sitting);
    onTyped(read.ok && read.value.kind === "quantity" ? read.value.value : null);
  }

  const submit = () => onTake({ kind: "quantity", text, words, unit }, fromGauge ? "wedge" : "typed");

  useImperativeHandle(handle, () => ({
    fill: (next, nextWords = words) => update(next, ask.signedBy ? nextWords : null),
    type: (characters, isGauge = true, chosen = undefined) => {
      // After a fault or a question the next number from the gauge stands in place of the last.
      const before = fault || question ? "" : text;
      setFromGauge(isGauge && (before === "" || fromGauge));
      update(before + characters, ask.signedBy ? (chosen ?? words) : words);
    },
    choose: (next) => ask.signedBy && update(text, next),
    submit,
  }));

  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        submit();
      }}
    >
      {ask.signedBy && (
        <div className="mb-3">
          <p className="mb-1.5 text-ink2" aria-hidden="true">
            {ask.signedBy.question}
          </p>
          <OneOf
            label={ask.signedBy.question}
            look="words"
            value={words ?? ""}
            onChange={(value) => update(text, value)}
            options={[
              { value: "positive", label: ask.signedBy.positive },
              { value: "negative", label: ask.signedBy.negative },
            ]}
          />
          {fault?.field === "words" && <Fault>{fault.message}</Fault>}
        </div>
      )}
      <div
        className={clsx(
          "flex items-center rounded-lg border-2 bg-sheet px-4",
          fault?.field === "text" ? "border-ember" : "border-ink",
        )}
      >
        <label htmlFor="reading" className="sr-only">
          {site.label}: {site.question}
        </label>
        <input
          id="reading"
          ref={field}
          // biome-ignore lint/a11y/noAutofocus: the reading field is the one thing to do here
          autoFocus={!isFinished}
          className="num min-w-0 flex-1 bg-transparent py-1 text-[46px] leading-[60px] max-lg:leading-[52px] outline-none"
          value={text}
          autoComplete="off"
          spellCheck={false}
          inputMode="decimal"
          aria-invalid={fault?.field === "text"}
          aria-describedby="reading-fault"
          onChange={(e) => {
            setFromGauge(false);
            update(e.target.value, words);
          }}
        />
        <span className="num text-[20px] text-ink2">{UNITS[unit].symbol}</span>
      </div>
      <div id="reading-fault" className="min-h-6 max-lg:min-h-1">
        {fault && fault.field !== "words" && (
          <Fault>
            {fault.message}
            {fault.at !== null && fault.at !== undefined && text && <Pointer text={text} at={fault.at} />}
          </Fault>
        )}
        {!fault && <Question text={question} />}
      </div>
      <div className="flex flex-wrap items-center gap-1.5 max-lg:hidden">
        <Button weight="primary" type="submit" className="!px-3" disabled={busy}>
          Take <Kbd>Enter</Kbd>
        </Button>
        <Button weight="small" className="!px-2 !text-[16px]" onClick={onUnit}>
          {UNIT_WORDS[nextLengthUnit(lengthUnit)]} <Kbd>Alt U</Kbd>
        </Button>
        <Button weight="small" className="!px-2 !text-[16px]" onClick={onCannot} disabled={busy}>
          cannot read <Kbd>Alt X</Kbd>
        </Button>
      </div>
      <Keypad
        onKey={(key) => {
          setFromGauge(false);
          update(key === "back" ? text.slice(0, -1) : text + key, words);
        }}
        unit={UNIT_WORDS[nextLengthUnit(lengthUnit)]}
        fractions={unit === "in"}
        minus={ask.atMachine !== undefined}
        onUnit={onUnit}
        onCannot={onCannot}
        busy={busy}
      />
    </form>
  );
}

/** Shows where in the text the fault is. */
function Pointer({ text, at }: { text: string; at: number }) {
  return (
    <span className="num ml-2 whitespace-pre" aria-hidden="true">
      {text.slice(0, at)}
      <mark className="bg-ember-tint text-ember underline">{text[at] ?? " "}</mark>
      {text.slice(at + 1)}
    </span>
  );
}
