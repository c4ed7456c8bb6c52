"use client";
import { useState } from "react";
import { UNITS } from "../../../../core/metrology/units";
import type { AnswerInput } from "../../../../core/trial/answer-input";
import { Button } from "../../../primitives/button";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

/** Points with more numbers than this are read from a picture or a sheet. */
const MOST_TYPED = 24;

/** Several numbers at one site: a pair, the two parts of a vector, or the places of points. */
export function SeveralAsk({ site, unit, busy, fault, question, onTake, onCannot }: AskProps) {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const { ask } = site;
  const fields = fieldsOf(ask);
  const text = (key: string) => texts[key] ?? "";
  const input = (): AnswerInput => {
    if (ask.kind === "pair") return { kind: "pair", first: text("first"), second: text("second"), unit };
    if (ask.kind === "vector") return { kind: "vector", x: text("x"), y: text("y"), unit };
    const count = ask.kind === "points" ? ask.nominal.length : 0;
    return {
      kind: "points",
      points: Array.from({ length: count }, (_, i) => ({ x: text(`x${i}`), y: text(`y${i}`) })),
      unit,
    };
  };
  if (fields.length > MOST_TYPED)
    return (
      <p className="text-ink2">
        Read these points from a picture, or fill in the sheet below and add it.
        <Button weight="quiet" className="ml-2" disabled={busy} onClick={() => onCannot()}>
          Cannot be read
        </Button>
      </p>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake(input());
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        {fields.map((f) => (
          <div key={f.key}>
            <label htmlFor={`several-${f.key}`} className="block text-[16px] text-ink2">
              {f.label}, {UNITS[unit].symbol}
            </label>
            <input
              id={`several-${f.key}`}
              className="field num w-full text-[22px]"
              autoComplete="off"
              aria-invalid={fault?.field === f.key}
              value={text(f.key)}
              onChange={(e) => setTexts((t) => ({ ...t, [f.key]: e.target.value }))}
            />
          </div>
        ))}
      </div>
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}

function fieldsOf(ask: AskProps["site"]["ask"]): { key: string; label: string }[] {
  switch (ask.kind) {
    case "pair":
      return [
        { key: "first", label: ask.first },
        { key: "second", label: ask.second },
      ];
    case "vector":
      return [
        { key: "x", label: "to the right" },
        { key: "y", label: "away from you" },
      ];
    case "points":
      return ask.nominal.flatMap((_, i) => [
        { key: `x${i}`, label: `point ${i + 1}, X` },
        { key: `y${i}`, label: `point ${i + 1}, Y` },
      ]);
    default:
      return [];
  }
}
