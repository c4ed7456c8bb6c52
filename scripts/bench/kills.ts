/** What is on disk after the server was killed two hundred times while it read, recorded and swapped: two servers, each on its bench. */
import { rehearseKills } from "../kills/rehearsal";
import { servedLife } from "../kills/served-life";
import { above, exactly, type Line } from "./line";

const KILLS = 200;
/** A server that has just started takes its time for the first deeds. */
const LONGEST_MS = 1000;
const PORTS = [4885, 4886];

export async function kills(): Promise<Line[]> {
  const rehearsals = await Promise.all(
    PORTS.map((port, i) => rehearseKills(servedLife(port), KILLS / PORTS.length, LONGEST_MS, 1 + i * KILLS)),
  );
  const faults = rehearsals.flatMap((r) => r.faults);
  for (const fault of faults) console.error(fault);
  const kinds = [...new Set(rehearsals.flatMap((r) => Object.keys(r.acknowledged)))];
  const words = kinds.map((kind) => `${sum(rehearsals.map((r) => r.acknowledged[kind] ?? 0))} ${kind}`);
  const said = sum(rehearsals.flatMap((r) => Object.values(r.acknowledged)));
  return [
    {
      what: `server killed ${KILLS} times: deeds that were said to be on disk (${words.join(", ")})`,
      ...above(said, 2 * KILLS, ""),
    },
    { what: "of them lost, or found half-done, or a database that is not whole", ...exactly(faults.length, 0) },
  ];
}

function sum(numbers: readonly number[]): number {
  return numbers.reduce((all, n) => all + n, 0);
}
