/** What the server does for two windows of one trial: stamps that change with it, layouts that are not overwritten unseen, sittings that stay. */
import { beforeEach, describe, expect, it } from "vitest";
import { draftOf } from "../../core/trial/draft";
import type { Database } from "../../data/database";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { isKnown } from "../../ui/trial/shared/known-stamp";
import { placesView } from "../screens/places-view";
import { preferencesFrom } from "../screens/preferences-view";
import { burnOnPractice } from "./burn-on-practice";
import { confirmHeld, decide } from "./correction-steps";
import { contextOf, fullTrial, roundOf } from "./trial-record";
import { trialStamp } from "./trial-stamp";
import { beginTrial, keepDraft, openSession, takeReading, undoReading } from "./trial-steps";
import { trialView } from "./trial-view";

let db: Database;
let trialId: number;
beforeEach(() => {
  db = demoCopy();
  trialId = beginTrial(db, "alder", "scan-offset", NOW);
});

const draft = () => roundOf(fullTrial(db, trialId), 1).draft;

function burned(): { first: number; second: number } {
  burnOnPractice(db, trialId, 1, null, NOW + 1);
  const open = (gauge: string, at: number) => openSession(db, trialId, 1, gauge, { outside: 0, inside: null }, at);
  return { first: open("calipers", NOW + 2), second: open("inch-calipers", NOW + 3) };
}

const take = (site: string, text: string, session?: number) =>
  takeReading(
    db,
    {
      trialId,
      n: 1,
      site,
      from: "typed" as const,
      clientKey: crypto.randomUUID(),
      input: { kind: "quantity", text, words: "positive", unit: "mm" },
      ...(session === undefined ? {} : { session }),
    },
    NOW + 4,
  );

describe("a layout in two windows", () => {
  it("is kept where nobody changed it since, and held against the other one where somebody did", () => {
    const base = draft();
    const mine = { ...base, repeats: "2" };
    const theirs = { ...base, repeats: "4" };
    expect(keepDraft(db, trialId, 1, theirs, base)).toEqual({ kept: true });
    expect(keepDraft(db, trialId, 1, mine, base)).toEqual({ kept: false, theirs });
    expect(draft()).toEqual(theirs);
    // Both came to the same: nobody minds
    expect(keepDraft(db, trialId, 1, theirs, base)).toEqual({ kept: true });
    expect(keepDraft(db, trialId, 1, mine, theirs)).toEqual({ kept: true });
    expect(draft()).toEqual(mine);
    expect(keepDraft(db, trialId, 1, theirs)).toEqual({ kept: true });
    burned();
    expect(refusal(() => keepDraft(db, trialId, 1, mine, theirs)).field).toBe("plan");
  });
});

describe("the stamp of a trial", () => {
  it("changes with whatever its pages show, and with nothing else", () => {
    const changes = (act: () => unknown, does = true) => {
      const before = JSON.stringify(trialStamp(db, trialId));
      act();
      const after = JSON.stringify(trialStamp(db, trialId));
      expect(after === before).toBe(!does);
    };
    const context = contextOf(db, fullTrial(db, trialId), 1);
    const form = fullTrial(db, trialId).procedure.plan(context);
    changes(() => keepDraft(db, trialId, 1, draftOf(form, form.defaults)), false);
    changes(() => keepDraft(db, trialId, 1, { ...draft(), repeats: "2" }));
    changes(burned);
    let reading = 0;
    changes(() => {
      reading = take("v100-left", "0.1").id;
    });
    changes(() => undoReading(db, trialId, 1, reading, NOW + 5));
    changes(() => decide(db, trialId, [{ key: "table", value: "line" }]));
    changes(() => confirmHeld(db, trialId, 1, { "scan offset": [] }, NOW + 6));
    changes(() => trialView(db, trialId, NOW + 7), false);
    expect(refusal(() => trialStamp(db, 4711)).field).toBe("trial");
  });

  it("is known to a page that took the newer readings itself", () => {
    burned();
    const view = trialView(db, trialId, NOW + 4);
    expect(isKnown(trialStamp(db, trialId), view)).toBe(true);
    const reading = take("v100-left", "0.1");
    expect(isKnown(trialStamp(db, trialId), view)).toBe(false);
    expect(isKnown(trialStamp(db, trialId), view, 1, [])).toBe(false);
    expect(isKnown(trialStamp(db, trialId), view, 1, [reading])).toBe(true);
    decide(db, trialId, [{ key: "table", value: "line" }]);
    expect(isKnown(trialStamp(db, trialId), view, 1, [reading])).toBe(false);
  });
});

describe("a reading that was sent late", () => {
  it("belongs to the sitting it was read in, not to a later one", () => {
    const { first, second } = burned();
    expect(take("v100-left", "0.1", first).answer).toMatchObject({ session: String(first), gauge: "calipers" });
    expect(take("v100-left", "0.1").answer).toMatchObject({ session: String(second), gauge: "inch-calipers" });
    expect(refusal(() => take("v100-left", "0.1", 4711)).field).toBe("gauge");
  });
});

describe("what the shell shows", () => {
  it("finds every machine, procedure, setting and trial at an address of its own", () => {
    const places = placesView(db);
    expect(new Set(places.map((p) => p.group))).toEqual(
      new Set(["Machines", "Procedures", "Settings", "Stock", "Trials"]),
    );
    expect(new Set(places.map((p) => p.href)).size).toBe(places.length);
    expect(places.find((p) => p.label === "B-2 Scan offset")).toMatchObject({ detail: "Bracken, proved" });
    expect(places.filter((p) => p.group === "Trials")[0]).toMatchObject({ detail: "Alder, open" });
  });

  it("takes from cookies what it knows, and nothing else", () => {
    const from = (cookies: Record<string, string>) => preferencesFrom((name) => cookies[name]);
    expect(from({ theme: "dark", unit: "thou" })).toEqual({ theme: "dark", unit: "thou" });
    expect(from({ theme: "<script>", unit: "ft" })).toEqual({ theme: "system", unit: "mm" });
    expect(from({})).toEqual({ theme: "system", unit: "mm" });
  });
});
