import { describe, expect, it } from "vitest";
import { markdown, type Part } from "./table";

const AT = Date.UTC(2026, 4, 3);
const part = (title: string, measured: string, holds: boolean): Part => ({
  title,
  lines: [{ what: "a | b", measured, target: "< 5 ms", holds }],
});

describe("what the bench keeps", () => {
  const titles = ["First", "Second", "Third"];
  const first = markdown("", [part("Third", "3 ms", true), part("First", "1 ms", true)], titles, AT);

  it("lists the parts in order, each with its date", () => {
    expect(first.match(/^## .*$/gm)).toEqual(["## First", "## Third"]);
    expect(first.match(/Measured on 2026-05-03\./g)).toHaveLength(2);
    expect(first).toContain("| a \\| b | 1 ms | < 5 ms | holds |");
    expect(first).toMatch(/ 2 lines, of which all hold\./);
  });

  it("replaces the part that was measured again and keeps the other parts", () => {
    const later = markdown(first, [part("Third", "9 ms", false), part("Second", "2 ms", true)], titles, AT + 864e5);
    expect(later.match(/^## .*$/gm)).toEqual(["## First", "## Second", "## Third"]);
    expect(later).toContain("## First\n\nMeasured on 2026-05-03.");
    expect(later).toContain("## Third\n\nMeasured on 2026-05-04.");
    expect(later).not.toContain("3 ms");
    expect(later).toMatch(/ 3 lines, of which 1 fail\./);
    expect(markdown(later, [], titles, AT)).toBe(later);
  });
});
