/** Clean coupons of the same machines as in `slip-sets`, typed reading by reading. Seeds 120000 on, which no tuning used. */
import { describe, expect, it } from "vitest";
import { questionAbout } from "../../core/course/plausibility";
import type { RoundRecord } from "../../core/trial/history";
import { questionsOf } from "./questions";
import { SLIP_SETS } from "./slip-sets";

const SEEDS = Array.from({ length: 40 }, (_, i) => 120_000 + i);

/** So many sizes of a slip that must be named are far, when two readings are all that is known. */
const FAR = 6;

describe("questions while readings are typed", () => {
  it("are put on at most 2 % of coupons without a slip", () => {
    const asked = SLIP_SETS.map(({ name, procedure, historyOf }) => ({
      name,
      coupons: SEEDS.filter((seed) => questionsOf(procedure, historyOf(seed)).length > 0).length,
    }));
    // Of each kind of coupon at most two of 40, so that one kind cannot hide among the others.
    for (const { name, coupons } of asked) expect(coupons, name).toBeLessThanOrEqual(2);
    const all = asked.reduce((sum, { coupons }) => sum + coupons, 0);
    expect(all).toBeLessThanOrEqual(0.02 * SEEDS.length * SLIP_SETS.length);
  });

  it("are put where one reading is ten times too large", () => {
    for (const { name, procedure, historyOf } of SLIP_SETS) {
      const history = historyOf(SEEDS[0] ?? 0);
      const round = history.rounds.at(-1);
      const read = (round?.answers ?? []).flatMap((a, i) =>
        a.content.status === "read" && a.content.value.kind === "quantity" ? [{ i, value: a.content.value.value }] : [],
      );
      // Before the first reading of a bed nothing is known of its height.
      const largest = read.slice(1).toSorted((a, b) => Math.abs(b.value) - Math.abs(a.value))[0];
      const answers = (round?.answers ?? []).map((a, i) =>
        i === largest?.i
          ? {
              ...a,
              content: { status: "read" as const, value: { kind: "quantity" as const, value: 10 * largest.value } },
            }
          : a,
      );
      const rounds = history.rounds.map((r) => (r === round ? { ...r, answers } : r));
      const questions = questionsOf(procedure, { ...history, rounds });
      expect(
        questions.map((q) => q.nth),
        name,
      ).toContain(largest?.i);
    }
  });

  it("are put from the second reading at a point on, where it is far from the first", () => {
    for (const { name, procedure, historyOf, sizeMm } of SLIP_SETS) {
      const history = historyOf(SEEDS[1] ?? 0);
      const round = history.rounds.at(-1) as RoundRecord;
      const repeated = round.spec.sites.filter((s) => s.ask.kind === "quantity" && s.repeats > 1);
      for (const site of repeated) {
        const first = round.answers.findIndex((a) => a.site === site.id);
        const content = round.answers[first]?.content;
        if (content?.status !== "read" || content.value.kind !== "quantity") continue;
        const before = { ...round, answers: round.answers.slice(0, first + 1) };
        const known = { ...history, rounds: history.rounds.map((r) => (r === round ? before : r)) };
        const far = { kind: "quantity" as const, value: content.value.value + FAR * sizeMm };
        expect(questionAbout(procedure, known, site, far), `${name}: ${site.label}`).not.toBeNull();
      }
    }
  });
});
