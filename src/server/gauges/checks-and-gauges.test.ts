/** Sittings, gauges, checks long afterwards, limits and states: the steps as the screens call them, on the demo bench. */
import { beforeEach, describe, expect, it } from "vitest";
import { DAY_MS } from "../../core/course/state";
import { gaugeSchema } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { type Database, openDatabase } from "../../data/database";
import { allGauges } from "../../data/gauges";
import { machineBySlug } from "../../data/machines";
import { trialById } from "../../data/trials";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { noteChange } from "../machine/change-steps";
import { wear } from "../practice/practice-machine";
import { benchView } from "../screens/bench-view";
import { procedureView } from "../screens/procedure-view";
import { burnOnPractice } from "../trial/burn-on-practice";
import { beginCheck, setLimits, setTolerance } from "../trial/check-steps";
import { acceptVerdict, confirmHeld, giveUp, layOutNext, recordEntries } from "../trial/correction-steps";
import { readAllOnPractice } from "../trial/read-all-on-practice";
import { fullTrial, historyOf, readingStamp, roundOf } from "../trial/trial-record";
import { beginTrial, keepDraft, openSession, readMore, takeReading, takeSheet } from "../trial/trial-steps";
import { trialView } from "../trial/trial-view";
import { declareGauge, foundWrong, type GaugeInput, knownEye } from "./gauge-steps";
import { gaugesView } from "./gauges-view";
import { declareUsualGauges } from "./usual-gauges";

let db: Database;
let key = 0;

beforeEach(() => {
  db = demoCopy();
});

/** Reads at the practice piece whatever the round still asks for. */
function readOpen(trialId: number, n: number, gauge: string, now = NOW) {
  openSession(db, trialId, n, gauge, { outside: 0, inside: null }, now);
  readAllOnPractice(db, trialId, n, "check", () => now);
}

function checked(now = NOW): number {
  const trialId = beginCheck(db, "bracken", "scan-offset", now);
  burnOnPractice(db, trialId, 1, null, now);
  readOpen(trialId, 1, "calipers", now);
  return trialId;
}

const stateOf = (slug: string, now = NOW) => procedureView(db, slug, "scan-offset", now)?.state;

describe("sittings", () => {
  it("keep apart by gauge, day and zero; readings say which one they belong to", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    burnOnPractice(db, trialId, 1, null, NOW);
    openSession(db, trialId, 1, "calipers", { outside: 0.02, inside: null }, NOW);
    const first = take(trialId, "v100-left", "0.29", "mm");
    openSession(db, trialId, 1, "inch-calipers", { outside: -0.0254, inside: 0.01 }, NOW + 3 * DAY_MS);
    const second = take(trialId, "v100-left", "0.0115", "in");
    expect(first.answer.content).toMatchObject({ value: { value: expect.closeTo(0.27, 9) } });
    expect(second.answer.content).toMatchObject({ value: { value: expect.closeTo(0.0115 * 25.4 + 0.0254, 9) } });
    expect(second.answer.session).not.toBe(first.answer.session);
    const view = trialView(db, trialId, NOW);
    expect(view.rounds[0]?.sessions.map((s) => [s.gauge.id, s.zero])).toEqual([
      ["calipers", { outside: 0.02, inside: null }],
      ["inch-calipers", { outside: -0.0254, inside: 0.01 }],
    ]);
    expect(view.decisions["length unit"]).toBe("in");
  });

  it("refuse a zero that is dirt, at its jaws", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    burnOnPractice(db, trialId, 1, null, NOW);
    const open = (zero: { outside: number; inside: number | null }) =>
      refusal(() => openSession(db, trialId, 1, "calipers", zero, NOW));
    expect(open({ outside: 0, inside: 2 })).toMatchObject({ field: "inside" });
    expect(open({ outside: -2, inside: null })).toMatchObject({ field: "outside" });
  });

  function take(trialId: number, site: string, text: string, unit: "mm" | "in") {
    return takeReading(
      db,
      {
        trialId,
        n: 1,
        site,
        input: { kind: "quantity", text, words: "positive", unit },
        from: "wedge",
        clientKey: `sitting-key-${key++}`,
      },
      NOW,
    );
  }
});

