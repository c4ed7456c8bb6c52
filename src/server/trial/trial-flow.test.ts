import { beforeEach, describe, expect, it } from "vitest";
import { fixed } from "../../core/metrology/quantity-text";
import { SCAN_OFFSET } from "../../core/procedures/scan-offset/plan";
import { ROW_SHIFT } from "../../core/procedures/scan-offset/setting";
import { fromEditedFile, leaveOut as leaveOutReading } from "../../core/trial/decisions";
import { comparedResults } from "../../core/trial/recorded-result";
import type { Database } from "../../data/database";
import { currentEntry, entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf, type Machine, machineById, machineBySlug } from "../../data/machines";
import { solution } from "../../data/schema";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { addDemoBench } from "../demo/demo-bench";
import { ledgerView } from "../ledger/ledger-view";
import type { TypedRow } from "../ledger/typed-value";
import { renew, reveal, switchCorrection } from "../practice/practice-machine";
import { practiceView } from "../practice/practice-view";
import { benchView } from "../screens/bench-view";
import { burnOnPractice, readOnPractice } from "./burn-on-practice";
import { acceptVerdict, confirmHeld, decide, giveUp, layOutNext, recordEntries, undoEntry } from "./correction-steps";
import { readAllOnPractice } from "./read-all-on-practice";
import { roundFile } from "./round-files";
import { roundGcode } from "./round-gcode";
import { fullTrial, historyOf, readingStamp, roundOf } from "./trial-record";
import { beginTrial, keepDraft, markBurned, openSession, takeReading, undoReading } from "./trial-steps";
import { trialView } from "./trial-view";

let db: Database;
let alder: number;
let key = 0;

beforeEach(() => {
  db = demoCopy();
  alder = machineBySlug(db, "alder")?.id ?? 0;
});

function take(trialId: number, n: number, site: string, text: string, words: "positive" | "negative" = "positive") {
  return takeReading(
    db,
    {
      trialId,
      n,
      site,
      input: { kind: "quantity", text, words, unit: "mm" },
      from: "typed",
      clientKey: `test-key-${key++}`,
    },
    NOW,
  );
}

function readAll(trialId: number, n: number) {
  openSession(db, trialId, n, "calipers", { outside: 0, inside: null }, NOW);
  readAllOnPractice(db, trialId, n, "test", () => NOW);
}

/** A trial on Alder, burned on the practice machine, read and confirmed. */
function measured(): number {
  const trialId = beginTrial(db, "alder", "scan-offset", NOW);
  burnOnPractice(db, trialId, 1, null, NOW);
  readAll(trialId, 1);
  confirmHeld(db, trialId, 1, { [SCAN_OFFSET]: [] }, NOW);
  return trialId;
}

function solvedNow(trialId: number, n: number) {
  const full = fullTrial(db, trialId);
  const outcome = full.procedure.solve(historyOf(full, n));
  if (outcome.status !== "solved") throw new Error(outcome.status);
  return outcome;
}

/** What the correction says, each entry times `factor`. */
function rowsFor(trialId: number, n: number, factor = 1): TypedRow[] {
  return solvedNow(trialId, n).corrections.flatMap((c) =>
    c.rows.map((r) => ({ at: r.at, text: fixed(r.enter * factor, 4).replace("−", "-") })),
  );
}

const stamp = (trialId: number, n: number) => readingStamp(fullTrial(db, trialId), n);
const holderId = (name: string) => holdersOf(db, alder).find((h) => h.name.includes(name))?.id ?? 0;

function record(trialId: number, n: number, factor = 1, holder = "Controller") {
  const [id = 0] = recordEntries(
    db,
    {
      trialId,
      n,
      holderId: holderId(holder),
      rows: { [SCAN_OFFSET]: rowsFor(trialId, n, factor) },
      readBack: true,
      seen: stamp(trialId, n),
    },
    NOW,
  );
  return id;
}

function proved(trialId: number) {
  const n = layOutNext(db, trialId, NOW);
  burnOnPractice(db, trialId, n, null, NOW);
  readAll(trialId, n);
  const full = fullTrial(db, trialId);
  return full.procedure.judge(historyOf(full, n));
}

