/**
 * What must hold for every procedure, listed or made up: its coupon lies inside its stock, its sites on a piece, its files
 * read back to the same geometry, and every correction shows its arithmetic.
 */
import { describe, expect, it } from "vitest";
import { type Piece, settingsOf } from "../../core/coupon/piece";
import { type RoundSpec, roundSpecSchema } from "../../core/coupon/round-spec";
import type { Site } from "../../core/coupon/site";
import { asBurned, strokesWith } from "../../core/coupon/strokes";
import { PROCEDURES, procedureById, proceduresFor } from "../../core/course/registry";
import { onMachine } from "../../core/geometry/frames";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { CELL_SETTING_KEYS } from "../../core/marking/cell-settings";
import { UNITS } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import type { SettingsInForce } from "../../core/settings/setting";
import { type Answer, type AnswerValue, PLAIN_SHARES } from "../../core/trial/answer";
import { leaveOut } from "../../core/trial/decisions";
import { draftOf, readDraft } from "../../core/trial/draft";
import type { History } from "../../core/trial/history";
import { outcomeSchema } from "../../core/trial/outcome";
import type { PlanContext } from "../../core/trial/plan-form";
import { verdictSchema } from "../../core/trial/verdict";
import { parseDxf } from "../../formats/dxf-parser";
import { dxfOf, layerName } from "../../formats/dxf-writer";
import { parseGcode } from "../../formats/gcode-parser";
import { burnedPaths } from "../../formats/gcode-paths";
import { gcodeOf } from "../../formats/gcode-writer";
import { parseSvg } from "../../formats/svg-parser";
import { svgOf } from "../../formats/svg-writer";
import { type Random, seeded } from "../../practice/random";
import { madeUp } from "../made-up/procedure";
import { sampleBar } from "../sample-bar/procedure";
import { SAMPLE_GALVO, SAMPLE_MACHINE, SAMPLE_STOCK } from "../sample-machine";

const GAUGE = {
  id: "calipers",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0.02,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
} as const;
const SAMPLES = [SAMPLE_MACHINE, SAMPLE_GALVO];
const contextOn = (machine: MachineSpec): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: {},
  stocks: [SAMPLE_STOCK],
});
const ALL: AnyProcedure[] = [...PROCEDURES, madeUp, sampleBar];

/** Best in the middle of the array, a little rough. */
function peaked(measurand: Site["measurand"]): number[] | null {
  if (measurand.kind !== "cell look") return null;
  const xs = measurand.cells.map((c) => c.x0);
  const ys = measurand.cells.map((c) => c.y0);
  const from = (values: number[], v: number) =>
    (2 * (v - Math.min(...values))) / Math.max(1e-9, Math.max(...values) - Math.min(...values)) - 1;
  return measurand.cells.map(({ x0, y0 }, i) => {
    const [u, v] = [from(xs, x0), from(ys, y0)];
    return 0.7 / (1 + 0.7 * (u * u + v * v)) + 0.004 * Math.sin(12.9898 * i);
  });
}

/** Some answer that fits what is asked: near to what the procedure expects, where it expects something. */
function someValue(site: Site, expected: number | undefined): AnswerValue {
  const { ask, measurand } = site;
  switch (ask.kind) {
    case "quantity":
      if (measurand.kind === "known length") return { kind: "quantity", value: measurand.mm };
      return { kind: "quantity", value: expected ? 1.001 * expected : 0.21 };
    case "count":
      return { kind: "count", value: 1 };
    case "ordinal":
      return { kind: "ordinal", category: ask.categories[0] ?? "" };
    case "choice":
      return { kind: "choice", option: ask.options[0]?.id ?? "" };
    case "cells":
      if (ask.noneToo) return { kind: "cells", cells: [] };
      // A sharpest cell at an end says only where to go on.
      return { kind: "cells", cells: [ask.cells[Math.floor(ask.cells.length / 2)]?.id ?? ""] };
    case "pair":
      return { kind: "pair", first: 3, second: 3.1 };
    case "points":
      return { kind: "points", points: [...ask.nominal] };
    case "comparison": {
      const middle = ask.cells[Math.floor(ask.cells.length / 2)]?.id ?? "";
      return { kind: "comparison", better: middle, worse: ask.cells[0]?.id ?? "", alike: false };
    }
    case "scores":
      return { kind: "scores", scores: peaked(measurand) ?? ask.cells.map((_, i) => 0.3 + 0.2 * Math.sin(i)) };
    case "vector":
      return { kind: "vector", x: 0.1, y: -0.2 };
  }
}

