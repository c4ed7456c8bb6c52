/** Gaps are made here by hand from where row ends lie, not by the equations of the model. */
import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { type Gaps, historyOf, type Read, readAs, table } from "../../../testing/scan-offset-history";
import type { HeldSetting } from "../../settings/setting";
import { scanOffset } from "./procedure";
import { ROW_SHIFT, ROW_SHIFT_BY_SPEED } from "./setting";

const SPEEDS = [100, 200, 300, 400];
/** Outlines at -1.5 and 51.5 mm, rows drawn from 0 to 50 mm; tip and line are 0.2 mm wide, so 0.2 mm of each gap is burned. */
const [LEFT_LINE, RIGHT_LINE, BURNED] = [-1.5, 51.5, 0.2];
const ON_LATE_S = 0.0004;

/** Rows that begin 0.0004 s late and end `offLate` s late, `shift` mm too far to the right. */
function gapsAt(v: number, shift: number, offLate: number): Gaps {
  const rightGoing = { from: v * ON_LATE_S + shift, to: 50 + v * offLate + shift };
  const leftGoing = { from: 50 - v * ON_LATE_S + shift, to: -v * offLate + shift };
  return {
    left: { right: rightGoing.from - LEFT_LINE - BURNED, left: leftGoing.to - LEFT_LINE - BURNED },
    right: { right: RIGHT_LINE - rightGoing.to - BURNED, left: RIGHT_LINE - leftGoing.from - BURNED },
  };
}

function read(
  shiftAt: (v: number) => number,
  { offLate = 0.0006, ...more }: Partial<Read> & { offLate?: number } = {},
) {
  return {
    staggers: Object.fromEntries(SPEEDS.map((v) => [v, v * (ON_LATE_S + offLate)])),
    reference: 0.3,
    gaps: Object.fromEntries(SPEEDS.map((v) => [v, gapsAt(v, shiftAt(v), offLate)])),
    ...more,
  };
}

const held = (more: Partial<HeldSetting> = {}): HeldSetting => ({
  unit: "mm",
  step: 0.001,
  range: null,
  tableKind: "exact speed only",
  sense: 1,
  ...more,
});
const machineWith = (key: string, more?: Partial<HeldSetting>) => ({
  ...SAMPLE_MACHINE,
  held: { ...SAMPLE_MACHINE.held, [key]: held(more) },
});
const ONE = { [ROW_SHIFT]: { shape: "scalar" as const, value: 0.05 } };

function solved(...args: Parameters<typeof historyOf>) {
  const outcome = scanOffset.solve(historyOf(...args));
  if (outcome.status !== "solved") throw new Error(outcome.status);
  return outcome;
}

describe("the gaps to an outline", () => {
  const machine = machineWith(ROW_SHIFT);
  const outcome = solved(
    [
      readAs(
        read(() => 0.12, { shiftInForce: ONE }),
        1,
        machine,
      ),
    ],
    { machine },
  );
  const found = (id: string) => outcome.estimates.find((e) => e.id === id)?.quantity.value ?? Number.NaN;

  it("tell the shift of scanned rows, the stagger, and the difference of the lags apart", () => {
    expect(found("shift")).toBeCloseTo(0.12, 4);
    expect(found("lag difference")).toBeCloseTo(0.0002, 6);
    expect(found("offset 300")).toBeCloseTo(0.15, 3);
    expect(outcome.findings.some((f) => f.suspect)).toBe(false);
  });

  it("give the stagger alone, where no tips were compared", () => {
    const { staggers, ...gaps } = read(() => 0.12);
    const round = readAs({ ...gaps, staggers }, 1, machine);
    const alone = { ...round, answers: round.answers.filter((a) => !a.site.startsWith("v")) };
    const offset = solved([alone], { machine }).estimates.find((e) => e.id === "offset 300");
    expect(offset?.quantity.value).toBeCloseTo(0.15, 6);
  });

  it("correct the one value that the controller stores, with the sum", () => {
    const correction = outcome.corrections.find((c) => c.setting === ROW_SHIFT);
    expect(correction?.newValue).toEqual({ shape: "scalar", value: -0.07 });
    expect(correction?.rows[0]?.arithmetic[0]).toBe("0.0500 − (0.1200) = −0.0700");
    expect(scanOffset.sets(readAs(read(() => 0)).plan, machine)).toContain(ROW_SHIFT);
  });

  it("say that rows are longer than drawn where the beam goes off later than it comes on, and shorter where earlier", () => {
    const headline = (offLate: number) =>
      solved([readAs(read(() => 0, { offLate }))]).findings.find((f) => f.id === "row length")?.headline;
    expect(headline(0.0006)).toBe("At 400 mm/s, rows are 0.080 mm longer than drawn.");
    expect(headline(0.0002)).toBe("At 400 mm/s, rows are 0.080 mm shorter than drawn.");
    expect(headline(0.0004)).toBeUndefined();
  });

  it("contradict a gap that was misread, by name", () => {
    const misread = read(() => 0.12, { shiftInForce: ONE });
    const gaps = { ...misread.gaps, 300: { ...gapsAt(300, 0.12, 0.0006) } };
    gaps[300] = { ...gaps[300], left: { ...gaps[300].left, right: gaps[300].left.right + 0.4 } };
    const found = solved([readAs({ ...misread, gaps }, 1, machine)], { machine }).findings.filter((f) => f.suspect);
    expect(found.map((f) => f.site)).toEqual(["gap300-left-right"]);
  });
});