describe("more readings", () => {
  it("are asked for where they are needed, and the sites are open again", () => {
    const trialId = checked();
    const done = roundOf(fullTrial(db, trialId), 1).spec?.sites.find((s) => s.id === "v40-left");
    readMore(db, trialId, 1, ["v40-left", "v40-right"], 3);
    readMore(db, trialId, 1, ["v40-left"], 1);
    const sites = roundOf(fullTrial(db, trialId), 1).spec?.sites ?? [];
    expect(sites.find((s) => s.id === "v40-left")?.repeats).toBe((done?.repeats ?? 0) + 4);
    expect(sites.find((s) => s.id === "v240-left")?.repeats).toBe(done?.repeats);
    expect(benchView(db, NOW).open[0]?.detail).toMatch(/sites of the check read/);
    expect(refusal(() => readMore(db, trialId, 1, ["v999-left"], 1)).message).toMatch(/no place/);
  });

  it("turn a verdict that could not be told into one that can", () => {
    const trialId = beginTrial(db, "bracken", "scan-offset", NOW);
    keepDraft(db, trialId, 1, {
      ...roundOf(fullTrial(db, trialId), 1).draft,
      speedsMmPerS: "60 120 240",
      repeats: "2",
    });
    burnOnPractice(db, trialId, 1, null, NOW);
    readOpen(trialId, 1, "calipers");
    confirmHeld(db, trialId, 1, { "scan offset": rowsHeld(trialId) }, NOW);
    record(trialId, 1);
    const n = layOutNext(db, trialId, NOW);
    burnOnPractice(db, trialId, n, null, NOW);
    readOpen(trialId, n, "calipers");
    const judge = () => fullTrial(db, trialId).procedure.judge(historyOf(fullTrial(db, trialId), n));
    // A tolerance just short of what these readings prove.
    const reach = Math.max(
      ...(judge()?.lines ?? []).map((l) => Math.abs(l.after.value) + 0.85 * expandedUncertainty(l.after)),
    );
    setTolerance(db, trialId, `${reach.toFixed(4)} mm`, false, NOW);
    const before = judge();
    expect(before?.result).toBe("cannot tell");
    let way = before?.ways.find((w) => w.gauge === null) ?? before?.ways[0];
    for (let i = 0; i < 4 && way; i++) {
      readMore(db, trialId, n, way.sites, way.more);
      readOpen(trialId, n, way.gauge ?? "calipers");
      way = judge()?.ways[0];
    }
    expect(judge()?.result).toBe("proved");
    expect(acceptVerdict(db, trialId, NOW).result).toBe("proved");
  });

  function rowsHeld(trialId: number) {
    const held = roundOf(fullTrial(db, trialId), 1).inForce?.["scan offset"];
    return held?.shape === "table" ? held.rows.map((r) => ({ at: r.at, text: String(r.value) })) : [];
  }

  function record(trialId: number, n: number) {
    const full = fullTrial(db, trialId);
    const outcome = full.procedure.solve(historyOf(full, n));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const rows = outcome.corrections.flatMap((c) => c.rows.map((r) => ({ at: r.at, text: r.enter.toFixed(3) })));
    const holderId = trialView(db, trialId, NOW).holders[0]?.id ?? 0;
    recordEntries(
      db,
      { trialId, n, holderId, rows: { "scan offset": rows }, readBack: true, seen: readingStamp(full, n) },
      NOW,
    );
  }
});

