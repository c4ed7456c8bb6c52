"use client";
import dynamic from "next/dynamic";
import { useDeferredValue, useEffect, useState } from "react";
import type { BenchMachine } from "../../server/screens/bench-machine";
import { NextStep } from "../primitives/next-step";
import { foundMachines, needsYou, type Shown } from "./find-machines";
import { MachineCard } from "./machine-card";

// A bench of few machines comes without it.
const MachineFinder = dynamic(async () => (await import("./machine-finder")).MachineFinder);

/** Fewer than these are seen at once. */
const FIND_FROM = 6;

/** The machines of the bench; many can be found by name, kind, optic or state. What is sought stays in the address. */
export function MachineList({ machines, now }: { machines: BenchMachine[]; now: number }) {
  const [typed, setTyped] = useState("");
  const [shown, setShown] = useState<Shown>("all");
  const sought = useDeferredValue(typed);
  const isLong = machines.length >= FIND_FROM;

  useEffect(() => setTyped(new URLSearchParams(location.search).get("find") ?? ""), []);

  function find(text: string) {
    setTyped(text);
    history.replaceState(history.state, "", text ? `?find=${encodeURIComponent(text)}` : location.pathname);
  }

  const first = machines.find(needsYou);
  const found = isLong ? foundMachines(machines, shown, sought) : machines;
  return (
    <>
      {isLong && <MachineFinder machines={machines} text={typed} onText={find} shown={shown} onShown={setShown} />}
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