function historyFor(
  procedure: AnyProcedure,
  machine: MachineSpec,
  purposes: ("measure" | "proof")[],
  plan: unknown = procedure.plan(contextOn(machine)).defaults,
): History {
  const context = contextOn(machine);
  return {
    rounds: purposes.map((purpose, i) => {
      const spec = procedure.round(plan, context, purpose);
      const unread = { n: i + 1, purpose, plan, spec, inForce: {}, answers: [] };
      const asked: History = { ...RULES, machine, rounds: [unread], tolerance: procedure.tolerance.default };
      const answers = spec.sites.flatMap((site) =>
        Array.from(
          { length: site.repeats },
          (): Answer => ({
            site: site.id,
            content: { status: "read", value: someValue(site, procedure.expected(asked, site.id)?.value) },
            u: null,
            gauge: GAUGE.id,
            session: "1",
            shares: PLAIN_SHARES,
            from: "typed",
          }),
        ),
      );
      const inForce: SettingsInForce = {};
      for (const setting of procedure.settings)
        inForce[setting.key] =
          setting.shape === "scalar" ? { shape: "scalar", value: 1 } : { shape: "table", rows: [] };
      return { n: i + 1, purpose, plan, spec, inForce, answers };
    }),
    ...RULES,
    machine,
    tolerance: procedure.tolerance.default,
  };
}

const RULES = { gauges: [GAUGE], available: [GAUGE], decisions: {} };

const EACH = ALL.flatMap((procedure) =>
  SAMPLES.filter((m) => procedure.machineKinds.includes(m.kind)).map(
    (m) => [procedure.id, m.kind, procedure, m] as const,
  ),
);

