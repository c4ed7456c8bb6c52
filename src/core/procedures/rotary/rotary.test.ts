/** Check values as methods has them; sums by hand. (common practice, no source) */

import { describe, expect, it } from "vitest";
import { planWith } from "../../../testing/plan-with";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { beforeBurn } from "../../coupon/checklist";
import { rotaryOf } from "../../machine/part-spec";
import type { Gauge } from "../../metrology/gauge";
import type { SettingsInForce } from "../../settings/setting";
import type { Answer, AnswerValue } from "../../trial/answer";
import { PLAIN_SHARES } from "../../trial/answer";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import type { RotaryPlan } from "./plan";
import { planWarnings, rotaryPlan } from "./plan-faults";
import { rotary } from "./procedure";
import { observeTravel, readTravel, slipShare, slips } from "./read-travel";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "./setting";
import { SITES, type SiteId, travelOf } from "./travel";

const CALIPERS: Gauge = {
  id: "calipers",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0.02,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};
const ROLLER = rotaryOf({
  label: "Roller drive",
  drive: "roller",
  thinnestMm: 10,
  thickestMm: 100,
  rollerDiameterMm: 20,
  motorSteps: 200,
  microsteps: 16,
  ratio: 7.8125,
  setAside: ["limits", "scale"],
});
const context = (more: Partial<PlanContext> = {}): PlanContext => ({
  machine: SAMPLE_MACHINE,
  couponCode: "T-1",
  inForce: {},
  gauges: [CALIPERS],
  rotary: ROLLER,
  tolerance: 0.003,
  ...more,
});
const planned = (changes: Partial<RotaryPlan> = {}): RotaryPlan => planWith(rotaryPlan(context()), changes);

const HELD: SettingsInForce = {
  [ROTARY_STEPS]: { shape: "scalar", value: 10_000 },
  [ROLLER_DIAMETER]: { shape: "scalar", value: 20 },
};

type Said = Partial<Record<SiteId, number | string>>;

function roundWith(plan: RotaryPlan, said: Said, inForce = HELD, n = 1): RoundRecord<RotaryPlan> {
  const spec = rotary.round(plan, context(), n === 1 ? "measure" : "proof");
  const answers = spec.sites.flatMap((site) => {
    const value = said[site.id as SiteId];
    if (value === undefined) return [];
    const content: Answer["content"] =
      value === "hidden"
        ? { status: "cannot read", why: "They lie on each other." }
        : { status: "read", value: answerOf(site.ask.kind, value) };
    const answer: Answer = {
      site: site.id,
      content,
      u: null,
      gauge: "calipers",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    };
    return Array.from({ length: site.repeats }, () => answer);
  });
  return { n, purpose: n === 1 ? "measure" : "proof", plan, spec, inForce, answers };
}

function answerOf(kind: string, value: number | string): AnswerValue {
  if (typeof value === "string") return { kind: "choice", option: value };
  return kind === "count" ? { kind: "count", value } : { kind: "quantity", value };
}

const history = (...rounds: RoundRecord<RotaryPlan>[]): History<RotaryPlan> => ({
  rounds,
  gauges: [CALIPERS],
  available: [CALIPERS],
  machine: SAMPLE_MACHINE,
  tolerance: 0.003,
  decisions: {},
});

function solved(plan: RotaryPlan, said: Said, inForce = HELD) {
  const outcome = rotary.solve(history(roundWith(plan, said, inForce)));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  const [correction] = outcome.corrections;
  return { outcome, correction, findings: outcome.findings.map((f) => f.id) };
}

const SPAN = planned({ way: "span", spanMm: 100, tapeMm: 0 });
const WRAP = planned({ diameterMm: 60 });
const RIGHT = { [SITES.words]: "drawn", [SITES.turns]: 0, [SITES.back]: 0 };

