/** What is on disk after two hundred kills while it is read, recorded and swapped. */
import { bundleKillChild } from "../kills/bundle";
import { rehearseKills } from "../kills/rehearsal";
import { above, exactly, type Line } from "./line";

const KILLS = 200;

export async function kills(): Promise<Line[]> {
  const { acknowledged, faults } = await rehearseKills(bundleKillChild(), KILLS, 1);
  for (const fault of faults) console.error(fault);
  const said = Object.values(acknowledged).reduce((sum, n) => sum + n, 0);
  const words = Object.entries(acknowledged).map(([kind, n]) => `${n} ${kind}`);
  return [
    {
      what: `killed ${KILLS} times: deeds that were said to be on disk (${words.join(", ")})`,
      ...above(said, 5 * KILLS, ""),
    },
    { what: "of them lost, or found half-done, or a database that is not whole", ...exactly(faults.length, 0) },
  ];
}