describe("a recorded result", () => {
  it("is shown with its trial whatever the shape of its outcome was then, and left out where nothing can be read of it", () => {
    const trialId = measured();
    record(trialId, 1);
    const [recorded] = trialView(db, trialId, NOW).recorded;
    expect(trialView(db, trialId, NOW).rounds.map((r) => r.corrected)).toEqual([true]);
    expect(recorded).toMatchObject({ n: 1, at: NOW });
    const outcome = solvedNow(trialId, 1);
    expect(comparedResults(recorded?.estimates ?? [], outcome).map((c) => c.differs)).toEqual(
      outcome.estimates.map(() => "same"),
    );
    const old = { estimates: recorded?.estimates, corrections: [{ doubt: "as it was called" }] };
    db.update(solution)
      .set({ result: JSON.stringify(old) })
      .run();
    expect(trialView(db, trialId, NOW).recorded).toEqual([recorded]);
    db.update(solution).set({ result: "{}" }).run();
    expect(trialView(db, trialId, NOW).recorded).toEqual([]);
  });
});

describe("a trial from layout to proof", () => {
  it("is proved when the computed entries are recorded as entered", () => {
    const trialId = measured();
    record(trialId, 1);
    expect(proved(trialId)?.result).toBe("proved");
    expect(acceptVerdict(db, trialId, NOW).result).toBe("proved");
    expect(benchView(db, NOW).machines[0]?.procedures.find((p) => p.id === "scan-offset")).toMatchObject({
      state: "holding",
      since: NOW,
    });
    expect(refusal(() => acceptVerdict(db, trialId, NOW)).message).toMatch(/ended already/);
  });

  it.each([
    ["forgotten", 0, "not in force"],
    ["entered whole instead of half", 2, "whole"],
    ["entered the wrong way round", -1, "reversed"],
    ["halved twice", 0.5, "halved"],
  ])("shows an entry that was %s", (_, factor, cause) => {
    const trialId = measured();
    if (factor !== 0) record(trialId, 1, factor);
    const verdict = proved(trialId);
    expect(verdict?.result).toBe("not proved");
    expect(verdict?.findings.map((f) => f.id)).toEqual([cause]);
  });

  it("shows a correction that is switched off, and is cured by switching it on and correcting once more", () => {
    const trialId = measured();
    record(trialId, 1);
    switchCorrection(db, alder, false);
    expect(proved(trialId)?.findings.map((f) => f.id)).toEqual(["not in force"]);
    switchCorrection(db, alder, true);
    expect(proved(trialId)?.result).toBe("proved");
  });

  it("corrects a wrong entry from the proof burn, which builds on what was in force then", () => {
    const trialId = measured();
    record(trialId, 1, 2);
    proved(trialId);
    const wrong = currentEntry(db, ownerOfMachine(alder), SCAN_OFFSET, holderId("Controller"))?.value;
    confirmHeld(
      db,
      trialId,
      2,
      { [SCAN_OFFSET]: wrong?.shape === "table" ? wrong.rows.map((r) => ({ at: r.at, text: String(r.value) })) : [] },
      NOW,
    );
    record(trialId, 2);
    expect(proved(trialId)?.result).toBe("proved");
  });

  it("runs on Ustrina's own G-code where the machine scans no blocks: the file itself is compensated", () => {
    const trialId = beginTrial(db, "bracken", "scan-offset", NOW);
    const text = [...roundGcode(db, fullTrial(db, trialId), 1)].join("");
    const bracken = machineBySlug(db, "bracken")?.id ?? 0;
    const entry = currentEntry(
      db,
      ownerOfMachine(bracken),
      SCAN_OFFSET,
      holdersOf(db, bracken).find((h) => h.role === "ustrina")?.id ?? 0,
    );
    expect(entry?.value?.shape === "table" && entry.value.rows.length).toBe(6);
    expect(text).not.toMatch(/M120/);
    burnOnPractice(db, trialId, 1, null, NOW);
    readAll(trialId, 1);
    const full = fullTrial(db, trialId);
    const outcome = full.procedure.solve(historyOf(full, 1));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    for (const row of outcome.corrections[0]?.rows ?? []) expect(Math.abs(row.change.value)).toBeLessThan(0.025);
  });
});

