/** Parts, holders, changes, the ledger by hand, archiving: what a workshop writes down beside its trials. */
import { beforeEach, describe, expect, it } from "vitest";
import { rotaryOf } from "../../core/machine/part-spec";
import type { Database } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf, machineBySlug } from "../../data/machines";
import { documentText } from "../../formats/json-document";
import type { LedgerDocument } from "../../formats/ledger-document";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { foundWrong, takeBackFault } from "../gauges/gauge-steps";
import { ledgerOf } from "../ledger/ledger-document";
import { putBackValue, takeBackEntry, writeDown } from "../ledger/ledger-steps";
import { compareView, ledgerView } from "../ledger/ledger-view";
import { loadLedger } from "../ledger/load-ledger";
import { practiceView } from "../practice/practice-view";
import { benchView } from "../screens/bench-view";
import { machineView } from "../screens/machine-view";
import { beginTrial } from "../trial/trial-steps";
import { archive, bringBack, removeMachine } from "./archive-steps";
import { noteChange, noteToPutBack, settlePutBack, takeBackChange } from "./change-steps";
import { addCopy, bringBackHolder, nameHolder, removeHolder } from "./holder-steps";
import { keepMachine } from "./machine-steps";
import { keepPart, type PartInput, putPartAway, swapPart } from "./part-steps";

const DAY = 86_400_000;
const OPTIC: PartInput = {
  id: null,
  kind: "optic",
  label: "38.1",
  focalLength: "1.5 in",
  workingDistance: "",
  field: "",
  lensWavelength: "",
  ring: "",
  printed: "",
  drive: "roller",
  rollerDiameter: "",
  steps: "",
  motorSteps: "",
  microsteps: "",
  ratio: "",
  thinnest: "",
  thickest: "",
  mostStepsPerS: "",
  replaces: "y",
  setAside: [],
  setAsideToo: "",
};

let db: Database;
beforeEach(() => {
  db = demoCopy();
});

const view = (slug: string, now = NOW) => {
  const found = machineView(db, slug, now);
  if (!found) throw new Error(`no ${slug}`);
  return found;
};
const holder = (slug: string, role: string) => {
  const found = holdersOf(db, machineBySlug(db, slug)?.id ?? 0).find((h) => h.role === role);
  if (!found) throw new Error(`no ${role}`);
  return found.id;
};
const stateOf = (slug: string, now: number) => view(slug, now).procedures.find((p) => p.id === "scan-offset");
const entries = (slug: string) => entriesOf(db, ownerOfMachine(machineBySlug(db, slug)?.id ?? 0));
const byHand = (slug: string, rows: [string, string][] | null, more = {}) => ({
  machine: slug,
  setting: "scan offset",
  holderId: holder(slug, "controller"),
  note: "belt felt loose",
  origin: "hand" as const,
  readBack: true,
  rows: rows?.map(([at, text]) => ({ at, text })) ?? null,
  ...more,
});

