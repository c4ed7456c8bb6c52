"use client";
import { ToggleGroup } from "radix-ui";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import type { State } from "../../core/course/state";
import { STATE_WORDS } from "../../core/course/state-words";
import type { BenchMachine } from "../../server/screens/bench-machine";
import { NextStep } from "../primitives/next-step";
import { takesText } from "../primitives/takes-text";
import { MachineCard } from "./machine-card";

/** Fewer than these are seen at once. */
const FIND_FROM = 6;

const NEEDS_YOU: readonly State[] = ["stale", "open", "to prove", "drifting", "check due"];
const SHOWN = [
  { id: "all", label: "All", fits: () => true },
  {
    id: "needs you",
    label: "Needs you",
    fits: (m: BenchMachine) => m.procedures.some((p) => NEEDS_YOU.includes(p.state)),
  },
  {
    id: "never",
    label: "Never done",
    fits: (m: BenchMachine) => m.procedures.some((p) => p.state === "not done" && !p.occasional),
  },
] as const;

/** The machines of the bench; many can be found by name, kind, optic or state. What is sought stays in the address. */
export function MachineList({ machines, now }: { machines: BenchMachine[]; now: number }) {
  const [typed, setTyped] = useState("");
  const [shown, setShown] = useState<(typeof SHOWN)[number]["id"]>("all");
  const sought = useDeferredValue(typed);
  const field = useRef<HTMLInputElement>(null);
  const isLong = machines.length >= FIND_FROM;

  useEffect(() => setTyped(new URLSearchParams(location.search).get("find") ?? ""), []);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== "/" || e.ctrlKey || e.metaKey || e.altKey || takesText(e.target) || !field.current) return;
      e.preventDefault();
      field.current.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  function find(text: string) {
    setTyped(text);
    history.replaceState(history.state, "", text ? `?find=${encodeURIComponent(text)}` : location.pathname);
  }

  const fits = SHOWN.find((s) => s.id === shown)?.fits ?? (() => true);
  const first = machines.find((m) => m.next.action !== "none");
  const found = isLong ? machines.filter((m) => fits(m) && isMeant(m, sought)) : machines;
  return (
    <>
      {isLong && (
        <search className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
          <input
            ref={field}
            type="search"
            aria-label="Find a machine"
            placeholder="Find a machine"
            className="field w-64 max-sm:min-h-11"
            value={typed}
            onChange={(e) => find(e.target.value)}
          />
          <ToggleGroup.Root
            type="single"
            aria-label="Show"
            value={shown}
            onValueChange={(id) => setShown(SHOWN.find((s) => s.id === id)?.id ?? "all")}
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
      )}
      <ul className="grid gap-3">
        {found.map((machine) => (
          <li key={machine.slug}>
            <NextStep isNext={machine === first}>
              <MachineCard machine={machine} now={now} isOneOfMany={isLong} />
            </NextStep>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="text-ink2">No machine fits that.</p>}
    </>
  );
}

/** Every word stands somewhere in what its card says. */
function isMeant({ spec, optic, procedures, next }: BenchMachine, text: string): boolean {
  const said = [
    spec.name,
    spec.kind,
    optic ?? "",
    next.title,
    ...procedures.flatMap((p) => [p.title, STATE_WORDS[p.state]]),
  ]
    .join(" ")
    .toLowerCase();
  return text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}
