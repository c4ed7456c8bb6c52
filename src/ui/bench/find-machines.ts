/** Which machines of a long bench are shown: by what they need, and by words. */
import { STATE_WORDS } from "../../core/course/state";
import type { BenchMachine } from "../../server/screens/bench-machine";

/** There is something to do on it. */
export function needsYou(machine: BenchMachine): boolean {
  return machine.next.action !== "none";
}

export const SHOWN = [
  { id: "all", label: "All", fits: () => true },
  { id: "needs you", label: "Needs you", fits: needsYou },
  {
    id: "never",
    label: "Never done",
    fits: (m: BenchMachine) => m.procedures.some((p) => p.state === "not done" && !p.occasional),
  },
] as const;
export type Shown = (typeof SHOWN)[number]["id"];

/** @param text every word of it is somewhere in what the card of a machine says */
export function foundMachines(machines: readonly BenchMachine[], shown: Shown, text: string): BenchMachine[] {
  const fits = SHOWN.find((s) => s.id === shown)?.fits ?? (() => true);
  const words = text.toLowerCase().split(/\s+/);
  return machines.filter((m) => fits(m) && words.every((word) => saidOf(m).includes(word)));
}

function saidOf({ spec, optic, procedures, next }: BenchMachine): string {
  const said = procedures.flatMap((p) => [p.title, STATE_WORDS[p.state]]);
  return [spec.name, spec.kind, optic ?? "", next.title, ...said].join(" ").toLowerCase();
}
