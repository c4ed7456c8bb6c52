/** What the pages receive, on the demo bench: every number on them comes from rows on disk. */

import { beforeEach, describe, expect, it } from "vitest";
import { PROCEDURES } from "../../core/course/registry";
import { DAY_MS } from "../../core/course/state";
import { type Database, openDatabase } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { machineBySlug } from "../../data/machines";
import { trialsOfMachine } from "../../data/trials";
import { demoCopy, NOW } from "../../testing/test-bench";
import { gaugesView } from "../gauges/gauges-view";
import { ledgerView } from "../ledger/ledger-view";
import { noteChange } from "../machine/change-steps";
import { reveal } from "../practice/practice-machine";
import { practiceView } from "../practice/practice-view";
import { burnOnPractice } from "../trial/burn-on-practice";
import { beginCheck, setLimits } from "../trial/check-steps";
import { giveUp } from "../trial/correction-steps";
import { beginTrial, openSession } from "../trial/trial-steps";
import { trialView } from "../trial/trial-view";
import { benchView } from "./bench-view";
import { machineFormView, machineView } from "./machine-view";
import { procedureView } from "./procedure-view";

let db: Database;
beforeEach(() => {
  db = demoCopy();
});
const idOf = (slug: string) => machineBySlug(db, slug)?.id ?? 0;

describe("the plan on the page of a machine", () => {
  const planOf = (slug: string) => machineView(db, slug, NOW + 5)?.plan;
  const lines = (slug: string) => planOf(slug)?.lines.map((l) => [l.procedure.id, l.done, l.needed !== null]);

  it("covers the first day until every procedure is proved, with the needs of each", () => {
    expect(planOf("alder")?.occasion).toBe("first day");
    expect(lines("alder")).toEqual([
      ["focus", true, false],
      ["axis-scale", true, false],
      ["scan-offset", false, true],
    ]);
    expect(planOf("alder")?.lines[2]?.needed?.gauge).toBe("Calipers");
  });

  it("still covers the first day while its last trial is under way", () => {
    beginTrial(db, "alder", "scan-offset", NOW);
    expect(planOf("alder")?.occasion).toBe("first day");
    expect(lines("alder")?.map(([id]) => id)).toEqual(["focus", "axis-scale", "scan-offset"]);
  });

  it("lists procedures that a change made out of date, and is absent if all are valid", () => {
    expect(planOf("bracken")).toBeNull();
    noteChange(db, { machine: "bracken", kind: "belt", note: "", at: null }, NOW + 4);
    expect(planOf("bracken")?.occasion).toBe("later");
    expect(lines("bracken")).toEqual([
      ["axis-scale", false, true],
      ["scan-offset", false, true],
    ]);
  });
});

