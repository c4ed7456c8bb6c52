import { describe, expect, it } from "vitest";
import { field } from "./plan-field";

const SAID = { label: "Step", group: "Ladder" };

describe("a field", () => {
  it.each([
    [
      "a length",
      field.length({ ...SAID, usual: 1 }),
      [0.001, 1e6],
      [
        [0, "Enter more than 0 mm."],
        [-1, "Enter more than 0 mm."],
      ],
    ],
    ["a length that may be 0", field.length({ ...SAID, usual: 1, min: 0 }), [0], [[-0.1, "Enter at least 0 mm."]]],
    [
      "a length with its sign",
      field.signedLength({ ...SAID, usual: 0, max: 5 }),
      [-99, 5],
      [[5.1, "Enter at most 5 mm."]],
    ],
    ["thousandths", field.thousandths({ ...SAID, usual: 0.0254, max: 1 }), [1], [[1.27, "Enter at most 39.37 thou."]]],
    [
      "a speed",
      field.speed({ ...SAID, usual: 100, max: [500, "It goes no faster."] }),
      [500],
      [[501, "It goes no faster. Enter at most 500 mm/s."]],
    ],
    [
      "a share",
      field.share({ ...SAID, usual: 0.001, max: 0.05 }),
      [0, 0.05],
      [
        [-0.01, "Enter at least 0 %."],
        [0.06, "Enter at most 5 %."],
      ],
    ],
    [
      "a count",
      field.count({ ...SAID, usual: 3, max: 9 }),
      [1, 9],
      [
        [0, "Enter at least 1."],
        [2.5, "Enter a whole number."],
        [10, "Enter at most 9."],
      ],
    ],
    [
      "a number",
      field.number({ ...SAID, usual: 30, max: 100 }),
      [0.5, 100],
      [
        [0, "Enter more than 0."],
        [101, "Enter at most 100."],
      ],
    ],
  ] as const)("takes %s within its limits, and says which", (_, f, fine, refused) => {
    for (const value of fine) expect(f.refusal(value)).toBeNull();
    for (const [value, why] of refused) expect(f.refusal(value)).toBe(why);
  });

  it("says what to enter where nothing is typed", () => {
    const missing = (f: { type: { safeParse(v: unknown): { error?: { issues: { message: string }[] } } } }) =>
      f.type.safeParse(undefined).error?.issues[0]?.message;
    expect(missing(field.length({ ...SAID, usual: 40 }))).toBe("Enter a length, for example 40 mm.");
    expect(missing(field.length({ ...SAID, usual: 0, min: 0 }))).toBe("Enter a length, or 0.");
    expect(missing(field.count({ ...SAID, usual: 3 }))).toBe("Enter a whole number, for example 3.");
    expect(field.unknownLength({ ...SAID, missing: "Read it first." }).refusal(undefined)).toBe("Read it first.");
    expect(field.speeds({ ...SAID, usual: [100] }).refusal([])).toBe(
      "Enter at least one speed, for example 100 200 300.",
    );
    expect(field.speeds({ ...SAID, usual: [100] }).refusal([100, 0])).toBe("Enter speeds of more than 0 mm/s.");
  });

  it("takes no word that is not offered", () => {
    const way = field.choice({ ramp: "A ramp", ladder: "A ladder" }, { ...SAID, usual: "ramp" });
    expect(way.type.safeParse("ladder").success).toBe(true);
    expect(way.type.safeParse("sweep").error?.issues[0]?.message).toBe("Choose one of these.");
  });
});