describe.each(EACH)("%s on a %s", (_id, _kind, procedure, machine) => {
  const context = contextOn(machine);
  const form = procedure.plan(context);
  // A long code and the day are burned on it too.
  const signed = { ...context, couponCode: "MM-123.4", day: "2026-12-28" };
  const spec: RoundSpec = procedure.round(form.defaults, signed, "measure");
  const gcode = gcodeOf(spec, { couponCode: "T-1", machineName: "Testbed", dialect: machine.gcode });

  it("has a layout that its own form accepts, text for text", () => {
    const read = readDraft(form, draftOf(form, form.defaults));
    expect(read).toEqual({ ok: true, plan: form.defaults });
  });

  it("refuses nonsense in each field without NaN, infinity or null in the message", () => {
    const form = procedure.plan(contextOn(machine));
    const whole = draftOf(form, form.defaults);
    const said = Object.keys(whole).flatMap((field) =>
      ["", "x", "-5", "0", "1e9", "0.000001"].flatMap((typed) => {
        const read = readDraft(form, { ...whole, [field]: typed });
        return read.ok ? [] : read.issues.map(({ message }) => `${field} = “${typed}”: ${message}`);
      }),
    );
    expect(said.length).toBeGreaterThan(0);
    expect(said.filter((message) => /NaN|Infinity|∞|undefined|null/.test(message))).toEqual([]);
  });

  it("freezes and thaws", () => {
    expect(roundSpecSchema.parse(JSON.parse(JSON.stringify(spec)))).toEqual(spec);
  });

  it("keeps its coupon inside its stock, its settings known, and its program complete", () => {
    for (const piece of spec.pieces)
      for (const path of piece.paths) {
        expect(settingsOf(piece, path.settings).speedMmPerS).toBeLessThanOrEqual(machine.topSpeedMmPerS);
        for (const p of path.points) {
          expect(p.x).toBeGreaterThanOrEqual(0);
          expect(p.y).toBeGreaterThanOrEqual(0);
          expect(p.x).toBeLessThanOrEqual(piece.widthMm);
          expect(p.y).toBeLessThanOrEqual(piece.heightMm);
        }
        expect(spec.program).toContainEqual({ kind: "mark", piece: piece.id, settings: path.settings });
      }
  });

  it("has every site on a piece, with an id of its own and a question", () => {
    expect(new Set(spec.sites.map((s) => s.id)).size).toBe(spec.sites.length);
    for (const site of spec.sites) {
      expect(site.question).toMatch(/[?.]$/);
      if (site.place) expect(spec.pieces.map((p) => p.id)).toContain(site.place.piece);
    }
  });

  it("reads its SVG back to the same geometry and settings", () => {
    for (const piece of spec.pieces) {
      const read = parseSvg(svgOf(piece));
      if (!read.ok) throw new Error(read.message);
      expect(read.value.settings).toEqual(piece.settings);
      expect(read.value.title).toBe(piece.label);
      const written = piece.settings.flatMap((s) => piece.paths.filter((p) => p.settings === s.id));
      expect(read.value.paths).toHaveLength(written.length);
      read.value.paths.forEach((path, i) => {
        expect(path.closed).toBe(written[i]?.closed);
        path.points.forEach((p, k) => {
          expect(Math.abs(p.x - (written[i]?.points[k]?.x ?? Number.NaN))).toBeLessThan(1e-6);
          expect(Math.abs(p.y - (written[i]?.points[k]?.y ?? Number.NaN))).toBeLessThan(1e-6);
        });
      });
    }
  });

  it("reads its DXF back to the same geometry, a layer a group", () => {
    for (const piece of spec.pieces) {
      const read = parseDxf(dxfOf(piece));
      if (!read.ok) throw new Error(read.message);
      const written = piece.settings.flatMap((s) => piece.paths.filter((p) => p.settings === s.id));
      expect(read.value.paths).toHaveLength(written.length);
      read.value.paths.forEach((path, i) => {
        expect(path.layer).toBe(layerName(written[i]?.settings ?? ""));
        expect(path.closed).toBe(written[i]?.closed);
        path.points.forEach((p, k) => {
          expect(Math.abs(p.x - (written[i]?.points[k]?.x ?? Number.NaN))).toBeLessThan(1e-6);
          expect(Math.abs(p.y - (written[i]?.points[k]?.y ?? Number.NaN))).toBeLessThan(1e-6);
        });
      });
    }
  });

  it("reads its G-code back to the same geometry, speeds and powers", () => {
    const read = parseGcode(gcode);
    if (!read.ok) throw new Error(read.message);
    const burned = burnedPaths(read.value);
    const written = spec.program.flatMap((op) => {
      if (op.kind !== "mark") return [];
      const piece = spec.pieces.find((p) => p.id === op.piece) as Piece;
      const settings = settingsOf(piece, op.settings);
      // Outlines that Ustrina fills are rows in the file.
      return [...asBurned(strokesWith(piece, settings))].map((path) => ({ path, settings: path.settings }));
    });
    expect(burned).toHaveLength(written.length);
    burned.forEach((b, i) => {
      const { path, settings } = written[i] as (typeof written)[number];
      const points = path.closed ? [...path.points, path.points[0] as (typeof path.points)[number]] : path.points;
      expect(b.points).toHaveLength(points.length);
      points.forEach((p, k) => {
        const wanted = onMachine(p, spec.placement);
        expect(Math.abs((b.points[k]?.x ?? Number.NaN) - wanted.x)).toBeLessThanOrEqual(0.5e-4 + 1e-9);
        expect(Math.abs((b.points[k]?.y ?? Number.NaN) - wanted.y)).toBeLessThanOrEqual(0.5e-4 + 1e-9);
      });
      expect(b.speedMmPerS).toBeCloseTo(settings.speedMmPerS, 4);
      expect(b.power).toBeCloseTo(settings.powerPct * 10, 4);
      expect(b.scan).toEqual(settings.scan);
    });
  });

  it("solves what was read, shows every sum, and freezes its outcome", () => {
    const outcome = procedure.solve(historyFor(procedure, machine, ["measure"]));
    expect(outcomeSchema.parse(JSON.parse(JSON.stringify(outcome)))).toEqual(outcome);
    if (outcome.status !== "solved") throw new Error(outcome.status);
    expect(outcome.complete).toBe(true);
    expect(outcome.corrections.length + outcome.adjustments.length + (outcome.forStock ? 1 : 0)).toBeGreaterThan(0);
    // What is done stock by stock keeps something of it, with its sum.
    expect(outcome.forStock !== undefined).toBe(procedure.stock !== undefined);
    if (outcome.forStock) {
      expect(outcome.forStock.stock).toBe(form.defaults[procedure.stock?.field ?? ""]);
      expect(outcome.forStock.arithmetic.length).toBeGreaterThan(0);
      // A marking setting may be exact, as it was burned; nothing else is, and not all of it.
      const isSetting = (id: string) => CELL_SETTING_KEYS.some((key) => key === id);
      const { values } = outcome.forStock;
      for (const { id, quantity } of values)
        if (!isSetting(id)) expect(quantity.standardUncertainty).toBeGreaterThan(0);
      expect(values.some((v) => v.quantity.standardUncertainty > 0)).toBe(true);
    }
    for (const correction of outcome.corrections) {
      expect(procedure.settings.map((s) => s.key)).toContain(correction.setting);
      expect(procedure.sets(form.defaults, machine)).toContain(correction.setting);
      for (const row of correction.rows) {
        expect(row.arithmetic.length).toBeGreaterThan(0);
        expect(row.enter - row.rounding - (row.old ?? 0)).toBeCloseTo(row.change.value, 9);
        // A switch is on or off: nothing of it is uncertain.
        const isSwitch = UNITS[correction.unit].dimension === "switch";
        expect(row.change.standardUncertainty > 0).toBe(!isSwitch);
      }
    }
  });

  it("asks for a proof, judges it, and stops", () => {
    const measured = historyFor(procedure, machine, ["measure"]);
    expect(procedure.judge(measured)).toBeNull();
    expect(procedure.next(measured, procedure.solve(measured))).toMatchObject({ do: "round", purpose: "proof" });
    const verdict = procedure.judge(historyFor(procedure, machine, ["measure", "proof"]));
    expect(verdictSchema.parse(JSON.parse(JSON.stringify(verdict)))).toEqual(verdict);
  });

  it("proves nothing that was not measured in the proof", () => {
    // Anything measured is good enough here: what decides is whether it was measured.
    const whole = { ...historyFor(procedure, machine, ["measure", "proof"]), tolerance: 1e9 };
    const judged = procedure.judge(whole);
    expect(judged?.result, JSON.stringify(judged)).toBe("proved");
    const proof = whole.rounds[1] as History["rounds"][number];
    const withAnswers = (answers: readonly Answer[]) =>
      procedure.judge({ ...whole, rounds: [...whole.rounds.slice(0, 1), { ...proof, answers }] });
    for (const { id } of proof.spec.sites) {
      expect(withAnswers(proof.answers.filter((a) => a.site !== id))?.result ?? "none", id).not.toBe("proved");
      const [kind] = id.split(/[ -]/);
      const given = proof.answers.map((a): Answer => {
        const isGivenUp = a.site.split(/[ -]/)[0] === kind;
        return isGivenUp ? { ...a, content: { status: "cannot read", why: "burned away" } } : a;
      });
      const partly = withAnswers(given);
      if ((partly?.lines.length ?? 0) < (judged?.lines.length ?? 0))
        expect(partly?.result ?? "none", id).not.toBe("proved");
    }
  });

  it("gives no certainty to what was left out: readings of a point, or all of them", () => {
    const history = historyFor(procedure, machine, ["measure"]);
    const [round] = history.rounds;
    const model = round && procedure.observe?.(history, round);
    const readings = model?.observations.flatMap((o) => (o.reading ? [o] : [])) ?? [];
    const points = [...new Set(readings.map((o) => o.reading?.point))];
    for (const left of [...points.map((p) => readings.filter((o) => o.reading?.point === p)), readings]) {
      const decisions = Object.fromEntries(left.map((o) => [leaveOut(o.id).key, "yes"]));
      const outcome = procedure.solve({ ...history, decisions });
      for (const estimate of outcome.status === "solved" ? outcome.estimates : [])
        expect(estimate.quantity.standardUncertainty, estimate.label).toBeGreaterThan(0);
      procedure.next({ ...history, decisions }, outcome);
      procedure.judge({ ...history, decisions });
    }
  });

  it("answers an empty history with what is missing, and draws every site", () => {
    const history = historyFor(procedure, machine, ["measure"]);
    const unread = { ...history, rounds: history.rounds.map((r) => ({ ...r, answers: [] })) };
    expect(procedure.solve(unread)).toMatchObject({ status: "open" });
    for (const site of spec.sites) expect(procedure.detail(history, { site: site.id, typed: null })).not.toBeNull();
    expect(Array.isArray(procedure.overlay(history))).toBe(true);
  });
});