describe("a shift", () => {
  it("is corrected speed by speed where the controller stores one for each", () => {
    const machine = machineWith(ROW_SHIFT_BY_SPEED);
    const shiftInForce = { [ROW_SHIFT_BY_SPEED]: table([[100, 0.02]]) };
    const outcome = solved(
      [
        readAs(
          read((v) => 0.1 + 0.0002 * v, { shiftInForce }),
          1,
          machine,
        ),
      ],
      { machine },
    );
    const { newValue } = outcome.corrections.find((c) => c.setting === ROW_SHIFT_BY_SPEED) ?? {};
    if (newValue?.shape !== "table") throw new Error("no table");
    const expected = [-0.1, -0.14, -0.16, -0.18];
    newValue.rows.forEach((row, i) => {
      expect(Math.abs(row.value - (expected[i] ?? 0))).toBeLessThan(0.0011);
    });
    expect(newValue.rows.map((r) => r.at)).toEqual(SPEEDS);
  });

  it("is added where a larger value moves rows to the left", () => {
    const machine = machineWith(ROW_SHIFT, { sense: -1 });
    const outcome = solved(
      [
        readAs(
          read(() => 0.12, { shiftInForce: ONE }),
          1,
          machine,
        ),
      ],
      { machine },
    );
    expect(outcome.corrections[1]?.newValue).toEqual({ shape: "scalar", value: 0.17 });
  });

  it("of an unknown sense is learned from two burns", () => {
    const machine = machineWith(ROW_SHIFT, { senseAssumed: true });
    const second = { [ROW_SHIFT]: { shape: "scalar" as const, value: -0.07 } };
    const rounds = [
      readAs(
        read(() => 0.12, { shiftInForce: ONE }),
        1,
        machine,
      ),
      readAs({ ...read(() => 0.24, { shiftInForce: second }), purpose: "proof" }, 2, machine),
    ];
    const outcome = solved(rounds, { machine });
    // The shift grew by 0.12 mm as the value fell by 0.12 mm: a larger value moves rows to the left.
    expect(outcome.corrections[1]?.newValue).toEqual({ shape: "scalar", value: 0.17 });
    expect(scanOffset.judge(historyOf(rounds, { machine }))?.findings.map((f) => f.id)).toContain("shift doubled");
  });

  it("that differs between speeds is named where one value serves all", () => {
    const machine = machineWith(ROW_SHIFT);
    const findings = (perSpeed: number) =>
      solved(
        [
          readAs(
            read((v) => perSpeed * v, { shiftInForce: ONE }),
            1,
            machine,
          ),
        ],
        { machine },
      ).findings;
    expect(findings(0.0005).find((f) => f.id === "unequal shift")?.headline).toMatch(/differs by 0\.1[45]/);
    expect(findings(0.0001).some((f) => f.id === "unequal shift")).toBe(false);
    // 0.051 mm: the tolerance of 0.05 lies within its uncertainty.
    expect(findings(0.00017).some((f) => f.id === "unequal shift")).toBe(false);
  });

  it("without a setting is reported and not corrected; without a value read back it is asked for", () => {
    const bare = solved([readAs(read(() => -0.12))]);
    expect(bare.findings.find((f) => f.id === "row shift")?.headline).toBe(
      "Scanned rows are 0.120 mm too far to the left of drawn lines.",
    );
    expect(bare.corrections).toHaveLength(1);
    const machine = machineWith(ROW_SHIFT);
    const unread = solved(
      [
        readAs(
          read(() => 0.12, { shiftInForce: { [ROW_SHIFT]: null } }),
          1,
          machine,
        ),
      ],
      { machine },
    );
    expect(unread.findings.find((f) => f.id === "row shift not read back")?.tone).toBe("needs you");
    expect(unread.corrections).toHaveLength(1);
  });

  it("is proved with the staggers, within the same tolerance", () => {
    const machine = machineWith(ROW_SHIFT);
    const first = readAs(
      read(() => 0.12, { shiftInForce: ONE }),
      1,
      machine,
    );
    const verdictAt = (shift: number) => {
      const gaps = Object.fromEntries(SPEEDS.map((v) => [v, gapsAt(v, shift, -ON_LATE_S)]));
      const staggers = Object.fromEntries(SPEEDS.map((v) => [v, 0]));
      const proof = readAs({ staggers, reference: 0.3, gaps, purpose: "proof", shiftInForce: ONE }, 2, machine);
      return scanOffset.judge(historyOf([first, proof], { machine }));
    };
    const good = verdictAt(0.005);
    expect(good?.result).toBe("proved");
    expect(good?.lines.at(-1)).toMatchObject({ label: "Shift of scanned rows", result: "proved" });
    expect(good?.lines.at(-1)?.before?.value).toBeCloseTo(0.12, 4);
    const bad = verdictAt(0.12);
    expect(bad?.result).toBe("not proved");
    expect(bad?.findings.map((f) => f.id)).toContain("shift unchanged");
  });
});