describe("optics and rotaries", () => {
  it("are swapped in one dated action, and the machine remembers what was fitted when", () => {
    const id = keepPart(db, OPTIC, NOW);
    swapPart(db, { machine: "alder", kind: "optic", partId: id, at: NOW - 3 * DAY }, NOW);
    expect(view("alder").optic).toBe("38.1");
    expect(view("alder").fittings.map((f) => [f.label, f.to === null])).toEqual([
      ["38.1", true],
      ["50.8", false],
    ]);
    expect(view("alder").fittings[1]?.to).toBe(NOW - 3 * DAY);
    swapPart(db, { machine: "alder", kind: "optic", partId: null, at: null }, NOW);
    expect(view("alder").optic).toBeNull();
    expect(view("alder").parts.find((p) => p.id === id)?.on).toBeNull();
  });

  it("are on one machine at a time, and in the past", () => {
    const swap = (partId: number | null, at: number | null = null) =>
      refusal(() => swapPart(db, { machine: "alder", kind: "optic", partId, at }, NOW));
    const taken = view("bracken").fitted.optic?.partId ?? 0;
    expect(swap(taken)).toMatchObject({
      field: "part",
      message: expect.stringMatching(/fitted to Bracken.*two machines/),
    });
    expect(swap(view("alder").fitted.optic?.partId ?? 0).message).toMatch(/already/);
    expect(swap(999).message).toMatch(/Choose/);
    const id = keepPart(db, OPTIC, NOW);
    expect(swap(id, NOW + DAY)).toMatchObject({ field: "at", message: expect.stringMatching(/future/) });
    expect(swap(id, NOW - 900 * DAY)).toMatchObject({ field: "at", message: expect.stringMatching(/after that/) });
    expect(swap(id, Number.NaN)).toMatchObject({ field: "at" });
    putPartAway(db, id, true, NOW);
    expect(swap(id).message).toMatch(/Choose/);
    expect(refusal(() => putPartAway(db, taken, true, NOW)).message).toMatch(/take it off first/);
  });

  it("have names of their own, and not known is an answer", () => {
    expect(refusal(() => keepPart(db, { ...OPTIC, label: " 50.8" }, NOW))).toMatchObject({ field: "label" });
    expect(refusal(() => keepPart(db, { ...OPTIC, focalLength: "0" }, NOW))).toMatchObject({ field: "focalLength" });
    const rollers = { ...OPTIC, kind: "rotary" as const, label: "Rollers" };
    const id = keepPart(db, { ...rollers, steps: "5000" }, NOW);
    expect(view("alder").parts.find((p) => p.id === id)?.spec).toEqual({
      kind: "rotary",
      ...rotaryOf({ label: "Rollers", drive: "roller", stepsPerRevolution: 5000 }),
    });
    swapPart(db, { machine: "alder", kind: "rotary", partId: id, at: null }, NOW);
    expect(view("alder").fitted).toMatchObject({ optic: { label: "50.8" }, rotary: { label: "Rollers" } });
    keepPart(db, { ...OPTIC, id, kind: "rotary", label: "Rollers, long", drive: "chuck" }, NOW + 1);
    expect(view("alder", NOW + 2).fitted.rotary?.label).toBe("Rollers, long");
  });
});

describe("what is known of a rotary", () => {
  const rollers = { ...OPTIC, kind: "rotary" as const, label: "Rollers" };
  const described = { motorSteps: "200", microsteps: "16", ratio: "60/20" };
  const spec = (id: number) => view("alder").parts.find((p) => p.id === id)?.spec;

  it("is made of its motor, driver and gear, with what is switched off for it", () => {
    const id = keepPart(db, { ...rollers, ...described, setAside: ["limits", "limits"], setAsideToo: " fan " }, NOW);
    expect(spec(id)).toMatchObject({ stepsPerRevolution: 9600, ratio: 3, setAside: ["limits"], setAsideToo: "fan" });
  });

  it("is refused at its field: steps that do not agree, pulses that are not whole, sizes the wrong way round", () => {
    const field = (input: Partial<PartInput>) => refusal(() => keepPart(db, { ...rollers, ...input }, NOW)).field;
    expect(field({ ...described, steps: "5000" })).toBe("steps");
    expect(field({ microsteps: "12.5" })).toBe("microsteps");
    expect(field({ ratio: "0" })).toBe("ratio");
    expect(field({ thinnest: "80", thickest: "20" })).toBe("thickest");
    expect(field({ mostStepsPerS: "fast" })).toBe("mostStepsPerS");
  });

  it("is refused with all faults of the form", () => {
    const wrong = { label: "", microsteps: "12.5", ratio: "0", thinnest: "80", thickest: "20" };
    const refused = refusal(() => keepPart(db, { ...rollers, ...wrong }, NOW));
    expect([refused, ...refused.more].map((f) => f.field)).toEqual(["label", "microsteps", "ratio", "thickest"]);
  });
});

