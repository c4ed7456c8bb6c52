"use client";
import { useState } from "react";
import { Kbd } from "../../../primitives/kbd";
import { OneOf } from "../../../primitives/one-of";
import { useNumberKeys } from "../../../primitives/use-number-keys";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

/** One of some words in order, or one of some drawings: pressed, or chosen by its number. */
export function OptionAsk({ site, busy, fault, question, onTake, onCannot }: AskProps) {
  const [chosen, setChosen] = useState("");
  const { ask } = site;
  const options =
    ask.kind === "ordinal"
      ? ask.categories.map((c) => ({ id: c, label: c }))
      : ask.kind === "choice"
        ? [...ask.options]
        : [];
  const take = () =>
    onTake(ask.kind === "ordinal" ? { kind: "ordinal", category: chosen } : { kind: "choice", option: chosen });
  useNumberKeys(options.length, (i) => setChosen(options[i]?.id ?? ""), take);
  if (options.length === 0) return null;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <OneOf
        label={site.question}
        look="boxes"
        value={chosen}
        onChange={setChosen}
        options={options.map((o, i) => ({
          value: o.id,
          label: o.label,
          aside: (
            <span className="max-lg:hidden" aria-hidden="true">
              <Kbd>{String(i + 1)}</Kbd>
            </span>
          ),
        }))}
      />
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}
