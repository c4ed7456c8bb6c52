import { describe, expect, it } from "vitest";
import { scanOffset } from "../procedures/scan-offset/procedure";
import type { State } from "./state";
import { firstToDo, type Stands } from "./state";

function stands(id: string, state: State, corrects: string[] = [], needs: string[] = []): Stands {
  const setting = scanOffset.settings[0];
  if (!setting) throw new Error("no setting");
  return {
    procedure: {
      id,
      settings: corrects.map((key) => ({ ...setting, key })),
      needs: needs.map((what) => ({ on: "setting", what, effect: "stale", why: `${what} was changed` })),
    },
    state,
  };
}

describe("what to do first", () => {
  it("goes by what is wrong, under way, drifting, due and never done, in this order", () => {
    const states: State[] = ["not done", "holding", "check due", "drifting", "to prove", "open", "stale"];
    const order: (string | undefined)[] = [];
    for (let left = states; left.length > 1; left = left.filter((s) => s !== order.at(-1)))
      order.push(firstToDo(left.map((s) => stands(s, s)))?.state);
    expect(order).toEqual(["stale", "open", "to prove", "drifting", "check due", "not done"]);
  });

  it("leaves out what is done now and then where it was never done, and not where it is stale", () => {
    const now: Stands = {
      ...stands("bed", "not done"),
      procedure: { ...stands("bed", "not done").procedure, occasional: true },
    };
    expect(firstToDo([now])).toBeNull();
    expect(firstToDo([{ ...now, state: "stale" }])?.procedure.id).toBe("bed");
  });

  it("takes the one on which other stale ones depend before them, whatever their order in practice", () => {
    const chain = [
      stands("kerf", "stale", ["kerf"], ["focus"]),
      stands("scan offset", "stale", ["scan offset"], ["axis scale"]),
      stands("axis scale", "stale", ["axis scale"], []),
      stands("focus", "holding", ["focus"], []),
    ];
    expect(firstToDo(chain)?.procedure.id).toBe("kerf");
    expect(firstToDo(chain.slice(1))?.procedure.id).toBe("axis scale");
  });

  it("takes the first in practice order where stale ones depend on each other in a ring", () => {
    const ring = [stands("a", "stale", ["x"], ["y"]), stands("b", "stale", ["y"], ["x"])];
    expect(firstToDo(ring)?.procedure.id).toBe("a");
  });

  it("is nothing where everything holds", () => {
    expect(firstToDo([stands("a", "holding")])).toBeNull();
    expect(firstToDo([])).toBeNull();
  });
});
