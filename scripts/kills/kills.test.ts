import { describe, expect, it } from "vitest";
import { bundleKillChild } from "./bundle";
import { rehearseKills } from "./rehearsal";

const KILLS = 20;

describe("killing the server while it reads, records and swaps", () => {
  it(`loses nothing that was said to be on disk, and leaves nothing half-done, ${KILLS} times`, async () => {
    const { acknowledged, faults } = await rehearseKills(bundleKillChild(), KILLS, 4711);
    expect(faults).toEqual([]);
    for (const kind of ["reading", "undone", "entry", "takenBack", "fitted"])
      expect(acknowledged[kind], kind).toBeGreaterThan(KILLS / 4);
  });
});
