import { describe, expect, it } from "vitest";
import type { AnswerInput } from "../../../core/trial/answer-input";
import { inOneLine, restOf, tooManyText } from "./in-one-line";

function typed(text: string): AnswerInput {
  return { kind: "quantity", text, words: "negative", unit: "mm" };
}

describe("several readings in one line", () => {
  it.each([
    ["0.29 0.30 0.29", ["0.29", "0.30", "0.29"]],
    [" .29  .30 ", [".29", ".30"]],
    ["0,29; 0,3", ["0,29", "0,3"]],
    ["12 13", ["12", "13"]],
  ])("are one reading each: %s", (text, readings) => {
    expect(inOneLine(typed(text))).toEqual(readings.map(typed));
  });

  it.each(["0.29", "1 1/2", "0.29 mm", "0.29 mm 0.30 mm", "", "0.2x 0.3", "1.2.3 4"])("leave %j as it is", (text) => {
    expect(inOneLine(typed(text))).toEqual([typed(text)]);
  });

  it("leave everything else than a typed quantity as it is", () => {
    const chosen: AnswerInput = { kind: "ordinal", category: "a b" };
    expect(inOneLine(chosen)).toEqual([chosen]);
  });

  it("leave the rest in the field when one is refused", () => {
    expect(restOf(inOneLine(typed("1 2 3")), 1)).toBe("2 3");
  });

  it("are at most as many as the point needs", () => {
    expect(tooManyText(3, 2)).toMatch(/needs 2 more readings. Enter at most 2/);
    expect(tooManyText(3, 1)).toMatch(/needs 1 more reading\. /);
    expect(tooManyText(2, 0)).toMatch(/one number/);
  });
});