describe("what is written down by hand", () => {
  it("as found is read back, also as not known, and changes nothing at the machine", () => {
    const slug = keepMachine(
      db,
      {
        slug: null,
        kind: "CO2 gantry",
        name: "Damson",
        width: "300",
        depth: "300",
        topSpeed: "300",
        acceleration: "",
        wavelength: "10600",
        workingSpeeds: "",
        scansBlocks: true,
        practice: true,
        held: {},
        axes: { home: "not known", x: "not known", y: "not known" },
      },
      NOW,
    );
    expect(view(slug).held.length).toBeGreaterThan(2);
    expect(view(slug).held.every((h) => h.entry === null)).toBe(true);
    writeDown(
      db,
      {
        ...byHand(slug, [
          ["300", "0.14"],
          ["100 mm/s", "-0,1"],
        ]),
        origin: "found",
        note: "",
      },
      NOW,
    );
    writeDown(db, { ...byHand(slug, null), holderId: holder(slug, "ustrina"), origin: "found" }, NOW);
    const offsets = () => view(slug).held.filter((h) => h.setting.key === "scan offset");
    expect(offsets().map((h) => h.entry?.value)).toEqual([
      {
        shape: "table",
        rows: [
          { at: 100, value: -0.1 },
          { at: 300, value: 0.14 },
        ],
      },
      null,
    ]);
    expect(offsets().map((h) => h.entry?.readBack)).toEqual([true, false]);
    expect(view(slug).practiceTables?.["scan offset"]).toEqual([]);
  });

  it("needs a reason, makes what it touches stale, reaches the practice machine, and is taken back", () => {
    expect(refusal(() => writeDown(db, { ...byHand("bracken", [["100", "0.1"]]), note: " " }, NOW))).toMatchObject({
      field: "note",
      message: expect.stringMatching(/reason/),
    });
    const id = writeDown(db, byHand("bracken", [["100", "0.1"]]), NOW + 1);
    expect(stateOf("bracken", NOW + 2)).toMatchObject({ state: "stale", reasons: ["its own entry was changed"] });
    expect(view("bracken").practiceTables?.["scan offset"]).toEqual([{ at: 100, value: 0.1 }]);
    const newer = writeDown(db, byHand("bracken", [["100", "0.2"]]), NOW + 3);
    expect(refusal(() => takeBackEntry(db, "bracken", id, NOW + 4)).message).toMatch(/newer/);
    takeBackEntry(db, "bracken", newer, NOW + 4);
    expect(view("bracken").practiceTables?.["scan offset"]).toEqual([{ at: 100, value: 0.1 }]);
    takeBackEntry(db, "bracken", id, NOW + 5);
    expect(stateOf("bracken", NOW + 6)?.state).toBe("holding");
    expect(refusal(() => takeBackEntry(db, "bracken", id, NOW + 7)).message).toMatch(/already/);
  });

  it("is refused at the row at fault", () => {
    const fault = (rows: [string, string][]) => refusal(() => writeDown(db, byHand("alder", rows), NOW)).field;
    expect(
      fault([
        ["100", "0.1"],
        ["x", "0.2"],
      ]),
    ).toBe("row 1 at");
    expect(
      fault([
        ["100", "0.1"],
        ["300", "0..2"],
      ]),
    ).toBe("row 1");
    expect(fault([["-5", "0.1"]])).toBe("row 0 at");
    expect(
      fault([
        ["100", "0.1"],
        ["100 mm/s", "0.2"],
      ]),
    ).toBe("row 1 at");
    expect(fault([["100", "99999999"]])).toBe("row 0");
    const wrong = refusal(() =>
      writeDown(
        db,
        byHand(
          "alder",
          [
            ["-5", "x"],
            ["100", "y"],
            ["200", "0.1"],
          ],
          { note: " " },
        ),
        NOW,
      ),
    );
    expect([wrong, ...wrong.more].map((f) => f.field)).toEqual(["row 0 at", "row 0", "row 1", "note"]);
    expect(refusal(() => writeDown(db, byHand("alder", null), NOW)).field).toBe("value");
    expect(refusal(() => writeDown(db, byHand("alder", [], { setting: "magic" }), NOW)).field).toBe("setting");
    expect(refusal(() => writeDown(db, byHand("alder", [], { holderId: 999 }), NOW)).field).toBe("holder");
  });
});

