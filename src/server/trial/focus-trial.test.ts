/** Focus trials on the server: by eye with no gauge behind it, by a stored number, and with one lens or another. */
import { beforeEach, describe, expect, it } from "vitest";
import { opticOf } from "../../core/machine/part-spec";
import { FOCUS_HEIGHT, STORED_HEIGHT } from "../../core/procedures/focus/plan";
import type { Database } from "../../data/database";
import { holdersOf, type Machine, machineBySlug, reviseMachine } from "../../data/machines";
import { addPart, fitPart, fittingsOf } from "../../data/parts";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { foundWrong } from "../gauges/gauge-steps";
import { writeDown } from "../ledger/ledger-steps";
import { benchView } from "../screens/bench-view";
import { burnOnPractice } from "./burn-on-practice";
import { acceptVerdict, confirmHeld, layOutNext, recordEntries } from "./correction-steps";
import { readAllOnPractice } from "./read-all-on-practice";
import { fullTrial, historyOf, readingStamp, roundOf, settingsInForce } from "./trial-record";
import { beginTrial, keepDraft, openSession } from "./trial-steps";

const NO_JAWS = { outside: 0, inside: null };

let db: Database;
beforeEach(() => {
  db = demoCopy();
});

function burned(procedure: "focus" | "scan-offset"): number {
  const id = beginTrial(db, "alder", procedure, NOW);
  burnOnPractice(db, id, 1, null, NOW + 1);
  return id;
}

describe("a trial by eye", () => {
  it("needs no gauge, says so, and is solved", () => {
    const id = burned("focus");
    openSession(db, id, 1, null, NO_JAWS, NOW + 2);
    readAllOnPractice(db, id, 1, "test", (taken) => NOW + 3 + taken);
    const full = fullTrial(db, id);
    const round = roundOf(full, 1);
    expect(round.sessions.map((s) => s.gauge.kind)).toEqual(["eye"]);
    expect(new Set(round.readings.map((r) => r.answer.gauge))).toEqual(new Set([round.sessions[0]?.gauge.id]));
    expect(full.procedure.solve(historyOf(full, 1))).toMatchObject({ status: "solved", complete: true });
  });

  it("is not open to what is measured", () => {
    const { field, message } = refusal(() => openSession(db, burned("scan-offset"), 1, null, NO_JAWS, NOW + 2));
    expect([field, message]).toEqual(["gauge", "Choose a gauge."]);
  });

  it("is not stale because a gauge was found wrong that nothing of it was read with", () => {
    foundWrong(db, "calipers", { note: "reads short", since: null }, NOW);
    const states = benchView(db, NOW + 1).machines.find((m) => m.slug === "bracken")?.procedures;
    expect(Object.fromEntries(states?.map((p) => [p.id, p.state]) ?? [])).toMatchObject({
      focus: "holding",
      "axis-scale": "stale",
      "scan-offset": "stale",
      "bed-tilt": "not done",
    });
  });

  it("goes on from a height that nobody knew, when that is said; a field left empty is not that", () => {
    const id = burned("focus");
    expect(refusal(() => confirmHeld(db, id, 1, { [FOCUS_HEIGHT]: [] }, NOW + 2))).toMatchObject({
      field: `${FOCUS_HEIGHT} value`,
      message: "Type the value.",
    });
    confirmHeld(db, id, 1, { [FOCUS_HEIGHT]: null }, NOW + 2);
    const round = roundOf(fullTrial(db, id), 1);
    expect(round.inForce).toEqual({ [FOCUS_HEIGHT]: null });
    expect(round.readBackAt).toBe(NOW + 2);
  });
});