describe("how far a part travels", () => {
  it("10,000 held where 25,000 is true: 100 mm come out as 40, and one step makes it right", () => {
    const { correction } = solved(SPAN, { ...RIGHT, [SITES.span]: 40 });
    expect(correction?.setting).toBe(ROTARY_STEPS);
    expect(correction?.newValue).toEqual({ shape: "scalar", value: 25_000 });
    expect(correction?.rows[0]?.arithmetic.join("\n")).toContain("10000.0 ÷ 0.40000 = 25000.0 steps");
  });

  it("counts whole turns in that were too many", () => {
    const around = Math.PI * 60;
    expect(travelOf(SPAN, { [SITES.span]: 250 - around, [SITES.turns]: 1 })?.travelled).toBeCloseTo(250, 9);
    const { correction, findings } = solved(SPAN, { ...RIGHT, [SITES.span]: 250 - around, [SITES.turns]: 1 });
    expect(correction?.newValue).toEqual({ shape: "scalar", value: 4000 });
    expect(findings).toContain("turns");
  });

  it("off by less than 5 % it is the roller, by more the steps, and whichever is known where one is", () => {
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 98 }).correction).toMatchObject({
      setting: ROLLER_DIAMETER,
      newValue: { shape: "scalar", value: 19.6 },
    });
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 94 }).correction?.setting).toBe(ROTARY_STEPS);
    const steps = { ...HELD, [ROLLER_DIAMETER]: null };
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 98 }, steps).correction).toMatchObject({
      setting: ROTARY_STEPS,
      newValue: { shape: "scalar", value: 10_204 },
    });
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 98 }, {}).findings).toContain("not read back");
  });

  it("a gap between facing edges is a line wider from middle to middle; an overlap likewise on the other side", () => {
    const around = Math.PI * 60;
    const read = { [SITES.marked]: 60, [SITES.width]: 0.2 };
    expect(travelOf(WRAP, { ...read, [SITES.gap]: 1.8 })?.travelled).toBeCloseTo(around - 2, 9);
    expect(travelOf(WRAP, { ...read, [SITES.gap]: -1.8 })?.travelled).toBeCloseTo(around + 2, 9);
    expect(travelOf(WRAP, read)).toBeNull();
    expect(travelOf(WRAP, read, true)?.travelled).toBeCloseTo(around, 9);
  });

  it("takes out what a tape adds: laid flat it is as long as its middle was around the part", () => {
    const taped = planned({ way: "span", spanMm: 80, tapeMm: 0.3 });
    // On a part of 60 mm the middle of the tape lies on a diameter of 60.3.
    const { outcome } = solved(taped, { ...RIGHT, [SITES.span]: (80 * 60.3) / 60 });
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(0, 9);
    const bare = solved(planned({ way: "span", spanMm: 80, tapeMm: 0 }), { ...RIGHT, [SITES.span]: (80 * 60.3) / 60 });
    expect(bare.outcome.estimates[0]?.quantity.value).toBeCloseTo(0.005, 9);
    const part = outcome.estimates[0]?.budget.find((p) => p.id === "tape");
    expect(part?.standardUncertainty).toBeCloseTo((0.5 * 0.3) / 60 / Math.sqrt(3), 5);
  });

  it("is told by layers of the tape how thick it is, and names a thickness that was typed wrong", () => {
    const taped = planned({ way: "span", spanMm: 80, tapeMm: 0.3 });
    const read = { ...RIGHT, [SITES.span]: (80 * 60.3) / 60 };
    const { outcome } = solved(taped, { ...read, [SITES.tape]: 5 * 0.3 });
    // Calipers over five layers know it far better than the half of it that is said of a typed one.
    const part = outcome.estimates[0]?.budget.find((p) => p.id === "tape");
    expect(part?.standardUncertainty ?? 0).toBeLessThan((0.1 * 0.3) / 60);
    expect(outcome.findings.filter((f) => f.suspect)).toEqual([]);
    // A little thicker than typed: the surface went less far, by 0.05 mm of 60.
    const thicker = solved(taped, { ...read, [SITES.tape]: 5 * 0.35 }).outcome;
    expect(thicker.estimates[0]?.quantity.value).toBeCloseTo(-0.05 / 60, 4);
    // Wrong by three times the half that is said of it.
    const wrong = solved(taped, { ...read, [SITES.tape]: 5 * 0.75 }).outcome;
    const named = wrong.findings.filter((f) => f.suspect).map((f) => `${f.headline} ${f.text}`);
    expect(named.join(" ")).toMatch(/thickness of the tape/i);
  });

  it("names a chord that was measured for an arc", () => {
    // 2 r sin(s / 2 r) with s = 80 and r = 30 mm.
    const chord = 60 * Math.sin(80 / 60);
    const { findings } = solved(planned({ way: "span", spanMm: 80, tapeMm: 0 }), { ...RIGHT, [SITES.span]: chord });
    expect(findings).toContain("chord");
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 99 }).findings).not.toContain("chord");
  });

  it("the uncertainty of the diameter enters a wrap pi times", () => {
    const { outcome } = solved(WRAP, { ...RIGHT, [SITES.gap]: 1.8, [SITES.width]: 0.2, [SITES.marked]: 60 });
    const part = outcome.estimates[0]?.budget.find((p) => p.id.startsWith("placing size"));
    const scatter = outcome.estimates.find((e) => e.id === "marked")?.budget.find((p) => p.id.startsWith("placing"));
    const u = scatter?.standardUncertainty ?? Number.NaN;
    expect(part?.standardUncertainty).toBeCloseTo((Math.PI * u) / (Math.PI * 60), 7);
  });

  it("in a chuck a part that is thicker than it was told leaves the steps alone, and is said", () => {
    const chuck = planned({ drive: "chuck", way: "span", spanMm: 100, tapeMm: 0, runoutMm: 0 });
    const { outcome, findings } = solved(chuck, { ...RIGHT, [SITES.span]: 102, [SITES.marked]: 61.2 });
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(0, 9);
    expect(findings).toContain("told");
  });

  it("a neck takes a factor of its own, for this part alone", () => {
    const neck = planned({ way: "span", spanMm: 50, tapeMm: 0, rests: "other", diameterMm: 40, restsOnMm: 80 });
    const said = { ...RIGHT, [SITES.span]: 25, [SITES.marked]: 40, [SITES.resting]: 80 };
    const { outcome, correction, findings } = solved(neck, said);
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(0, 9);
    expect(correction?.rows[0]?.worth).toBe("cannot tell");
    expect(outcome.estimates.find((e) => e.id === "part factor")?.quantity.value).toBeCloseTo(2, 9);
    expect(findings).toContain("neck");
  });

  it("says how it compares to its motor, driver and gear", () => {
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 40 }).findings).toContain("as described");
    expect(solved(SPAN, { ...RIGHT, [SITES.span]: 80 }).findings).toContain("not as described");
  });

  it("an error proved away is proved; a mirrored one is not, however long it is", () => {
    const first = roundWith(SPAN, { ...RIGHT, [SITES.span]: 40 });
    const proof = (words: string) => roundWith(SPAN, { ...RIGHT, [SITES.words]: words, [SITES.span]: 100 }, HELD, 2);
    expect(rotary.judge(history(first, proof("drawn")))).toMatchObject({ result: "proved" });
    const mirrored = rotary.judge(history(first, proof("mirrored")));
    expect(mirrored?.result).toBe("not proved");
    expect(mirrored?.findings.map((f) => f.id)).toContain("wrong way");
    const slipped = roundWith(SPAN, { ...RIGHT, [SITES.span]: 100, [SITES.back]: 2 }, HELD, 2);
    const verdict = rotary.judge(history(first, slipped));
    expect(verdict?.result).toBe("proved");
    expect(verdict?.findings.map((f) => f.id)).toEqual(["slips"]);
  });
});