describe("an earlier value", () => {
  it("is put back at its holder, recorded as that, and shows in the comparison of two days", () => {
    const [first, second] = [0.11, 0.13].map((v, i) =>
      writeDown(
        db,
        byHand("alder", [
          ["100", String(v)],
          ["300", "0.3"],
        ]),
        NOW - (40 - 20 * i) * DAY,
      ),
    ) as [number, number];
    const compared = () =>
      compareView(db, "alder", NOW - 30 * DAY, NOW + DAY).compared.find(
        (c) => c.holder === "Controller of Alder" && c.setting === "scan offset",
      );
    expect(compared()).toMatchObject({ same: false, before: { id: first }, after: { id: second } });
    expect(compared()?.rows).toEqual([
      { at: 100, before: 0.11, after: 0.13 },
      { at: 300, before: 0.3, after: 0.3 },
    ]);
    const back = {
      machine: "alder",
      entryId: first,
      holderId: holder("alder", "controller"),
      readBack: true,
      note: "",
    };
    putBackValue(db, back, NOW);
    expect(entries("alder")[0]).toMatchObject({ origin: "restored", readBack: true, note: "as on 2026-10-16" });
    expect(compared()).toMatchObject({ same: true });
    expect(practiceView(db).find((p) => p.slug === "alder")?.controller.table[0]?.value).toBe(0.11);
    // The second program has the older value still: it waits on the bench until it is entered there too.
    expect(benchView(db, NOW).openHolders).toMatchObject([{ holder: "Office computer, second program", code: null }]);
    putBackValue(db, { ...back, holderId: holder("alder", "copy") }, NOW + 1);
    expect(benchView(db, NOW + 2).openHolders).toEqual([]);
  });

  it("is refused where the controller no longer takes it, or nothing was known", () => {
    const old = writeDown(db, byHand("alder", [["100", "0.9"]]), NOW - DAY);
    const machine = machineBySlug(db, "alder");
    const held = { unit: "mm" as const, step: "0.001", low: "-0.5", high: "0.5" };
    keepMachine(
      db,
      {
        slug: "alder",
        kind: "CO2 gantry",
        name: "Alder",
        width: "900",
        depth: "600",
        topSpeed: "600",
        acceleration: "",
        wavelength: "10600",
        workingSpeeds: "",
        scansBlocks: true,
        practice: false,
        axes: machine?.spec.axes ?? { home: "not known", x: "not known", y: "not known" },
        held: { "scan offset": { ...held, tableKind: "interpolated", sense: 1 } },
      },
      NOW,
    );
    const back = (entryId: number) =>
      refusal(() =>
        putBackValue(
          db,
          { machine: "alder", entryId, holderId: holder("alder", "copy"), readBack: false, note: "" },
          NOW,
        ),
      );
    expect(back(old)).toMatchObject({
      field: "value",
      message: expect.stringMatching(/^The value at 100 is 0\.900 mm\. Enter between −0\.500 and 0\.500 mm/),
    });
    expect(refusal(() => writeDown(db, byHand("alder", [["100", "-0.6"]]), NOW)).field).toBe("value");
    const unknown = writeDown(db, { ...byHand("alder", null), origin: "found" }, NOW);
    expect(back(unknown).message).toMatch(/not known/);
    expect(back(4711).field).toBe("entry");
  });
});