describe("the bench", () => {
  it("of nothing is empty", () => {
    expect(benchView(openDatabase(":memory:"), NOW)).toEqual({
      machines: [],
      damaged: [],
      damagedToo: [],
      archived: [],
      open: [],
      openHolders: [],
      putBack: [],
      lastEntered: [],
      canOpenDemo: true,
    });
  });

  it("says what to do next on every machine, and why", () => {
    const next = (slug: string) => benchView(db, NOW).machines.find((m) => m.slug === slug)?.next;
    expect(next("alder")).toMatchObject({
      action: "begin",
      procedure: "scan-offset",
      title: "Measure the scan offset",
    });
    expect(next("bracken")).toMatchObject({ action: "none" });
    const trial = beginTrial(db, "alder", "scan-offset", NOW);
    expect(next("alder")).toMatchObject({
      action: "continue",
      href: `/trial/${trial}/lay-out`,
      reason: "being laid out",
    });
    burnOnPractice(db, trial, 1, null, NOW + 1);
    openSession(db, trial, 1, "calipers", { outside: 0, inside: null }, NOW + 2);
    expect(next("alder")).toMatchObject({ action: "continue", href: `/trial/${trial}/read` });
    expect(next("alder")?.reason).toMatch(/^0 of 14 sites of the coupon read$/);
    giveUp(db, trial, NOW + 3);
    expect(next("alder")).toMatchObject({ action: "begin" });
    noteChange(db, { machine: "bracken", kind: "belt", note: "", at: null }, NOW + 4);
    const stale = benchView(db, NOW + 5).machines.find((m) => m.slug === "bracken");
    expect(stale?.next).toMatchObject({ action: "begin", title: "Measure the axis scale again" });
    const scan = stale?.procedures.find((p) => p.id === "scan-offset");
    expect(scan).toMatchObject({ state: "stale", reasons: ["the belt was changed or tightened"] });
  });

  it("asks for a check when its time has come, and not a day before", () => {
    const checks = procedureView(db, "bracken", "scan-offset", NOW)?.checks ?? [];
    const last = Math.max(...checks.map((c) => c.at));
    const bracken = (at: number) => benchView(db, at).machines.find((m) => m.slug === "bracken");
    const state = (at: number) => bracken(at)?.procedures.find((p) => p.id === "scan-offset")?.state;
    expect(state(last + 179 * DAY_MS)).toBe("holding");
    expect(state(last + 181 * DAY_MS)).toBe("check due");
    setLimits(db, "bracken", "scan-offset", { tolerance: "0.05 mm", recheckDays: "30" }, NOW);
    expect(state(last + 29 * DAY_MS)).toBe("holding");
    expect(state(last + 31 * DAY_MS)).toBe("check due");
  });

  it("lists open trials newest first, and the last things that were entered", () => {
    const first = beginTrial(db, "alder", "scan-offset", NOW);
    const check = beginCheck(db, "bracken", "scan-offset", NOW + 10);
    const view = benchView(db, NOW + 20);
    expect(view.open.map((t) => t.id)).toEqual([check, first]);
    expect(view.lastEntered.length).toBeGreaterThan(0);
    const times = view.lastEntered.map((e) => e.at);
    expect([...times].sort((a, b) => b - a)).toEqual(times);
    expect(view.lastEntered.every((e) => e.machine !== "")).toBe(true);
  });
});

describe("the page of a machine", () => {
  it("is the same as on the bench, and nothing where there is none", () => {
    expect(machineView(db, "bracken", NOW)).toMatchObject(
      benchView(db, NOW).machines.find((m) => m.slug === "bracken") as object,
    );
    expect(machineView(db, "new", NOW)).toBeUndefined();
  });

  it("asks for what the procedures of its kind correct", () => {
    const { settings } = machineFormView();
    const gantry = settings["CO2 gantry"];
    expect(gantry.map((s) => s.key)).toEqual(
      PROCEDURES.filter((p) => p.machineKinds.includes("CO2 gantry")).flatMap((p) => p.settings.map((s) => s.key)),
    );
    expect(gantry.find((s) => s.key === "scan offset")?.larger).toEqual({
      positive: "marks earlier",
      negative: "marks later",
    });
    expect(settings.galvo.map((s) => s.key)).toEqual([
      ...["swap x and y", "invert x", "invert y", "focus height", "stored height", "field scale x", "field scale y"],
      ...["field bow x", "field bow y", "field keystone x", "field keystone y", "field shear"],
      ...["field own cubic x", "field own cubic y", "field turn", "rotary steps", "rotary roller diameter"],
    ]);
  });
});