describe("readings that cannot be", () => {
  const reasonOf = (plan: RotaryPlan, said: Said) => {
    const outcome = rotary.solve(history(roundWith(plan, said)));
    return outcome.status === "unsolvable" ? outcome.reason : outcome.status;
  };
  const wrap = { ...RIGHT, [SITES.gap]: 1, [SITES.width]: 0.2 };

  it("no travel, and travel past the beginning backwards", () => {
    expect(reasonOf(SPAN, { ...RIGHT, [SITES.span]: 0.1 })).toMatch(/did not turn.*plugged in/);
    expect(reasonOf(WRAP, { ...wrap, [SITES.gap]: 200, [SITES.marked]: 60 })).toMatch(/wrong way/);
    const traced = planned({ way: "traced", spanMm: 80, tapeMm: 0 });
    const still = { [SITES.line]: 80, [SITES.first]: 12.4, [SITES.second]: 12.4 };
    expect(reasonOf(traced, still)).toMatch(/same at both ends.*plugged in/);
    expect(reasonOf(traced, { ...still, [SITES.second]: 12.7 })).toMatch(/same at both ends.*plugged in/);
  });

  it("a size around, a radius, an inch", () => {
    expect(reasonOf(WRAP, { ...wrap, [SITES.marked]: 188.5 })).toMatch(/circumference, not the diameter/);
    expect(reasonOf(WRAP, { ...wrap, [SITES.marked]: 30 })).toMatch(/radius/);
    expect(reasonOf(WRAP, { ...wrap, [SITES.marked]: 2.36 })).toMatch(/25.4/);
    expect(reasonOf(planned({ sizedBy: "around" }), { ...wrap, [SITES.marked]: 60 })).toMatch(
      /diameter, not the circumference/,
    );
  });

  it("factors that say what is wrong", () => {
    const text = (span: number) =>
      solved(SPAN, { ...RIGHT, [SITES.span]: span }).outcome.findings.find((f) => f.id === "factor")?.text;
    expect(text(100 / Math.PI)).toMatch(/pi/);
    expect(text(100 / 25.4)).toMatch(/25.4/);
    expect(text(50)).toMatch(/microsteps/);
    expect(text(97)).toBeUndefined();
  });
});