/** Any answer that the question takes, however unlikely. */
function anyValue({ ask }: Site, random: Random): AnswerValue {
  const size = (most: number) => {
    const wild = random.even();
    if (wild < 0.1) return 0;
    return wild < 0.4 ? most * random.even() : most * 10 ** random.between(-5, 1.5);
  };
  const one = <T>(of: readonly T[]) => of[Math.floor(random.even() * of.length)] as T;
  switch (ask.kind) {
    case "quantity":
      return {
        kind: "quantity",
        value:
          (ask.signedBy || ask.atMachine) && random.even() < 0.4 ? -size(ask.plausibleUpTo) : size(ask.plausibleUpTo),
      };
    case "count":
      return { kind: "count", value: Math.floor(random.even() * (ask.most + 1)) };
    case "ordinal":
      return { kind: "ordinal", category: one(ask.categories) };
    case "choice":
      return { kind: "choice", option: one(ask.options).id };
    case "cells": {
      const count = ask.mode === "one" ? 1 : 1 + Math.floor(2 * random.even());
      return { kind: "cells", cells: Array.from({ length: count }, () => one(ask.cells).id) };
    }
    case "pair":
      return { kind: "pair", first: size(50), second: size(50) };
    case "points":
      return { kind: "points", points: ask.nominal.map((p) => ({ x: p.x + size(9), y: p.y - size(9) })) };
    case "comparison":
      return { kind: "comparison", better: one(ask.cells).id, worse: one(ask.cells).id, alike: random.even() < 0.3 };
    case "scores":
      return { kind: "scores", scores: ask.cells.map(() => (random.even() < 0.1 ? null : size(1))) };
    case "vector":
      return { kind: "vector", x: size(5), y: -size(5) };
  }
}

