import { beforeEach, describe, expect, it } from "vitest";
import { opticSpecSchema } from "../../core/machine/part-spec";
import type { Database } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf, machineBySlug } from "../../data/machines";
import { newestMoment } from "../../data/newest-moment";
import { addPart } from "../../data/parts";
import { demoCopy } from "../../testing/test-bench";
import { writeDown } from "../ledger/ledger-steps";
import { swapPart } from "../machine/part-steps";
import { machineView } from "../screens/machine-view";
import { clockSetBack, momentNow } from "./clock";

let db: Database;
let newest: number;
beforeEach(() => {
  db = demoCopy();
  newest = newestMoment(db);
});

describe("the time of the bench", () => {
  it("is the clock's while that goes on, and stands still while it is behind what is written", () => {
    expect(newest).toBeGreaterThan(Date.UTC(2026, 0));
    expect(momentNow(db, newest + 5000)).toBe(newest + 5000);
    expect(momentNow(db, newest)).toBe(newest + 1);
    expect(momentNow(db, newest - 5000)).toBe(newest + 1);
    expect(momentNow(db, 0)).toBe(newest + 1);
    // What is only looked at moves no time: a clock that was ahead for a moment leaves nothing behind
    expect(momentNow(db, newest + 9e11)).toBe(newest + 9e11);
    expect(momentNow(db, newest + 2)).toBe(newest + 2);
  });

  it("says when the clock was set back, and not when it was put right by a minute", () => {
    expect(clockSetBack(db, newest)).toBeNull();
    expect(clockSetBack(db, newest - 60_000)).toBeNull();
    expect(clockSetBack(db, newest - 86_400_000)).toEqual({ clock: newest - 86_400_000, newest });
    expect(clockSetBack(db, newest + 86_400_000)).toBeNull();
  });

  it("puts what is written while the clock is years behind last, and in force", () => {
    const machine = machineBySlug(db, "alder");
    const holder = machine && holdersOf(db, machine.id)[0];
    if (!machine || !holder) throw new Error("the demo bench has no Alder");
    const write = (text: string, clock: number) =>
      writeDown(
        db,
        {
          machine: "alder",
          setting: "scan offset",
          holderId: holder.id,
          note: "after a flat battery",
          readBack: true,
          origin: "hand",
          rows: [{ at: "300", text }],
        },
        momentNow(db, clock),
      );
    const first = write("0.11", Date.UTC(2000, 0, 1));
    const second = write("0.12", Date.UTC(2000, 0, 2));
    expect(
      entriesOf(db, ownerOfMachine(machine.id))
        .slice(0, 2)
        .map((e) => e.id),
    ).toEqual([second, first]);
    const held = machineView(db, "alder", momentNow(db, 0))?.held.find(
      (h) => h.holder.id === holder.id && h.setting.key === "scan offset",
    );
    expect(held?.entry?.value).toEqual({ shape: "table", rows: [{ at: 300, value: 0.12 }] });
  });

  it("goes on from the last swap too, so that the next one is after it whatever the clock says", () => {
    const spec = opticSpecSchema.parse({ label: "Spare", focalLengthMm: 50.8 });
    const spare = (label: string) => addPart(db, { kind: "optic", ...spec, label }, newest);
    const swap = (partId: number) => {
      const now = momentNow(db, newest - 5000);
      swapPart(db, { machine: "alder", kind: "optic", partId, at: now }, now);
      return now;
    };
    const first = swap(spare("Spare A"));
    expect(swap(spare("Spare B"))).toBeGreaterThan(first);
  });
});
