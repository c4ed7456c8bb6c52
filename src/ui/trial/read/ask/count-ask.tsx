"use client";
import { useState } from "react";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

/** A whole number. */
export function CountAsk({ site, busy, fault, question, onTake, onCannot }: AskProps) {
  const [text, setText] = useState("");
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake({ kind: "count", text });
      }}
    >
      <label htmlFor="reading" className="sr-only">
        {site.question}
      </label>
      <input
        id="reading"
        className="field num w-full text-[32px]"
        inputMode="numeric"
        autoComplete="off"
        // biome-ignore lint/a11y/noAutofocus: the number is the one thing to do here
        autoFocus
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}