/** Every site read at random, some not at all, some given up, some over and over the same. */
function anyAnswers(sites: readonly Site[], random: Random): Answer[] {
  return sites.flatMap((site) => {
    const often = random.even() < 0.15 ? 0 : 1 + Math.floor(site.repeats * random.even());
    return Array.from({ length: often }, (): Answer => {
      const common = {
        site: site.id,
        u: null,
        gauge: GAUGE.id,
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed" as const,
      };
      if (random.even() < 0.05) return { ...common, content: { status: "cannot read", why: "lost" } };
      return { ...common, content: { status: "read", value: anyValue(site, random) } };
    });
  });
}

/** The usual plan, and with each other choice that goes together with the rest of it. */
function everyWay(procedure: AnyProcedure, machine: MachineSpec): unknown[] {
  const form = procedure.plan(contextOn(machine));
  const usual = draftOf(form, form.defaults);
  const others = form.fields.flatMap((field) =>
    field.kind === "choice" ? field.options.map(({ value }) => readDraft(form, { ...usual, [field.key]: value })) : [],
  );
  const plans = [form.defaults, ...others.flatMap((read) => (read.ok ? [read.plan] : []))];
  return [...new Map(plans.map((plan) => [JSON.stringify(plan), plan])).values()];
}

/** A response takes longer to fit than all else. */
const SEEDS = { usual: 8, response: 2 };

describe.each(EACH)("%s on a %s, read at random", (_id, _kind, procedure, machine) => {
  it.each(everyWay(procedure, machine).map((plan, i) => [i, plan] as const))(
    "never throws, and says nothing that is no number: plan %i",
    (_i, plan) => {
      for (let seed = 1; seed <= (procedure.edges ? SEEDS.response : SEEDS.usual); seed++) {
        const random = seeded(7919 * seed);
        const whole = historyFor(procedure, machine, ["measure", "proof"], plan);
        const rounds = whole.rounds.map((r) => ({ ...r, answers: anyAnswers(r.spec.sites, random) }));
        for (const history of [
          { ...whole, rounds: rounds.slice(0, 1) },
          { ...whole, rounds },
        ]) {
          const outcome = procedure.solve(history);
          // What is no number becomes null on its way to the disk.
          expect(outcomeSchema.parse(JSON.parse(JSON.stringify(outcome))), `seed ${seed}`).toEqual(outcome);
          const verdict = procedure.judge(history);
          if (verdict)
            expect(verdictSchema.parse(JSON.parse(JSON.stringify(verdict))), `seed ${seed}`).toEqual(verdict);
          procedure.next(history, outcome);
          procedure.overlay(history);
          for (const { id } of history.rounds.at(-1)?.spec.sites ?? []) {
            procedure.expected(history, id);
            procedure.detail(history, { site: id, typed: random.even() });
          }
        }
      }
    },
  );
});

describe("the registry", () => {
  it("finds procedures by id and kind, and lists no made-up one", () => {
    expect(procedureById("scan-offset").title).toBe("Scan offset");
    expect(proceduresFor("galvo").map((p) => p.id)).toEqual([
      "orientation",
      "focus",
      "field",
      "head-turn",
      "test-array",
      "ramp",
      "rotary",
      "bed-tilt",
    ]);
    expect(PROCEDURES.map((p) => p.id)).not.toContain("made-up");
    expect(() => procedureById("nothing")).toThrow(/no procedure/);
  });

  it("uses every kind of ask in the made-up procedure", () => {
    const asks = madeUp.round({ sizeMm: 20 }, contextOn(SAMPLE_MACHINE), "measure").sites.map((s) => s.ask.kind);
    expect([...asks].sort()).toEqual([
      "cells",
      "choice",
      "comparison",
      "count",
      "ordinal",
      "pair",
      "points",
      "quantity",
      "scores",
      "vector",
    ]);
  });
});
