"use client";
import { useState } from "react";
import { Button } from "../../../primitives/button";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

/** Scores that a picture shows. They can be typed too, one line for all, for example from a spreadsheet. */
export function ScoresAsk({ site, busy, fault, question, onTake, onCannot }: AskProps) {
  const [isTyped, setIsTyped] = useState(false);
  const [text, setText] = useState("");
  if (site.ask.kind !== "scores") return null;
  const { cells } = site.ask;
  if (!isTyped)
    return (
      <p className="text-ink2">
        Read the scores of {cells.length} cells from a picture.
        <Button weight="quiet" className="ml-2" disabled={busy} onClick={() => setIsTyped(true)}>
          Enter the scores
        </Button>
        <Button weight="quiet" className="ml-2" disabled={busy} onClick={() => onCannot()}>
          cannot read
        </Button>
      </p>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake({ kind: "scores", scores: text.split(/[\s;]+/).filter((t) => t !== "") });
      }}
    >
      <label htmlFor="scores" className="block text-[16px] text-ink2">
        Scores of {cells.length} cells, from {cells[0]?.label} to {cells.at(-1)?.label}
      </label>
      <textarea
        id="scores"
        rows={4}
        className="field num w-full text-[16px]"
        aria-invalid={fault !== null}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <p className="text-[14px] text-ink2">Separate them by spaces. Enter ? for a cell without a score.</p>
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}