describe("burning", () => {
  it("freezes layout and settings in force, once", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    markBurned(db, trialId, 1, NOW);
    const round = trialView(db, trialId, NOW).rounds[0];
    expect(round?.spec?.sites).toHaveLength(14);
    expect(round?.inForce).toEqual({ [SCAN_OFFSET]: { shape: "table", rows: [] }, [ROW_SHIFT]: null });
    expect(refusal(() => markBurned(db, trialId, 1, NOW)).message).toMatch(/burned already/);
    expect(refusal(() => keepDraft(db, trialId, 1, {})).message).toMatch(/stays as it was/);
    expect(refusal(() => burnOnPractice(db, trialId, 1, null, NOW)).message).toMatch(/burned already/);
  });

  it("keeps a layout that cannot be burned, and refuses the burn at its field", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    const draft = { ...roundOf(fullTrial(db, trialId), 1).draft, rowLengthMm: "" };
    keepDraft(db, trialId, 1, draft);
    expect(refusal(() => markBurned(db, trialId, 1, NOW))).toMatchObject({ field: "rowLengthMm" });
    expect(refusal(() => roundFile(db, trialId, 1, "coupon.svg")).message).toMatch(/length, for example 50 mm/);
    expect(trialView(db, trialId, NOW).rounds[0]?.draft.rowLengthMm).toBe("");
  });

  it("gives files that name coupon and machine", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    expect(roundFile(db, trialId, 1, "coupon.svg")).toMatchObject({ name: "alder-a-3.svg", mime: "image/svg+xml" });
    expect([...(roundFile(db, trialId, 1, "coupon.nc").body as Iterable<string>)].join("")).toMatch(
      /^\(Ustrina coupon A-3\)/,
    );
    expect(refusal(() => roundFile(db, trialId, 1, "../secret")).message).toMatch(/no file/);
  });

  it.each([
    ["a file from elsewhere", () => "G21\nG0 X1\nM2", /names no coupon/],
    [
      "the file of another coupon",
      (text: string) => text.replace("coupon A-3", "coupon B-9"),
      /is for “B-9”; this round is coupon A-3/,
    ],
    ["a cut file", (text: string) => text.slice(0, text.length / 2), /cut short|no word|M121|not closed/],
    ["prose", () => "please burn this", /no word of G-code|not understood/],
    ["a file that leaves the bed", (text: string) => text.replace(/X4\d\d\.?\d*/, "X950"), /outside the working area/],
  ])("refuses %s and burns nothing", (_, change, message) => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    const text = [...roundGcode(db, fullTrial(db, trialId), 1)].join("");
    expect(refusal(() => burnOnPractice(db, trialId, 1, change(text), NOW)).message).toMatch(message);
    expect(trialView(db, trialId, NOW).rounds[0]?.burnedAt).toBeNull();
  });

  it("burns an edited file as it is: another F word, other staggers", () => {
    const staggers = (edit: (text: string) => string) => {
      const trialId = beginTrial(db, "alder", "scan-offset", NOW);
      const text = [...roundGcode(db, fullTrial(db, trialId), 1)].join("");
      burnOnPractice(db, trialId, 1, edit(text), NOW);
      openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
      return Number(readOnPractice(db, trialId, 1, "v600-right").text);
    };
    expect(staggers((t) => t) - staggers((t) => t.replaceAll("F36000", "F6000"))).toBeGreaterThan(0.2);
  });

  it("says of an edited file that it is one, and of the file as it was downloaded that it is not", () => {
    const edited = (edit: (text: string) => string) => {
      const trialId = beginTrial(db, "alder", "scan-offset", NOW);
      burnOnPractice(db, trialId, 1, edit([...roundGcode(db, fullTrial(db, trialId), 1)].join("")), NOW);
      return fromEditedFile(1).of(trialView(db, trialId, NOW).decisions);
    };
    expect(edited((t) => t.replaceAll("F36000", "F6000"))).toBe(true);
    expect(edited((t) => t.replaceAll("\n", "\r\n"))).toBe(false);
  });
});

