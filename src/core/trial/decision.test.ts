import { describe, expect, it } from "vitest";
import { oneOf, typed, yesOrNo } from "./decision";

const kept = (...decided: { key: string; value: string }[]) =>
  Object.fromEntries(decided.map(({ key, value }) => [key, value]));

describe("a decision", () => {
  it("says what it was kept as, and no, nothing or an empty text before", () => {
    const [done, use, name] = [yesOrNo("done 1"), oneOf("table", ["line", "readings"]), typed("name")];
    expect([done.of({}), use.of({}), name.of({})]).toEqual([false, null, ""]);
    const decisions = kept(done.as(true), use.as("line"), name.as("Sedge"));
    expect([done.of(decisions), use.of(decisions), name.of(decisions)]).toEqual([true, "line", "Sedge"]);
    const back = kept(done.as(false), use.as(null), name.as(""));
    expect([done.of(back), use.of(back), name.of(back)]).toEqual([false, null, ""]);
  });

  it("says nothing for an option that there is no more", () => {
    expect(oneOf("table", ["line"]).of({ table: "curve" })).toBeNull();
  });

  it("reads what trials have kept so far", () => {
    expect(yesOrNo("read back 1 scan offset").of({ "read back 1 scan offset": "yes" })).toBe(true);
    expect(yesOrNo("adjusted 1").of({ "adjusted 1": "no" })).toBe(false);
  });
});
