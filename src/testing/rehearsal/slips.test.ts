/** Slips made on purpose on practice machines. Seeds 20000 to 20079 (pairs 20000 to 20039), fixed before the weights of slips were tuned. */
import { describe, expect, it } from "vitest";
import { seeded, seedOf } from "../../practice/random";
import { pairsOfSlips, type SlipSummary, slipSummaries, suspectsOf } from "./slip-rehearsal";
import { SLIP_SETS, slipCases } from "./slip-sets";

const SEEDS = 80;
const PAIRS = 40;
/** Share of slips that are named, at least. */
const NAMED = 0.9;
/** So few slips of a kind tell no share. */
const FEW = 10;

function share(summaries: readonly SlipSummary[], of: "silent" | "named" | "namedFirst"): number {
  const sum = (count: (s: SlipSummary) => number) => summaries.reduce((all, s) => all + count(s), 0);
  return sum((s) => s[of]) / sum((s) => (of === "silent" ? s.made : s.large));
}

describe.each(SLIP_SETS)("$name", (set) => {
  const cases = slipCases(set, 20_000, SEEDS);

  it("accuses no reading of clean trials, but for one in fifty", () => {
    const accused = cases.filter(({ procedure, history }) =>
      suspectsOf(procedure.solve(history)).some((finding) => finding.suspect),
    );
    // Three standard deviations above 2 %.
    expect(accused.length / SEEDS).toBeLessThanOrEqual(0.02 + 3 * Math.sqrt((0.02 * 0.98) / SEEDS));
  });

  it("is never wrong without a word, and names the slip", () => {
    const summaries = slipSummaries(cases, set.makers, set.sizeMm, (i) => seeded(seedOf(i, "slip"))).filter(
      (s) => !set.unseen.includes(s.kind),
    );
    expect(summaries.length).toBeGreaterThan(2);
    for (const { kind, made, silent, large, named } of summaries) {
      expect(silent / made, `${kind}: silent`).toBeLessThanOrEqual(set.silent ?? 0.03);
      if (large > FEW) expect(named / large, `${kind}: named`).toBeGreaterThanOrEqual(NAMED);
    }
    // Over all kinds, the point that was touched is named first.
    expect(share(summaries, "namedFirst")).toBeGreaterThanOrEqual(set.namedFirst ?? 0.9);
  });

  it("is hardly ever wrong without a word where two slips come together", () => {
    const summaries = slipSummaries(cases.slice(0, PAIRS), pairsOfSlips(set.makers), set.sizeMm, (i) =>
      seeded(seedOf(i, "two")),
    ).filter((s) => !set.unseen.some((kind) => s.kind.split(" and ").includes(kind)));
    expect(summaries.length).toBeGreaterThan(0);
    expect(share(summaries, "silent")).toBeLessThanOrEqual(set.silentOfTwo ?? 0.05);
    expect(share(summaries, "named")).toBeGreaterThanOrEqual(Math.min(0.85, 1 - (set.silentOfTwo ?? 0)));
  });
});
