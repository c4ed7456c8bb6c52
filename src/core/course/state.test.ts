import { describe, expect, it } from "vitest";
import { DAY_MS, type Standing, stateOf } from "./state";

const NOW = 1000 * DAY_MS;
const ago = (days: number) => NOW - days * DAY_MS;
const standing = (more: Partial<Standing>): Standing => ({
  open: null,
  proved: { at: ago(20) },
  check: null,
  changes: [],
  drift: null,
  recheckDays: 180,
  ...more,
});
const state = (more: Partial<Standing>) => stateOf(standing(more), NOW);

describe("the state of a procedure on a machine", () => {
  it("is open or to prove while a trial is under way, whatever was before", () => {
    expect(state({ open: { since: ago(1), toProve: false } })).toEqual({ state: "open", since: ago(1), reasons: [] });
    expect(state({ open: { since: ago(1), toProve: true } }).state).toBe("to prove");
  });

  it("is not done without a proof", () => {
    expect(state({ proved: null, changes: [{ at: ago(1), effect: "stale", why: "x" }] }).state).toBe("not done");
  });

  it("holds from its proof, or from the check that confirmed it", () => {
    expect(state({})).toEqual({ state: "holding", since: ago(20), reasons: [] });
    expect(state({ check: { at: ago(5), result: "proved" } })).toMatchObject({ state: "holding", since: ago(5) });
  });

  it("is stale by a change after the proof, with its reason, until a check confirms it", () => {
    const changes = [
      { at: ago(3), effect: "stale" as const, why: "the belt was changed" },
      { at: ago(30), effect: "stale" as const, why: "long ago" },
    ];
    expect(state({ changes })).toEqual({ state: "stale", since: ago(3), reasons: ["the belt was changed"] });
    expect(state({ changes, check: { at: ago(1), result: "proved" } }).state).toBe("holding");
    expect(state({ changes, check: { at: ago(1), result: "cannot tell" } }).state).toBe("stale");
  });

  it("drifts when the last check found it out of tolerance, or the chart says so, until it is proved again", () => {
    const check = { at: ago(2), result: "not proved" as const };
    expect(state({ check })).toMatchObject({ state: "drifting", since: ago(2) });
    expect(state({ check, proved: { at: ago(1) } }).state).toBe("holding");
    expect(state({ drift: "beyond the limits" })).toMatchObject({ state: "drifting", reasons: ["beyond the limits"] });
  });

  it("is due for a check after its interval, after a change that may matter, or when a check was undecided", () => {
    expect(state({ recheckDays: 10 })).toEqual({
      state: "check due",
      since: ago(10),
      reasons: ["a check is due every 10 days"],
    });
    expect(state({ changes: [{ at: ago(4), effect: "check", why: "the tube was changed" }] })).toMatchObject({
      state: "check due",
      since: ago(4),
      reasons: ["the tube was changed"],
    });
    expect(state({ check: { at: ago(1), result: "cannot tell" } }).state).toBe("check due");
    expect(state({ recheckDays: 10, check: { at: ago(5), result: "proved" } }).state).toBe("holding");
  });
});
