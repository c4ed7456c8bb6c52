"use client";
import { useState } from "react";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

/** One of some words in order, or one of some drawings. */
export function OptionAsk({ site, busy, fault, question, onTake, onCannot }: AskProps) {
  const [chosen, setChosen] = useState("");
  const { ask } = site;
  if (ask.kind !== "ordinal" && ask.kind !== "choice") return null;
  const options = ask.kind === "ordinal" ? ask.categories.map((c) => ({ id: c, label: c })) : ask.options;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake(ask.kind === "ordinal" ? { kind: "ordinal", category: chosen } : { kind: "choice", option: chosen });
      }}
    >
      <fieldset className="grid gap-2">
        <legend className="sr-only">{site.question}</legend>
        {options.map((o) => (
          <label
            key={o.id}
            className="flex min-h-11 cursor-pointer items-center gap-3 rounded-md border border-border bg-sheet px-3"
          >
            <input
              type="radio"
              name="option"
              className="size-4"
              checked={chosen === o.id}
              onChange={() => setChosen(o.id)}
            />
            {o.label}
          </label>
        ))}
      </fieldset>
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}