describe("a ledger as a file", () => {
  const text = (change: (d: LedgerDocument) => void = () => undefined) => {
    const document = structuredClone(ledgerOf(db, "bracken", NOW));
    change(document);
    return documentText(document);
  };

  it("goes into another machine's ledger whole, once, with its dates", () => {
    const file = text();
    const count = entries("bracken").length;
    expect(loadLedger(db, "bracken", file, NOW)).toEqual({ added: 0, known: count });
    const other = demoCopy();
    other.$client.exec("delete from ledger_entry");
    expect(loadLedger(other, "bracken", file, NOW)).toEqual({ added: count, known: 0 });
    expect(loadLedger(other, "bracken", file, NOW)).toEqual({ added: 0, known: count });
    const [before, after] = [db, other].map((d) => ledgerOf(d, "bracken", NOW));
    const plain = (d?: LedgerDocument) => d?.entries.map(({ note: _, ...rest }) => rest);
    expect(plain(after)).toEqual(plain(before));
    expect(after?.entries[0]?.note).toMatch(/loaded from a file$/);
  });

  it("is handed on from bench to bench without growing, however long its notes are", () => {
    const file = text((d) => {
      for (const e of d.entries) e.note = "n".repeat(500);
    });
    const bench = () => {
      const copy = demoCopy();
      copy.$client.exec("delete from ledger_entry");
      return copy;
    };
    const [second, third] = [bench(), bench()];
    expect(loadLedger(second, "bracken", file, NOW).known).toBe(0);
    const handedOn = documentText(ledgerOf(second, "bracken", NOW));
    expect(loadLedger(third, "bracken", handedOn, NOW).known).toBe(0);
    const notes = (d: Database) => ledgerOf(d, "bracken", NOW).entries.map((e) => e.note);
    expect(notes(third)).toEqual(notes(second));
  });

  it("brings a copy of a new name along, and knows the controller whatever it is called", () => {
    const file = text((d) => {
      const first = d.entries[0];
      if (!first) throw new Error("no entry");
      d.entries = [
        { ...first, holder: "Laptop", role: "copy" },
        { ...first, holder: "Its old controller", role: "controller", at: "2025-01-01T10:00:00.000Z" },
      ];
    });
    expect(loadLedger(db, "bracken", file, NOW)).toEqual({ added: 2, known: 0 });
    expect(view("bracken").held.find((h) => h.holder.name === "Laptop")?.entry).not.toBeNull();
    expect(view("bracken").holders.map((h) => h.name)).not.toContain("Its old controller");
    // A name is there only once, whatever it was there
    const clash = text((d) => {
      for (const e of d.entries)
        Object.assign(e, { holder: "Controller of Bracken", role: "copy", at: "2025-02-01T10:00:00.000Z" });
    });
    expect(loadLedger(db, "bracken", clash, NOW).added).toBeGreaterThan(0);
    expect(view("bracken").holders.filter((h) => h.name === "Controller of Bracken")).toHaveLength(1);
  });

  it.each([
    [
      "entries[0].at",
      (d: LedgerDocument) => Object.assign(d.entries[0] ?? {}, { at: "2031-01-01T00:00:00.000Z" }),
      /future/,
    ],
    [
      "entries[0].setting",
      (d: LedgerDocument) => Object.assign(d.entries[0] ?? {}, { setting: "magic" }),
      /no setting/,
    ],
    [
      "entries[0].value",
      (d: LedgerDocument) => Object.assign(d.entries[0] ?? {}, { value: { shape: "scalar", value: 1 } }),
      /is a table/,
    ],
    ["kind", (d: LedgerDocument) => Object.assign(d, { kind: "galvo" }), /ledger of a galvo/],
    ["version", (d: LedgerDocument) => Object.assign(d, { version: 9 }), /Update Ustrina/],
    ["format", (d: LedgerDocument) => Object.assign(d, { format: "ustrina trial" }), /not a ledger document/],
  ])("is refused whole, naming the field: %s", (path, change, message) => {
    const before = entries("bracken").length;
    const refused = refusal(() => loadLedger(db, "bracken", text(change), NOW));
    expect(refused.message.startsWith(path)).toBe(true);
    expect(refused.message).toMatch(message);
    expect(entries("bracken")).toHaveLength(before);
  });
});