describe("the page of a procedure", () => {
  it("has the checks of the machine, charted from ten on", () => {
    const view = procedureView(db, "bracken", "scan-offset", NOW);
    expect(view?.state.state).toBe("holding");
    expect(view?.checks.length).toBeGreaterThanOrEqual(10);
    expect(view?.checksUntilChart).toBeLessThanOrEqual(0);
    // The as-found errors, and how they moved from one check to the next.
    expect(view?.figures).toHaveLength(2);
    const own = trialsOfMachine(db, idOf("bracken")).filter((t) => t.procedure === "scan-offset");
    expect(view?.trials.length).toBe(own.length);
    expect(view?.tolerance.text).toBe("0.05 mm");
  });

  it("names the stock that a trial was on, where it is measured stock by stock", () => {
    const kerf = procedureView(db, "bracken", "kerf", NOW);
    expect(new Set(kerf?.trials.map((t) => t.stock))).toEqual(new Set(["Birch plywood 3 mm"]));
    expect(procedureView(db, "bracken", "scan-offset", NOW)?.trials[0]?.stock).toBe("");
  });

  it("is there before anything was measured, and says how many checks a chart needs", () => {
    const view = procedureView(db, "alder", "scan-offset", NOW);
    expect(view?.state).toMatchObject({ state: "not done", reasons: [], trialId: null });
    expect(view?.checksUntilChart).toBe(10);
    expect(view?.figures).toEqual([]);
    expect(view?.needs.stale).toContain("the belt was changed or tightened");
    expect(view?.needs.stale.at(-1)).toMatch(/gauge .* found wrong/);
    expect(view?.needs.check).toContain("the tube or source was changed");
  });

  it("is not there for what is not there", () => {
    expect(procedureView(db, "nowhere", "scan-offset", NOW)).toBeNull();
    expect(procedureView(db, "alder", "magic", NOW)).toBeNull();
  });
});

describe("the ledger's page", () => {
  it("has all machines or one, newest first, and one entry in force a holder", () => {
    const all = ledgerView(db, { machine: null, setting: null }, NOW);
    expect(all.chosen).toEqual({ machine: null, setting: null });
    expect(all.machines.map((m) => m.slug)).toEqual(["alder", "bracken", "cinder"]);
    const times = all.rows.map((r) => r.at);
    expect([...times].sort((a, b) => b - a)).toEqual(times);
    const current = all.rows.filter((r) => r.current);
    expect(new Set(current.map((r) => `${r.owner} ${r.setting} ${r.holderId}`)).size).toBe(current.length);
    const one = ledgerView(db, { machine: "bracken", setting: null }, NOW);
    expect(one.rows).toHaveLength(entriesOf(db, ownerOfMachine(idOf("bracken"))).length);
    expect(one.rows.every((r) => r.machine === "Bracken")).toBe(true);
  });

  it("shows all of them where a machine is asked for that is not there", () => {
    expect(ledgerView(db, { machine: "nowhere", setting: "nothing" }, NOW)).toEqual(
      ledgerView(db, { machine: null, setting: null }, NOW),
    );
  });
});

describe("gauges and practice machines", () => {
  it("tell how often a gauge was used", () => {
    const rows = gaugesView(db);
    expect(rows.find((r) => r.gauge.id === "calipers")?.sittings).toBeGreaterThan(10);
    expect(rows.every((r) => r.sittings >= 0)).toBe(true);
  });

  it("hide the truth until it is asked for", () => {
    expect(practiceView(db).map((p) => p.truth)).toEqual([null, null, null]);
    reveal(db, idOf("alder"), NOW);
    const [alder, bracken] = practiceView(db);
    expect(alder?.truth).toMatchObject({ lagOnS: expect.any(Number) });
    expect(bracken?.truth).toBeNull();
  });
});

describe("a trial's page", () => {
  it("has the words of its machine as they are now, and the spec it began with", () => {
    const id = beginTrial(db, "alder", "scan-offset", NOW);
    const view = trialView(db, id, NOW);
    expect(view).toMatchObject({ machineSlug: "alder", procedure: "scan-offset", endedAt: null, verdict: null });
    expect(view.dialect).toEqual(view.machine.gcode);
    expect(view.rounds).toHaveLength(1);
    expect(view.rounds[0]).toMatchObject({ n: 1, purpose: "measure", spec: null, readings: [] });
    expect(view.practice).toEqual({ tables: { "scan offset": [], "row shift by speed": [] }, switchedOn: true });
    expect(() => trialView(db, 4711, NOW)).toThrow(/no such trial/);
  });
});