describe("gauges", () => {
  const input = (more: Partial<GaugeInput>): GaugeInput => ({
    id: null,
    name: "Old rule",
    kind: "rule",
    unit: "in",
    resolution: "1/64 in",
    limit: "",
    placing: "",
    ...more,
  });

  it("are declared as the trade writes them; what is not known stays so", () => {
    const id = declareGauge(db, input({}), NOW);
    const gauge = allGauges(db).find((g) => g.spec.id === id)?.spec;
    expect(gauge).toEqual({
      id: "old-rule",
      name: "Old rule",
      kind: "rule",
      unit: "in",
      resolutionMm: 25.4 / 64,
      limitMm: 25.4 / 64,
      placing: null,
    });
    expect(gaugeSchema.parse(gauge)).toEqual(gauge);
    const eye = declareGauge(db, input({ name: "By eye", kind: "eye", unit: "mm", resolution: "0.5" }), NOW);
    expect(allGauges(db).find((g) => g.spec.id === eye)?.spec.limitMm).toBe(0.25);
  });

  it("are refused without a step, with one of nothing, without a name or with one that is taken", () => {
    expect(refusal(() => declareGauge(db, input({ resolution: " " }), NOW))).toMatchObject({ field: "resolution" });
    expect(refusal(() => declareGauge(db, input({ resolution: "0" }), NOW)).message).toMatch(/larger than 0/);
    expect(refusal(() => declareGauge(db, input({ resolution: "a lot" }), NOW))).toMatchObject({ field: "resolution" });
    expect(refusal(() => declareGauge(db, input({ limit: "x" }), NOW))).toMatchObject({ field: "limit" });
    expect(refusal(() => declareGauge(db, input({ name: "" }), NOW))).toMatchObject({ field: "name" });
    expect(refusal(() => declareGauge(db, input({ name: "CALIPERS" }), NOW)).message).toMatch(
      /Another gauge has this name/,
    );
    expect(refusal(() => declareGauge(db, input({ id: "gone" }), NOW)).message).toMatch(/no such gauge/);
  });

  it("are refused with all faults of the form", () => {
    const refused = refusal(() =>
      declareGauge(db, input({ name: "", resolution: "a lot", limit: "x", placing: "y" }), NOW),
    );
    expect([refused, ...refused.more].map((f) => f.field)).toEqual(["name", "resolution", "placing", "limit"]);
  });

  it("include calipers and a rule on a bench without gauges", () => {
    const fresh = openDatabase(":memory:");
    declareUsualGauges(fresh, NOW);
    expect(allGauges(fresh).map((g) => g.spec.name)).toEqual(["Calipers", "Steel rule"]);
    declareUsualGauges(fresh, NOW + 1);
    expect(allGauges(fresh)).toHaveLength(2);
    const eyeOnly = openDatabase(":memory:");
    knownEye(eyeOnly, NOW);
    declareUsualGauges(eyeOnly, NOW);
    expect(allGauges(eyeOnly)).toHaveLength(3);
  });

  it("change from now on: sittings before keep what was declared then", () => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    burnOnPractice(db, trialId, 1, null, NOW);
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
    declareGauge(
      db,
      input({ id: "calipers", name: "Calipers", kind: "calipers", unit: "mm", resolution: "0.01", limit: "±0.05" }),
      NOW + 1,
    );
    const view = trialView(db, trialId, NOW);
    expect(view.rounds[0]?.sessions[0]?.gauge.limitMm).toBe(0.02);
    expect(view.gauges.find((g) => g.id === "calipers")?.limitMm).toBe(0.05);
    expect(gaugesView(db).find((r) => r.gauge.id === "calipers")?.sittings).toBeGreaterThan(12);
  });
});