describe("what happened", () => {
  it("says what it makes stale before it is noted, and is taken back", () => {
    const belt = view("bracken").changes.find((c) => c.kind === "belt");
    expect(belt?.effects).toContainEqual({ title: "Scan offset", effect: "stale" });
    expect(belt?.effects.map((e) => e.title)).not.toContain("Focus height");
    const bed = view("bracken").changes.find((c) => c.kind === "bed")?.effects;
    expect(bed).toContainEqual({ title: "Focus height", effect: "stale" });
    expect(bed).toContainEqual({ title: "Bed tilt", effect: "stale" });
    noteChange(db, { machine: "bracken", kind: "belt", note: "tensioned", at: NOW - DAY }, NOW);
    expect(stateOf("bracken", NOW)).toMatchObject({ state: "stale", since: NOW - DAY });
    takeBackChange(db, "bracken", view("bracken").events[0]?.id ?? 0, NOW);
    expect(stateOf("bracken", NOW)?.state).toBe("holding");
    expect(refusal(() => takeBackChange(db, "bracken", 1, NOW)).field).toBe("event");
  });

  it("before the last proof changes nothing, and never lies in the future", () => {
    noteChange(db, { machine: "bracken", kind: "belt", note: "", at: NOW - 100 * DAY }, NOW);
    expect(stateOf("bracken", NOW)?.state).toBe("holding");
    const note = (kind: "belt" | "home", at: number | null, machine = "bracken") =>
      refusal(() => noteChange(db, { machine, kind, note: "", at }, NOW)).field;
    expect(note("belt", NOW + DAY)).toBe("at");
    expect(note("belt", null, "nowhere")).toBe("machine");
  });

  it("to a gauge takes with it what was proved with it since it was right", () => {
    foundWrong(db, "calipers", { note: "reads short", since: NOW - DAY }, NOW);
    expect(stateOf("bracken", NOW + 1)?.state).toBe("holding");
    foundWrong(db, "calipers", { note: "reads short", since: null }, NOW + 1);
    expect(stateOf("bracken", NOW + 2)).toMatchObject({ state: "stale", reasons: [expect.stringMatching(/gauge/)] });
    takeBackFault(db, 2, NOW + 3);
    expect(stateOf("bracken", NOW + 4)?.state).toBe("holding");
    expect(refusal(() => foundWrong(db, "calipers", { note: "", since: null }, NOW)).field).toBe("note");
    expect(refusal(() => foundWrong(db, "nothing", { note: "x", since: null }, NOW)).field).toBe("gauge");
    expect(refusal(() => takeBackFault(db, 2, NOW)).field).toBe("gauge");
  });
});

describe("what was set for a while", () => {
  it("stays on the bench until it is put back", () => {
    noteToPutBack(db, "alder", " Travel limits off ", NOW);
    const [item] = benchView(db, NOW).putBack;
    expect(item).toMatchObject({ what: "Travel limits off", machine: "Alder", openedAt: NOW });
    settlePutBack(db, "alder", item?.id ?? 0, true, NOW + 1);
    expect(benchView(db, NOW).putBack).toEqual([]);
    settlePutBack(db, "alder", item?.id ?? 0, false, NOW + 2);
    expect(benchView(db, NOW).putBack).toHaveLength(1);
    expect(refusal(() => noteToPutBack(db, "alder", " ", NOW)).field).toBe("what");
    expect(refusal(() => settlePutBack(db, "bracken", item?.id ?? 0, true, NOW)).field).toBe("what");
  });
});

