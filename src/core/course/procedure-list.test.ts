import { describe, expect, it } from "vitest";
import { PROCEDURE_LIST } from "./procedure-list";
import { PROCEDURES } from "./registry";

describe("the list of procedures", () => {
  it("has each under its own id, once, and the registry has them in its order", async () => {
    const ids = PROCEDURE_LIST.map((p) => p.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(PROCEDURES.map((p) => p.id)).toEqual(ids);
    for (const { id, load } of PROCEDURE_LIST) expect((await load()).id).toBe(id);
  });
});
