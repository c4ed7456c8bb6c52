"use client";
import { ToggleGroup } from "radix-ui";
import { useEffect, useRef } from "react";
import type { BenchMachine } from "../../server/screens/bench-machine";
import { takesText } from "../primitives/takes-text";
import { SHOWN, type Shown } from "./find-machines";

type Props = {
  machines: readonly BenchMachine[];
  text: string;
  onText: (text: string) => void;
  shown: Shown;
  onShown: (shown: Shown) => void;
};

/** A field for words, which `/` reaches, and what to show. */
export function MachineFinder({ machines, text, onText, shown, onShown }: Props) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== "/" || e.ctrlKey || e.metaKey || e.altKey || takesText(e.target)) return;
      e.preventDefault();
      field.current?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <search className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <input
        ref={field}
        type="search"
        aria-label="Find a machine"
        placeholder="Find a machine"
        className="field w-64 max-sm:min-h-11"
        value={text}
        onChange={(e) => onText(e.target.value)}
      />
      <ToggleGroup.Root
        type="single"
        aria-label="Show"
        value={shown}
        onValueChange={(id) => onShown(SHOWN.find((s) => s.id === id)?.id ?? "all")}
        className="flex flex-wrap gap-1"
      >
        {SHOWN.map((s) => (
          <ToggleGroup.Item
            key={s.id}
            value={s.id}
            className="min-h-9 rounded-md border border-border bg-sheet px-3 data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-sheet max-sm:min-h-11"
          >
            {s.label} <span className="num">{machines.filter(s.fits).length}</span>
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </search>
  );
}