describe("a check", () => {
  it("needs a proof, and no trial that is open", () => {
    expect(refusal(() => beginCheck(db, "alder", "scan-offset", NOW)).message).toMatch(/never proved/);
    beginTrial(db, "bracken", "scan-offset", NOW);
    expect(refusal(() => beginCheck(db, "bracken", "scan-offset", NOW)).message).toMatch(/is open/);
  });

  it("burns few sites with the settings in force, and ends as held", () => {
    const trialId = checked();
    const round = roundOf(fullTrial(db, trialId), 1);
    expect(round.purpose).toBe("check");
    expect(round.spec?.sites).toHaveLength(8);
    expect(round.inForce?.["scan offset"]).toMatchObject({ shape: "table", rows: { length: 6 } });
    expect(acceptVerdict(db, trialId, NOW).headline).toBe("Still valid");
    expect(trialById(db, trialId)?.end).toBe("held");
    expect(stateOf("bracken")).toMatchObject({ state: "holding", since: NOW, trialId });
  });

  it("that finds it outside makes it drift, and keeps its as-found error though it is corrected", () => {
    wear(db, machineBySlug(db, "bracken")?.id ?? 0, 600);
    const trialId = checked();
    const count = procedureView(db, "bracken", "scan-offset", NOW)?.checks.length ?? 0;
    const n = layOutNext(db, trialId, NOW);
    expect(roundOf(fullTrial(db, trialId), n).purpose).toBe("proof");
    const view = procedureView(db, "bracken", "scan-offset", NOW);
    expect(view?.checks).toHaveLength(count + 1);
    expect(view?.checks[0]).toMatchObject({ result: "not proved", trialId });
    expect(view?.checks[0]?.asFound.value).toBeGreaterThan(0.05);
    giveUp(db, trialId, NOW);
    expect(procedureView(db, "bracken", "scan-offset", NOW)?.checks).toHaveLength(count + 1);
    expect(stateOf("bracken")).toMatchObject({ state: "drifting" });
  });

  it("charts as-found errors from ten checks on, with the range floored by the uncertainty of a reading", () => {
    const view = procedureView(db, "bracken", "scan-offset", NOW);
    expect(view?.checks).toHaveLength(11);
    expect(view?.figures.map((f) => f.kind)).toEqual(["control chart", "control chart"]);
    const [chart] = view?.figures ?? [];
    if (chart?.kind !== "control chart") throw new Error("no chart");
    const u = Math.max(...(view?.checks.map((c) => c.asFound.standardUncertainty) ?? []));
    expect((chart.high - chart.centre) / 2.66).toBeGreaterThanOrEqual(1.128 * u - 1e-12);
  });
});

describe("limits", () => {
  it("are kept for the machine: trials from now on are judged by them, checks fall due by them", () => {
    setLimits(db, "bracken", "scan-offset", { tolerance: "2 thou", recheckDays: "10" }, NOW);
    const view = procedureView(db, "bracken", "scan-offset", NOW);
    expect(view?.tolerance).toMatchObject({ text: "0.0508 mm", usual: "0.05 mm" });
    expect(view?.state).toMatchObject({ state: "check due", reasons: ["a check is due every 10 days"] });
    expect(benchView(db, NOW).machines[1]?.next).toMatchObject({ action: "check", title: "Check the scan offset" });
    const trialId = beginTrial(db, "bracken", "scan-offset", NOW);
    expect(trialById(db, trialId)?.tolerance).toBeCloseTo(0.0508, 12);
  });

  it("are refused with all faults of the form, like a gauge found wrong", () => {
    const limits = refusal(() => setLimits(db, "alder", "scan-offset", { tolerance: "x", recheckDays: "0" }, NOW));
    expect([limits, ...limits.more].map((f) => f.field)).toEqual(["tolerance", "recheckDays"]);
    const wrong = refusal(() => foundWrong(db, "calipers", { note: " ", since: NOW + DAY_MS }, NOW));
    expect([wrong, ...wrong.more].map((f) => f.field)).toEqual(["at", "note"]);
  });

  it("are refused at their fields", () => {
    const set = (tolerance: string, recheckDays: string) =>
      refusal(() => setLimits(db, "bracken", "scan-offset", { tolerance, recheckDays }, NOW));
    expect(set("0", "10")).toMatchObject({ field: "tolerance" });
    expect(set("fine", "10")).toMatchObject({ field: "tolerance" });
    for (const days of ["", "0", "1.5", "soon", "99999"])
      expect(set("0.05", days)).toMatchObject({ field: "recheckDays" });
  });

  it("of one trial can be changed until it ends", () => {
    const trialId = checked();
    setTolerance(db, trialId, "0.08 mm", false, NOW);
    expect(trialById(db, trialId)?.tolerance).toBe(0.08);
    expect(machineBySlug(db, "bracken")?.spec.tolerances).toEqual({});
    setTolerance(db, trialId, "0.09", true, NOW);
    expect(machineBySlug(db, "bracken")?.spec.tolerances).toEqual({ "scan-offset": 0.09 });
    giveUp(db, trialId, NOW);
    expect(refusal(() => setTolerance(db, trialId, "0.1", false, NOW)).message).toMatch(/has ended/);
  });
});

