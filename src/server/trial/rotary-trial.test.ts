/** A rotary that is proved on the server: what was set aside for it stays open until it is put back, a setting from the ledger. */
import { beforeEach, describe, expect, it } from "vitest";
import { rotaryOf } from "../../core/machine/part-spec";
import { AXIS_SCALE } from "../../core/procedures/axis-scale/setting";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "../../core/procedures/rotary/setting";
import { SITES } from "../../core/procedures/rotary/travel";
import { entryText } from "../../core/settings/entry-text";
import { quantitiesAt } from "../../core/trial/answer";
import type { Database } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf } from "../../data/machines";
import { addPart, allParts, fitPart, fittedPart } from "../../data/parts";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { writeDown } from "../ledger/ledger-steps";
import { settlePutBack } from "../machine/change-steps";
import { benchView } from "../screens/bench-view";
import { machineView } from "../screens/machine-view";
import { roundPartsView } from "../screens/round-parts-view";
import { burnOnPractice } from "./burn-on-practice";
import { acceptVerdict, confirmHeld, layOutNext, recordEntries } from "./correction-steps";
import { readAllOnPractice } from "./read-all-on-practice";
import { fullTrial, historyOf, readingStamp, settingsInForce } from "./trial-record";
import { beginTrial, markBurned, openSession } from "./trial-steps";

let db: Database;
let id: number;
beforeEach(() => {
  db = demoCopy();
  id = beginTrial(db, "bracken", "rotary", NOW);
});

const machineId = () => fullTrial(db, id).trial.machineId;
const controller = () => holdersOf(db, machineId()).find((h) => h.role === "controller")?.id ?? 0;
const open = () => benchView(db, NOW + 1e6).putBack.filter((p) => p.slug === "bracken");
const scale = () =>
  entriesOf(db, ownerOfMachine(machineId())).find((e) => e.setting === AXIS_SCALE.y && e.undoneAt === null);

function burnAndRead(n: number, now: number): void {
  burnOnPractice(db, id, n, null, now);
  openSession(db, id, n, "calipers", { outside: 0, inside: 0 }, now + 1);
  readAllOnPractice(db, id, n, "test", (taken) => now + 2 + taken);
}

function correct(now: number): void {
  for (const [setting, text] of [
    [ROTARY_STEPS, "6400"],
    [ROLLER_DIAMETER, "20"],
  ] as const)
    confirmHeld(db, id, 1, { [setting]: [{ at: null, text }] }, now);
  const full = fullTrial(db, id);
  const outcome = full.procedure.solve(historyOf(full, 1));
  if (outcome.status !== "solved") throw new Error(outcome.status);
  for (const c of outcome.corrections)
    recordEntries(
      db,
      {
        trialId: id,
        n: 1,
        holderId: controller(),
        readBack: true,
        seen: readingStamp(full, 1),
        rows: { [c.setting]: c.rows.map((row) => ({ at: row.at, text: entryText(row.enter, c) })) },
      },
      now + 1,
    );
}