describe("reading", () => {
  const burned = () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    burnOnPractice(db, trialId, 1, null, NOW);
    return trialId;
  };

  it("needs a burn, then a gauge, then a place that exists and a number", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    expect(refusal(() => take(trialId, 1, "v100-left", "0.1")).message).toMatch(/not burned yet/);
    burnOnPractice(db, trialId, 1, null, NOW);
    expect(refusal(() => take(trialId, 1, "v100-left", "0.1"))).toMatchObject({ field: "gauge" });
    expect(refusal(() => openSession(db, trialId, 1, "laser tape", { outside: 0, inside: null }, NOW)).message).toMatch(
      /Choose a gauge/,
    );
    expect(refusal(() => openSession(db, trialId, 1, "calipers", { outside: 3, inside: null }, NOW)).message).toMatch(
      /clean the jaws/,
    );
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
    expect(refusal(() => take(trialId, 1, "v999-left", "0.1")).message).toMatch(/no such place/);
    expect(refusal(() => take(trialId, 1, "v100-left", "0.1x"))).toMatchObject({ field: "text" });
  });

  it("takes a reading once, however often it is sent", () => {
    const trialId = burned();
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
    const taking = {
      trialId,
      n: 1,
      site: "v100-left",
      input: { kind: "quantity", text: "0,29", words: "negative", unit: "mm" },
      from: "typed",
      clientKey: "the-very-same-key",
    } as const;
    const first = takeReading(db, taking, NOW);
    expect(takeReading(db, taking, NOW + 5).id).toBe(first.id);
    expect(first).toMatchObject({
      raw: "0,29 mm",
      answer: { content: { value: { value: -0.29 } }, gauge: "calipers" },
    });
    expect(trialView(db, trialId, NOW).rounds[0]?.readings).toHaveLength(1);
  });

  it("takes the zero of the closed jaws off", () => {
    const trialId = burned();
    openSession(db, trialId, 1, "calipers", { outside: 0.02, inside: null }, NOW);
    const taken = take(trialId, 1, "v100-left", "0.29");
    expect(taken.answer.content.status === "read" && taken.answer.content.value).toEqual({
      kind: "quantity",
      value: 0.29 - 0.02,
    });
  });

  it("takes back a reading without losing it, once", () => {
    const trialId = burned();
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
    const taken = take(trialId, 1, "v100-left", "0.29");
    undoReading(db, trialId, 1, taken.id, NOW);
    expect(trialView(db, trialId, NOW).rounds[0]?.readings).toEqual([]);
    expect(db.$client.prepare("select count(*) as n from reading where taken_back_at is not null").get()).toEqual({
      n: 1,
    });
    expect(refusal(() => undoReading(db, trialId, 1, taken.id, NOW)).message).toMatch(/taken back already/);
  });
});

describe("recording", () => {
  it("writes one holder at a time; the others stay open on the bench", () => {
    const trialId = measured();
    record(trialId, 1);
    const open = () => benchView(db, NOW).openHolders.map((h) => h.holder);
    expect(open()).toEqual(["Office computer, second program"]);
    record(trialId, 1, 1, "Office");
    expect(open()).toEqual([]);
  });

  it("keeps the frozen solution with the entry", () => {
    const trialId = measured();
    const id = record(trialId, 1);
    const row = db.$client
      .prepare(
        "select s.result, s.engine_version from ledger_entry e join solution s on s.id = e.solution_id where e.id = ?",
      )
      .get(id) as {
      result: string;
      engine_version: string;
    };
    expect(JSON.parse(row.result)).toMatchObject({ status: "solved" });
    expect(row.engine_version).toBe("scan-offset 1");
  });

  it("is taken back newest first, in the ledger and in the practice controller", () => {
    const trialId = measured();
    const held = () => practiceView(db).find((m) => m.slug === "alder")?.controller.table.length;
    const first = record(trialId, 1);
    const second = record(trialId, 1, 1.1);
    expect(refusal(() => undoEntry(db, trialId, first, NOW)).message).toMatch(/Something newer/);
    undoEntry(db, trialId, second, NOW);
    undoEntry(db, trialId, first, NOW);
    expect(held()).toBe(0);
    expect(refusal(() => undoEntry(db, trialId, 99_999, NOW)).message).toMatch(/no such record/);
    expect(entriesOf(db, ownerOfMachine(alder)).filter((e) => e.undoneAt !== null)).toHaveLength(2);
  });

  it("refuses what is no number, at its row", () => {
    const trialId = measured();
    const rows = [{ at: 100, text: "a bit" }];
    const record = () =>
      recordEntries(
        db,
        {
          trialId,
          n: 1,
          holderId: holderId("Controller"),
          rows: { [SCAN_OFFSET]: rows },
          readBack: false,
          seen: stamp(trialId, 1),
        },
        NOW,
      );
    expect(refusal(record)).toMatchObject({ field: `${SCAN_OFFSET} row 100` });
    expect(
      refusal(() =>
        recordEntries(db, { trialId, n: 1, holderId: 99, rows: {}, readBack: false, seen: stamp(trialId, 1) }, NOW),
      ).message,
    ).toMatch(/no such holder/);
  });

  it("refuses numbers that were worked out from other readings than there are now", () => {
    const trialId = measured();
    const seen = stamp(trialId, 1);
    const taken = take(trialId, 1, "v600-right", "0.5");
    const record = () =>
      recordEntries(
        db,
        {
          trialId,
          n: 1,
          holderId: holderId("Controller"),
          rows: { [SCAN_OFFSET]: rowsFor(trialId, 1) },
          readBack: false,
          seen,
        },
        NOW,
      );
    expect(refusal(record)).toMatchObject({ field: "readings", message: expect.stringMatching(/Look at them again/) });
    undoReading(db, trialId, 1, taken.id, NOW);
    expect(record()).toEqual([expect.any(Number)]);
  });

  it("writes a difference found on reading back into the ledger", () => {
    const trialId = measured();
    const before = entriesOf(db, ownerOfMachine(alder)).length;
    confirmHeld(db, trialId, 1, { [SCAN_OFFSET]: [{ at: 300, text: "-0.05" }] }, NOW + 1);
    const entries = entriesOf(db, ownerOfMachine(alder));
    expect(entries).toHaveLength(before + 1);
    expect(entries[0]).toMatchObject({ origin: "found", value: { shape: "table", rows: [{ at: 300, value: -0.05 }] } });
    expect(rowsFor(trialId, 1)[2]?.text).not.toBe("0.0000");
  });

  it("keeps choices", () => {
    const trialId = measured();
    decide(db, trialId, [
      { key: "table", value: "readings" },
      { key: "accept:300", value: "yes" },
    ]);
    expect(trialView(db, trialId, NOW).decisions).toMatchObject({ table: "readings", "accept:300": "yes" });
  });
});