describe("what is laid out", () => {
  const faults = (typed: Record<string, string>) => {
    const form = rotaryPlan(context());
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...typed });
    return read.ok ? {} : Object.fromEntries(read.issues.map((i) => [i.field, i.message]));
  };

  it("refuses what the drive does not take, and guesses what was typed", () => {
    expect(faults({ diameterMm: "188.5" }).diameterMm).toMatch(/between 10 and 100 mm.*circumference/);
    expect(faults({ diameterMm: "2.4" }).diameterMm).toMatch(/inch size/);
    expect(faults({ diameterMm: "8" }).diameterMm).toMatch(/radius/);
    expect(faults({ rests: "other", restsOnMm: "120" }).restsOnMm).toMatch(/does not fit Roller drive/);
    expect(faults({ diameterMm: "flat" }).diameterMm).toBeDefined();
  });

  it("refuses a line that runs over its own beginning, or past the gauge or the bed", () => {
    expect(faults({ way: "span", spanMm: "190" }).spanMm).toMatch(/188\.5 mm.*at most 169 mm/);
    expect(faults({ way: "span", spanMm: "160" }).spanMm).toMatch(/at most 150 mm/);
    expect(faults({ beginsAtMm: "880" }).beginsAtMm).toMatch(/working area of 900 mm/);
  });

  it("warns of tape beyond half a turn, and of a rotary that nobody described", () => {
    const span = { ...rotaryPlan(context()).defaults, way: "span", spanMm: 120, tapeMm: 0.1 } as const;
    expect(planWarnings(span, context()).map((w) => w.field)).toContain("spanMm");
    expect(planWarnings(span, { ...context(), rotary: undefined }).map((w) => w.field)).toContain("rotary");
    expect(planWarnings({ ...span, spanMm: 60 }, context({ tolerance: 1 }))).toEqual([]);
    const swapped = { ...ROLLER, label: "Another" };
    expect(planWarnings({ ...span, spanMm: 60 }, context({ rotary: swapped, tolerance: 1 }))).toEqual([
      { field: "rotary", message: "Another is fitted now. Choose it, or fit Roller drive again." },
    ]);
  });

  it("lists what is set aside for it, with the setting that is put back from the ledger", () => {
    expect(rotary.round(planned(), context(), "measure").setAside).toEqual([
      {
        what: "the travel limits of Y are off",
        act: "Switch off the travel limits of Y for this burn. Switch them on again afterwards.",
      },
      {
        what: "the axis scale of Y is set for the rotary",
        setting: "axis scale y",
        act: "Write down the axis scale of Y. Set it for the rotary. Restore it after this burn.",
      },
    ]);
    expect(beforeBurn(rotary.round(planned(), context(), "measure")).slice(0, 2)).toEqual([
      "Switch off the travel limits of Y for this burn. Switch them on again afterwards.",
      "Write down the axis scale of Y. Set it for the rotary. Restore it after this burn.",
    ]);
  });

  it("turns the drawing where the part lies along Y, without mirroring it", () => {
    const at = (plan: RotaryPlan) => rotary.round(plan, context(), "measure").pieces[0];
    const [y, x] = [at(planned()), at(planned({ replaces: "x" }))];
    expect([x?.widthMm, x?.heightMm]).toEqual([y?.heightMm, y?.widthMm]);
    const turn = (points: readonly { x: number; y: number }[] = []) => {
      const [a, b, c] = points as [{ x: number; y: number }, { x: number; y: number }, { x: number; y: number }];
      return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
    };
    const bent = y?.paths.findIndex((p) => p.points.length > 2 && turn(p.points) !== 0) ?? -1;
    expect(Math.sign(turn(x?.paths[bent]?.points))).toBe(Math.sign(turn(y?.paths[bent]?.points)));
  });
});

it("the uncertainty of the grip is of rollers alone: 0.2 mm a metre of travel", () => {
  const gripIn = (plan: RotaryPlan) =>
    solved(plan, { ...RIGHT, [SITES.span]: 98, [SITES.marked]: 60 }).outcome.estimates[0]?.budget.find(
      (p) => p.id === "grip",
    )?.standardUncertainty ?? 0;
  expect(gripIn(SPAN)).toBeCloseTo(0.0002 * 0.98, 9);
  expect(gripIn(planned({ drive: "chuck", way: "span", spanMm: 100, tapeMm: 0, runoutMm: 0 }))).toBe(0);
});

