import { describe, expect, it } from "vitest";
import { roomCircles } from "./room-circles.mjs";

const module = (source: string, ...to: string[]) => ({ source, dependencies: to.map((resolved) => ({ resolved })) });

describe("rooms in a circle", () => {
  it("are told once, with the import of each step", () => {
    const modules = [
      module("src/ui/a/x.ts", "src/ui/b/y.ts", "src/ui/a/z.ts"),
      module("src/ui/b/y.ts", "src/ui/c/w.ts"),
      module("src/ui/c/w.ts", "src/ui/a/z.ts"),
    ];
    expect(roomCircles(modules)).toEqual([
      "rooms in a circle: src/ui/a/x.ts -> src/ui/b/y.ts, src/ui/b/y.ts -> src/ui/c/w.ts, src/ui/c/w.ts -> src/ui/a/z.ts",
    ]);
  });

  it("are none where a way leads down only, within a procedure, or through a test", () => {
    const modules = [
      module("src/ui/a/x.ts", "src/ui/b/y.ts"),
      module("src/core/procedures/focus/p.ts", "src/core/procedures/focus/ladder/q.ts"),
      module("src/core/procedures/focus/ladder/q.ts", "src/core/procedures/focus/r.ts"),
      module("src/ui/b/y.test.ts", "src/ui/a/x.ts"),
      module("src/ui/b/y.ts", "src/testing/t.ts"),
      module("src/testing/t.ts", "src/ui/b/y.ts"),
    ];
    expect(roomCircles(modules)).toEqual([]);
  });
});