describe("after the end of a trial", () => {
  it("no reading is left out or brought back, and none of the choices is kept", () => {
    const trialId = measured();
    const leaveOut = leaveOutReading("v100-left 1 0.1").as(true);
    decide(db, trialId, [leaveOut]);
    giveUp(db, trialId, NOW + 1);
    const refused = refusal(() =>
      decide(db, trialId, [
        { key: "table", value: "readings" },
        { ...leaveOut, value: "" },
      ]),
    );
    expect(refused.message).toMatch(/^This trial has ended\. Begin a new trial/);
    const { decisions } = trialView(db, trialId, NOW + 2);
    expect(decisions).toMatchObject({ [leaveOut.key]: "yes" });
    expect(decisions).not.toHaveProperty("table");
  });
});

describe("the bench", () => {
  it("says what to do next as the trial goes on", () => {
    const next = () => benchView(db, NOW).machines[0]?.next;
    expect(next()).toMatchObject({ action: "begin", title: "Measure the scan offset" });
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    expect(next()).toMatchObject({ action: "continue", href: `/trial/${trialId}/lay-out` });
    burnOnPractice(db, trialId, 1, null, NOW);
    expect(next()).toMatchObject({ reason: "0 of 14 sites of the coupon read", href: `/trial/${trialId}/read` });
    readAll(trialId, 1);
    expect(next()).toMatchObject({ href: `/trial/${trialId}/correct` });
    confirmHeld(db, trialId, 1, { [SCAN_OFFSET]: [] }, NOW);
    record(trialId, 1);
    expect(next()).toMatchObject({ title: "Prove the scan offset", href: `/trial/${trialId}/prove` });
    layOutNext(db, trialId, NOW);
    expect(next()).toMatchObject({ reason: "waiting for the proof burn", href: `/trial/${trialId}/burn?round=2` });
    giveUp(db, trialId, NOW);
    expect(next()).toMatchObject({ action: "begin" });
  });

  it("refuses what there is not", () => {
    expect(refusal(() => beginTrial(db, "oak", "scan-offset", NOW)).message).toMatch(/no machine/);
    expect(refusal(() => beginTrial(db, "alder", "weather", NOW)).message).toMatch(/no procedure/);
    expect(refusal(() => trialView(db, 999, NOW)).message).toMatch(/no such trial/);
  });

  it("is set up once only, by running trials", () => {
    const trials = () => db.$client.prepare("select count(*) as n from trial").get();
    const before = trials();
    addDemoBench(db, NOW);
    expect(trials()).toEqual(before);
    expect(db.$client.prepare("select count(*) as n from reading").get()).toEqual({ n: 460 });
    expect(ledgerView(db, { setting: null, machine: "bracken" }, NOW).rows[0]).toMatchObject({
      machine: "Bracken",
      origin: "trial",
      current: true,
    });
    expect(ledgerView(db, { setting: null, machine: null }, NOW).machines).toHaveLength(3);
  });
});

describe("practice machines", () => {
  it("hide their truth until it is asked for, and are exchanged as a whole", () => {
    const view = () => practiceView(db).find((m) => m.slug === "alder");
    expect(view()?.truth).toBeNull();
    reveal(db, alder, NOW);
    const before = view()?.truth;
    expect(before).toMatchObject({ lagOnS: expect.any(Number) });
    renew(db, machineById(db, alder) as Machine, 12345);
    expect(view()?.truth).toBeNull();
    reveal(db, alder, NOW);
    expect(view()?.truth).not.toEqual(before);
  });
});