describe("a rotary on the bench", () => {
  it("is corrected by its roller and proved, and its numbers serve other parts", () => {
    burnAndRead(1, NOW + 1);
    correct(NOW + 1000);
    expect(layOutNext(db, id, NOW + 2000)).toBe(2);
    burnAndRead(2, NOW + 2001);
    expect(acceptVerdict(db, id, NOW + 3000).result).toBe("proved");
    // The same part, laid out as it measures: its line ends where it begins.
    const [first, second] = fullTrial(db, id).rounds;
    expect(first?.spec?.turned?.diameterMm).toBe(60);
    expect(second?.spec?.turned?.diameterMm).toBeCloseTo(60.48, 1);
    const across = (round: typeof first) => quantitiesAt(round?.readings.map((r) => r.answer) ?? [], SITES.marked);
    expect(across(second)[0]).toBeCloseTo(across(first)[0] ?? 0, 0);
    const gaps = quantitiesAt(second?.readings.map((r) => r.answer) ?? [], SITES.gap);
    expect(gaps.every((gap) => Math.abs(gap) < 0.3)).toBe(true);
    const view = roundPartsView(db, "bracken", NOW + 4000, "mm");
    expect(view?.standing.state).toBe("holding");
    expect(view?.stepsPerRevolution).toBe(6400);
    // The stand-in's roller is 1.9 % thicker than it is held.
    expect(view?.rollerDiameterMm).toBeCloseTo(20.38, 1);
  });

  it("keeps what is set aside on the bench until it is put back, each once however often it is burned", () => {
    expect(open()).toEqual([]);
    burnAndRead(1, NOW + 1);
    expect(open().map((p) => p.what)).toEqual([
      "the travel limits of Y are off",
      "homing is off",
      "the axis scale of Y is set for the rotary",
    ]);
    const another = beginTrial(db, "alder", "rotary", NOW + 10);
    markBurned(db, another, 1, NOW + 11);
    expect(open()).toHaveLength(3);
    correct(NOW + 1000);
    markBurned(db, id, layOutNext(db, id, NOW + 1010), NOW + 1020);
    expect(open()).toHaveLength(3);
    for (const { id: item } of open()) settlePutBack(db, "bracken", item, true, NOW + 2000 + item);
    expect(open()).toEqual([]);
    expect(refusal(() => settlePutBack(db, "bracken", 9999, true, NOW)).message).toMatch(/no such thing/);
  });

  it("puts the scale back to what the ledger says it was, and takes that out again where it was a mistake", () => {
    const asFound = scale();
    burnAndRead(1, NOW + 1);
    const item = open().find((p) => p.value !== null);
    expect(item?.value).toMatch(/^Axis scale Y, 6\.\d+ µm$/);
    writeDown(
      db,
      {
        machine: "bracken",
        setting: AXIS_SCALE.y,
        holderId: controller(),
        rows: [{ at: null, text: "9.8" }],
        origin: "hand",
        note: "for the rotary",
        readBack: true,
      },
      NOW + 100,
    );
    settlePutBack(db, "bracken", item?.id ?? 0, true, NOW + 200);
    expect(scale()).toMatchObject({ origin: "restored", value: asFound?.value, note: expect.stringMatching(/rotary/) });
    settlePutBack(db, "bracken", item?.id ?? 0, false, NOW + 300);
    expect(scale()?.value).toEqual({ shape: "scalar", value: expect.closeTo(0.0098, 9) });
    expect(open().map((p) => p.id)).toContain(item?.id);
  });

  it("has a stand-in that keeps the numbers of each rotary apart", () => {
    const part = (label: string) => allParts(db).find((p) => p.spec.label === label)?.id ?? 0;
    fitPart(db, machineId(), "rotary", part("Worn rollers"), NOW + 1);
    const worn = beginTrial(db, "bracken", "rotary", NOW + 2);
    id = worn;
    burnAndRead(1, NOW + 3);
    confirmHeld(db, worn, 1, { [ROTARY_STEPS]: [{ at: null, text: "10000" }] }, NOW + 100);
    confirmHeld(db, worn, 1, { [ROLLER_DIAMETER]: null }, NOW + 101);
    const full = fullTrial(db, worn);
    const outcome = full.procedure.solve(historyOf(full, 1));
    const [correction] = outcome.status === "solved" ? outcome.corrections : [];
    if (!correction) throw new Error(outcome.status);
    expect(Math.abs((correction.rows[0]?.enter ?? 0) / 25_000 - 1)).toBeLessThan(0.01);
    recordEntries(
      db,
      {
        trialId: worn,
        n: 1,
        holderId: controller(),
        readBack: true,
        seen: readingStamp(full, 1),
        rows: {
          [ROTARY_STEPS]: correction.rows.map((row) => ({ at: row.at, text: entryText(row.enter, correction) })),
        },
      },
      NOW + 200,
    );
    burnAndRead(layOutNext(db, worn, NOW + 300), NOW + 301);
    expect(acceptVerdict(db, worn, NOW + 1000).result).toBe("proved");
  });

  it("holds its numbers while it is fitted: another one has none, and makes the proof stale", () => {
    burnAndRead(1, NOW + 1);
    correct(NOW + 1000);
    burnAndRead(layOutNext(db, id, NOW + 2000), NOW + 2001);
    acceptVerdict(db, id, NOW + 3000);
    const own = fittedPart(db, machineId(), "rotary", NOW)?.partId ?? 0;
    const chuck = addPart(db, { kind: "rotary", ...rotaryOf({ label: "Chuck", drive: "chuck" }) }, NOW);
    fitPart(db, machineId(), "rotary", chuck, NOW + 4000);
    const state = () =>
      machineView(db, "bracken", NOW + 9000)?.procedures.find((p) => p.id === "rotary") ?? { state: "", reasons: [] };
    expect(state()).toMatchObject({ state: "stale", reasons: ["another rotary was fitted"] });
    const held = () => settingsInForce(db, fullTrial(db, id), "controller")[ROTARY_STEPS];
    expect(held()).toBeNull();
    fitPart(db, machineId(), "rotary", own, NOW + 5000);
    expect(state().state).toBe("check due");
    expect(held()).toEqual({ shape: "scalar", value: 6400 });
  });
});