it("it slips where it came back off its place on either side, beyond its interval", () => {
  // t at 95 % and 5 degrees of freedom is 2.571 (Student's table).
  const off = (value: number) => ({
    back: { quantity: { value, standardUncertainty: 0.01, degreesOfFreedom: 5 }, parts: [] },
  });
  expect([-0.026, -0.025, 0.025, 0.026].map((mm) => slips(off(mm)))).toEqual([true, false, false, true]);
  expect(slips({ back: null })).toBe(false);
});

it("slip is a share of the way there and back", () => {
  const back = { quantity: { value: -0.2, standardUncertainty: 0.01, degreesOfFreedom: 5 }, parts: [] };
  expect(slipShare({ back, travelled: 100 })).toBeCloseTo(0.001, 12);
  expect(slipShare({ back: null, travelled: 100 })).toBe(0);
});

describe("what a rotary is expected to read", () => {
  it("is the size as it was laid out, once around where a tape measures it, before anything is read", () => {
    const at = (plan: RotaryPlan, site: SiteId, said: Said = {}) =>
      rotary.expected(history(roundWith(plan, said)), site);
    expect(at(WRAP, SITES.marked)?.value).toBe(60);
    expect(at({ ...WRAP, sizedBy: "around" }, SITES.marked)?.value).toBeCloseTo(60 * Math.PI, 9);
    expect(at(SPAN, SITES.span)?.value).toBe(100);
    expect(at(SPAN, SITES.back)).toBeNull();
  });

  it("is the size that was read, once it was, and not a sum of both", () => {
    const said = { [SITES.marked]: 59.4, [SITES.gap]: 1, [SITES.width]: 0.2, ...RIGHT };
    const expected = rotary.expected(history(roundWith(WRAP, said)), SITES.marked);
    expect(expected?.value).toBeCloseTo(59.4, 2);
    const model = observeTravel(history(roundWith(WRAP, said)), roundWith(WRAP, said));
    const usual = model?.observations.find((o) => o.isUsual && o.row[SITES.marked]);
    // As a change from what was read: laid out 60, read 59.4, known to a mm.
    expect(usual?.y).toBeCloseTo(0.6, 9);
    expect(usual?.u).toBe(1);
  });
});

describe("a traced line that is gone back to", () => {
  it("is off by what the readout says, known to a step of it and a dot, twice each", () => {
    const plan = planned({ way: "traced", drive: "chuck", spanMm: 80, tapeMm: 0, readoutStepMm: 0.1, dotMm: 0.2 });
    const said = { [SITES.marked]: 60, [SITES.line]: 80, [SITES.first]: 10, [SITES.second]: 90, [SITES.again]: 10.6 };
    const round = roundWith(plan, { ...RIGHT, ...said });
    const back = readTravel(history(round), round)?.back;
    expect(back?.quantity.value).toBeCloseTo(0.6, 9);
    expect(back?.parts.map((p) => p.id)).toEqual(["readout"]);
    // Two readouts on a line of 80 mm: u^2 = 2 (0.1^2/12 + 0.2^2/3) / 80^2
    const readout = readTravel(history(round), round)?.ratio.parts.find((p) => p.id === "readout");
    expect((readout?.standardUncertainty ?? 0) ** 2).toBeCloseTo((2 * (0.01 / 12 + 0.04 / 3)) / 80 ** 2, 9);
    // u^2 = 2 (0.1^2/12 + 0.2^2/3)
    expect((back?.quantity.standardUncertainty ?? 0) ** 2).toBeCloseTo(2 * (0.01 / 12 + 0.04 / 3), 12);
  });
});

describe("a chuck that runs out", () => {
  it("carries the surface sideways by the sine of half the angle: 0.1 mm up and down over 100 mm of a part of 60 mm", () => {
    const plan = planned({ way: "span", drive: "chuck", spanMm: 100, tapeMm: 0, runoutMm: 0.1 });
    const round = roundWith(plan, { ...RIGHT, [SITES.marked]: 60, [SITES.span]: 100 });
    const parts = readTravel(history(round), round)?.ratio.parts ?? [];
    // sqrt(2) * 0.05 * sin(100/60) mm of 100 mm
    const expected = (Math.SQRT2 * 0.05 * Math.sin(100 / 60)) / 100;
    expect(parts.find((p) => p.id === "runout")?.standardUncertainty).toBeCloseTo(expected, 9);
  });
});