describe("what happened to a machine", () => {
  it("makes a result stale, or due for a check, with its reason, until a check confirms it", () => {
    noteChange(db, { machine: "bracken", kind: "tube", note: "diode replaced", at: null }, NOW + 1);
    expect(stateOf("bracken", NOW + 2)).toMatchObject({
      state: "check due",
      reasons: ["the tube or source was changed"],
    });
    noteChange(db, { machine: "bracken", kind: "belt", note: "", at: null }, NOW + 3);
    expect(stateOf("bracken", NOW + 4)).toMatchObject({
      state: "stale",
      reasons: ["the belt was changed or tightened"],
    });
    expect(benchView(db, NOW + 4).machines[1]?.next).toMatchObject({
      action: "begin",
      title: "Measure the focus height again",
      reason: "the tube or source was changed",
    });
    acceptVerdict(db, checked(NOW + 5), NOW + 6);
    expect(stateOf("bracken", NOW + 7)).toMatchObject({ state: "holding" });
  });
});

describe("a filled sheet", () => {
  const HEAD = "site,reading (mm),which\n";
  const row = (site: string, reading: number | string) =>
    `${site},${reading},${site.endsWith("left") ? "left-going stand out" : "right-going stand out"}\n`;
  const good = [100, 200, 300, 400]
    .flatMap((v) => [row(`v${v}-left`, v / 1000), row(`v${v}-right`, v / 1000)])
    .join("");
  const begun = (): number => {
    const trialId = beginTrial(db, "alder", "scan-offset", NOW);
    burnOnPractice(db, trialId, 1, null, NOW);
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, NOW);
    return trialId;
  };
  const taken = (trialId: number) => roundOf(fullTrial(db, trialId), 1).readings.length;

  it("is taken whole, and once", () => {
    const trialId = begun();
    expect(takeSheet(db, trialId, 1, HEAD + good, false, NOW)).toBe(8);
    expect(takeSheet(db, trialId, 1, HEAD + good, false, NOW)).toBe(0);
    expect(taken(trialId)).toBe(8);
  });

  it("with a likely slip of units is asked about, takes nothing, and is taken when it is right", () => {
    const trialId = begun();
    const slip = HEAD + good + row("v500-left", 0.5 * 25.4);
    const question = refusal(() => takeSheet(db, trialId, 1, slip, false, NOW));
    expect(question).toMatchObject({ field: "question" });
    expect(question.message).toMatch(/^Nothing is taken yet\. Line 10, v500-left: This is about 25 times/);
    expect(taken(trialId)).toBe(0);
    expect(takeSheet(db, trialId, 1, slip, true, NOW)).toBe(9);
  });

  it("with a bad cell takes nothing, and says where", () => {
    const trialId = begun();
    const bad = refusal(() => takeSheet(db, trialId, 1, HEAD + good + row("v500-left", "0.2x"), true, NOW));
    expect(bad).toMatchObject({
      field: "sheet",
      message: expect.stringMatching(/^Line 10, v500-left: “x” is not a unit/),
    });
    expect(refusal(() => takeSheet(db, trialId, 1, HEAD, false, NOW)).message).toMatch(/No reading is filled in/);
    expect(taken(trialId)).toBe(0);
  });
});
