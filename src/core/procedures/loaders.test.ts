import { describe, expect, it } from "vitest";
import { LOADERS } from "./loaders";
import { madeUp } from "./made-up/procedure";
import { PROCEDURES } from "./registry";

describe("procedures that are loaded one by one", () => {
  it("are those of the registry and the made-up one, each under its own id", async () => {
    const all = [...PROCEDURES, madeUp];
    expect(Object.keys(LOADERS).sort()).toEqual(all.map((p) => p.id).sort());
    for (const procedure of all) expect(await LOADERS[procedure.id]?.()).toBe(procedure);
  });
});
