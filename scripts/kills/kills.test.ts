import { describe, expect, it } from "vitest";
import { rehearseKills } from "./rehearsal";
import { stepsLife } from "./steps-life";

const KILLS = 20;
const LONGEST_MS = 300;

describe("killing the server while it reads, records and swaps", () => {
  it(`loses nothing that was said to be on disk, and leaves nothing half-done, ${KILLS} times`, async () => {
    const { acknowledged, faults } = await rehearseKills(stepsLife(), KILLS, LONGEST_MS, 4711);
    expect(faults).toEqual([]);
    for (const kind of ["reading", "undone", "entry", "fitted"])
      expect(acknowledged[kind], kind).toBeGreaterThan(KILLS / 4);
    // Three entries in ten are undone.
    expect(acknowledged.takenBack, "takenBack").toBeGreaterThan((0.3 * KILLS) / 4);
  });
});