describe("a machine that finds its height by a stored number", () => {
  /** Alder with a stored number, which the ledger has at 122 mm. */
  function begun(): number {
    const machine = machineBySlug(db, "alder") as Machine;
    const hold = { unit: "mm", step: 0.1, range: null, tableKind: "not known", sense: 1 } as const;
    reviseMachine(db, machine.id, { ...machine.spec, held: { ...machine.spec.held, [STORED_HEIGHT]: hold } }, NOW - 9);
    const holderId = holdersOf(db, machine.id).find((h) => h.role === "controller")?.id ?? 0;
    writeDown(
      db,
      {
        machine: "alder",
        setting: STORED_HEIGHT,
        holderId,
        rows: [{ at: null, text: "122" }],
        origin: "found",
        note: "",
        readBack: true,
      },
      NOW - 8,
    );
    return beginTrial(db, "alder", "focus", NOW);
  }

  function burnedAndRead(id: number, n: number, draft: Record<string, string>): void {
    keepDraft(db, id, n, { ...roundOf(fullTrial(db, id), n).draft, settableMm: "0.2 mm", ...draft });
    burnOnPractice(db, id, n, null, NOW + 100 * n);
    openSession(db, id, n, null, NO_JAWS, NOW + 100 * n + 1);
    readAllOnPractice(db, id, n, "test", (taken) => NOW + 100 * n + 2 + taken);
  }

  const STORED = { setIn: "stored", sense: "larger", homedMm: "12 mm" };

  it("gets a new number from the old one, which is proved where it then comes by itself", () => {
    const id = begun();
    burnedAndRead(id, 1, STORED);
    confirmHeld(db, id, 1, { [STORED_HEIGHT]: [{ at: null, text: "122" }] }, NOW + 150);
    const full = fullTrial(db, id);
    const outcome = full.procedure.solve(historyOf(full, 1));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const row = outcome.corrections[0]?.rows[0];
    const focusMm = outcome.estimates[0]?.quantity.value ?? 0;
    expect(row?.enter).toBeCloseTo(122 + (focusMm - 12), 1);
    const text = row?.enter.toFixed(1) ?? "";
    recordEntries(
      db,
      {
        trialId: id,
        n: 1,
        rows: { [STORED_HEIGHT]: [{ at: null, text }] },
        readBack: true,
        holderId: holdersOf(db, full.trial.machineId)[0]?.id ?? 0,
        seen: readingStamp(full, 1),
      },
      NOW + 160,
    );
    expect(layOutNext(db, id, NOW + 170)).toBe(2);
    // Where it comes now is not taken from what was worked out.
    expect(refusal(() => burnOnPractice(db, id, 2, null, NOW + 180))).toMatchObject({ field: "homedMm" });
    burnedAndRead(id, 2, { homedMm: `${focusMm.toFixed(1)} mm` });
    expect(acceptVerdict(db, id, NOW + 400).result).toBe("proved");
  });

  it("cannot be told to set a number that it has not", () => {
    const id = beginTrial(db, "alder", "focus", NOW);
    const { fields } = fullTrial(db, id).procedure.plan({
      machine: fullTrial(db, id).machine,
      couponCode: "A-9",
      inForce: {},
    });
    expect(fields.map((f) => f.key)).not.toContain("setIn");
  });
});

describe("a focus height", () => {
  const standing = () =>
    benchView(db, NOW + 10)
      .machines.find((m) => m.slug === "alder")
      ?.procedures.find((p) => p.id === "focus");
  const inForce = () => {
    const id = beginTrial(db, "alder", "focus", NOW + 5);
    return settingsInForce(db, fullTrial(db, id), "controller")[FOCUS_HEIGHT];
  };

  it("belongs to its lens: with another it is not in force, with the old one it is due for a check", () => {
    const alder = machineBySlug(db, "alder")?.id ?? 0;
    const own = fittingsOf(db, alder)[0]?.partId ?? 0;
    const other = addPart(db, { kind: "optic", ...opticOf({ label: "63.5" }) }, NOW);
    expect(standing()?.state).toBe("holding");
    fitPart(db, alder, "optic", other, NOW + 1);
    expect(standing()).toMatchObject({ state: "stale", reasons: ["another optic was fitted"] });
    fitPart(db, alder, "optic", own, NOW + 2);
    expect(standing()).toMatchObject({
      state: "check due",
      reasons: ["an optic that was fitted before was fitted again"],
    });
    expect(inForce()).toMatchObject({ shape: "scalar", value: 8.5 });
  });

  it("is not held against what was entered with another lens meanwhile", () => {
    const alder = machineBySlug(db, "alder")?.id ?? 0;
    const own = fittingsOf(db, alder)[0]?.partId ?? 0;
    fitPart(db, alder, "optic", addPart(db, { kind: "optic", ...opticOf({ label: "63.5" }) }, NOW), NOW + 1);
    const holderId = holdersOf(db, alder).find((h) => h.role === "controller")?.id ?? 0;
    const rows = [{ at: null, text: "31" }];
    writeDown(
      db,
      { machine: "alder", setting: FOCUS_HEIGHT, holderId, rows, origin: "hand", note: "tried", readBack: true },
      NOW + 2,
    );
    fitPart(db, alder, "optic", own, NOW + 3);
    expect(standing()?.reasons).toEqual(["an optic that was fitted before was fitted again"]);
    expect(inForce()).toMatchObject({ shape: "scalar", value: 8.5 });
  });
});