describe("holders", () => {
  it("are added, named and removed; with a history they are put away and come back", () => {
    const id = addCopy(db, "alder", "Laptop");
    nameHolder(db, "alder", id, "Laptop in the shed");
    expect(view("alder").holders.map((h) => h.name)).toContain("Laptop in the shed");
    expect(removeHolder(db, "alder", id, NOW)).toBe("deleted");
    const office = holder("alder", "copy");
    expect(removeHolder(db, "alder", office, NOW)).toBe("put away");
    expect(view("alder").held.some((h) => h.holder.id === office)).toBe(false);
    expect(refusal(() => addCopy(db, "alder", "office computer, SECOND program")).message).toMatch(/put away/);
    bringBackHolder(db, "alder", office);
    expect(view("alder").held.some((h) => h.holder.id === office)).toBe(true);
    expect(refusal(() => removeHolder(db, "alder", holder("alder", "controller"), NOW)).message).toMatch(
      /cannot be without/,
    );
    expect(refusal(() => addCopy(db, "alder", " ")).field).toBe("name");
    expect(refusal(() => addCopy(db, "alder", "Controller of Alder")).message).toMatch(/tell them apart/);
  });
});

describe("taking a machine off the bench", () => {
  it("is refused where history needs it; archived it frees its optic, keeps its name and comes back", () => {
    expect(refusal(() => removeMachine(db, "bracken"))).toMatchObject({
      field: "history",
      message: expect.stringMatching(/15 trials and 10 ledger entries.*Archive it instead/),
    });
    archive(db, "bracken", NOW);
    const bench = benchView(db, NOW);
    expect(bench.machines.map((m) => m.slug)).toEqual(["alder", "cinder"]);
    expect(bench.archived).toEqual([{ slug: "bracken", name: "Bracken" }]);
    expect(view("bracken")).toMatchObject({ archived: true, optic: null });
    expect(refusal(() => keepMachine(db, bracken(), NOW))).toMatchObject({
      field: "name",
      message: expect.stringMatching(/archived machine has this name/),
    });
    expect(refusal(() => beginTrial(db, "bracken", "scan-offset", NOW)).message).toMatch(/archived/);
    bringBack(db, "bracken");
    expect(benchView(db, NOW).machines.map((m) => m.slug)).toEqual(["alder", "bracken", "cinder"]);
  });

  it("waits for an open trial", () => {
    beginTrial(db, "alder", "scan-offset", NOW);
    expect(refusal(() => archive(db, "alder", NOW)).message).toMatch(/trial is open/);
  });

  it("deletes one on which nothing was done, with all that was said of it", () => {
    const slug = keepMachine(db, { ...bracken(), name: "Mistake" }, NOW);
    noteToPutBack(db, slug, "x", NOW);
    removeMachine(db, slug);
    expect(machineBySlug(db, slug)).toBeUndefined();
    expect(db.$client.pragma("foreign_key_check")).toEqual([]);
  });

  function bracken() {
    return {
      slug: null,
      kind: "diode gantry" as const,
      name: "Bracken",
      width: "300",
      depth: "300",
      topSpeed: "300",
      acceleration: "",
      wavelength: "455",
      workingSpeeds: "",
      scansBlocks: true,
      practice: false,
      held: {},
      axes: { home: "front left" as const, x: "to the right" as const, y: "away" as const },
    };
  }
});

describe("the ledger's page", () => {
  it("draws a setting of one machine over time, and offers what may be put back", () => {
    for (const [i, v] of ["0.1", "0.2", "0.15"].entries())
      writeDown(db, byHand("alder", [["100", v], ...(i > 0 ? [["300", "0.3"] as [string, string]] : [])]), NOW + i);
    const page = ledgerView(db, { machine: "alder", setting: "scan offset" }, NOW);
    const [figure] = page.figures;
    expect(figure?.title).toBe("Scan offset per direction over time, Controller of Alder");
    expect(figure?.series.map((s) => [s.label, s.points.map((p) => p.value)])).toEqual([
      ["100 mm/s", [null, 0.1, 0.2, 0.15, 0.15]],
      ["300 mm/s", [null, null, 0.3, 0.3, 0.3]],
    ]);
    expect(page.rows.filter((r) => r.current)).toHaveLength(3);
    expect(page.rows.find((r) => r.current)?.holders).toEqual([]);
    expect(page.rows[1]?.holders).toHaveLength(3);
    expect(ledgerView(db, { machine: null, setting: null }, NOW, 2)).toMatchObject({ more: 50, figures: [] });
  });
});
