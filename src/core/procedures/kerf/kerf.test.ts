import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../../../testing/sample-machine";
import { opticOf } from "../../machine/part-spec";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { MM_PER_INCH } from "../../metrology/units";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { PlanContext } from "../../trial/plan-form";
import { leftIn } from "./found";
import { cellsOf, columnsOf, matesNeed } from "./layout";
import { mateShape } from "./mate-shapes";
import { mateText } from "./mate-text";
import { clearanceOf, isMateWay, type KerfPlan, offsetsOf } from "./plan";
import { kerfPlan, planWarnings } from "./plan-faults";
import { kerf } from "./procedure";
import { observeCuts, readCuts } from "./read-cuts";
import { FITS, mateSite, squareSites } from "./sites";

const CALIPERS: Gauge = gaugeAsUsual("calipers");
const CONTEXT: PlanContext = {
  machine: SAMPLE_MACHINE,
  couponCode: "T-1",
  inForce: {},
  gauges: [CALIPERS],
  stocks: [SAMPLE_STOCK],
};

function planOf(changes: Partial<KerfPlan>, context = CONTEXT): KerfPlan {
  const form = kerfPlan(context);
  const read = readDraft(form, draftOf(form, { ...form.defaults, knownMm: 0, ...changes }));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.plan;
}

function faultsOf(changes: Partial<KerfPlan>, context = CONTEXT): Record<string, string> {
  const form = kerfPlan(context);
  const read = readDraft(form, draftOf(form, { ...form.defaults, knownMm: 0, ...changes }));
  return read.ok ? {} : Object.fromEntries(read.issues.map((i) => [i.field, i.message]));
}

function answer(site: string, value: number | string | null): Answer {
  return {
    site,
    u: null,
    gauge: "calipers",
    session: "1",
    shares: PLAIN_SHARES,
    from: "typed",
    content:
      value === null
        ? { status: "cannot read", why: "lost" }
        : {
            status: "read",
            value: typeof value === "number" ? { kind: "quantity", value } : { kind: "ordinal", category: value },
          },
  };
}

function roundOf(
  plan: KerfPlan,
  values: (site: string) => number | string | null | undefined,
  n = 1,
): RoundRecord<KerfPlan> {
  const purpose = n === 1 ? "measure" : "proof";
  const spec = kerf.round(plan, CONTEXT, purpose);
  const answers = spec.sites.flatMap((s) => {
    const value = values(s.id);
    return value === undefined ? [] : Array.from({ length: s.repeats }, () => answer(s.id, value));
  });
  return { n, purpose, plan, spec, inForce: {}, answers };
}

function historyOf(...rounds: RoundRecord<KerfPlan>[]): History<KerfPlan> {
  return {
    rounds,
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine: SAMPLE_MACHINE,
    tolerance: 0.02,
    decisions: {},
  };
}

function solved(outcome: Outcome) {
  if (outcome.status !== "solved") throw new Error(`${outcome.status} ${"reason" in outcome ? outcome.reason : ""}`);
  return outcome;
}

const estimate = (outcome: Outcome, id: string) =>
  solved(outcome).estimates.find((e) => e.id === id)?.quantity.value ?? Number.NaN;
const sizes = (part: number, hole: number) => (site: string) => (site.startsWith("part") ? part : hole);
/** Fits of mates from the first to the last. */
const fits = (plan: KerfPlan, letters: string) => (site: string) => {
  const index = offsetsOf(plan).findIndex((_, i) => mateSite(i) === site);
  const letter = letters[index];
  return letter === "-" ? null : FITS["lsntw".indexOf(letter ?? "l")];
};

describe("kerf from what was cut out", () => {
  it("is nominal minus measured of a part: 1.000 in cut to 0.992 in leaves 0.008 in (common practice, no source)", () => {
    const plan = planOf({ way: "part", sideMm: MM_PER_INCH });
    const outcome = kerf.solve(historyOf(roundOf(plan, () => 0.992 * MM_PER_INCH)));
    expect(estimate(outcome, "kerf") / MM_PER_INCH).toBeCloseTo(0.008, 6);
    expect(estimate(outcome, "offset") / MM_PER_INCH).toBeCloseTo(0.004, 6);
    expect(solved(outcome).findings.map((f) => f.id)).toContain("scale");
  });

  it("falls apart into kerf and scale by part and hole: s = (o + h)/2N, k = (h - o)/2", () => {
    const plan = planOf({});
    const outcome = kerf.solve(historyOf(roundOf(plan, sizes(40 * 1.002 - 0.16, 40 * 1.002 + 0.16))));
    expect(estimate(outcome, "kerf")).toBeCloseTo(0.16, 5);
    expect(estimate(outcome, "scale x")).toBeCloseTo(0.002, 5);
    expect(solved(outcome).forStock?.values.map((v) => v.id)).toEqual(["kerf", "offset", "kerf x", "kerf y"]);
    expect(solved(outcome).forStock?.arithmetic.join("; ")).toMatch(/÷ 2 = 0\.160 mm.*correlated with the kerf by/);
  });

  it("is kept with everything that it belongs to", () => {
    const optic = opticOf({ label: "50.8" });
    const plan = planOf({ gas: "nitrogen", focusBelowMm: 1.5, passes: 2 }, { ...CONTEXT, optic });
    const kept = solved(kerf.solve(historyOf(roundOf(plan, sizes(39.84, 40.16))))).forStock?.conditions;
    expect(Object.fromEntries(kept?.map((c) => [c.label, c.text]) ?? [])).toEqual({
      Stock: "Test sheet, batch 1",
      Thickness: "3 mm (2.97 to 3.03)",
      Machine: "Testbed",
      Optic: "50.8",
      Speed: "10 mm/s",
      Power: "60 %",
      Passes: "2",
      Gas: "nitrogen",
      Focus: "1.5 mm below the top face",
    });
  });

  it("is the same whatever the calipers always read too much, and surer so than from the part alone", () => {
    const both = solved(kerf.solve(historyOf(roundOf(planOf({}), sizes(39.84 + 0.02, 40.16 + 0.02)))));
    expect(estimate(both, "kerf")).toBeCloseTo(0.16, 6);
    const alone = solved(kerf.solve(historyOf(roundOf(planOf({ way: "part" }), () => 39.84))));
    const uncertainty = (o: typeof both) =>
      expandedUncertainty(o.estimates.find((e) => e.id === "kerf")?.quantity ?? never());
    expect(uncertainty(both)).toBeLessThan(uncertainty(alone) / 3);
  });

  it("tells X and Y apart, and says so", () => {
    const plan = planOf({});
    const outcome = solved(
      kerf.solve(
        historyOf(roundOf(plan, (s) => 40 + (s.startsWith("part") ? -1 : 1) * (s.includes(" x ") ? 0.2 : 0.12))),
      ),
    );
    expect(estimate(outcome, "kerf x")).toBeCloseTo(0.2, 6);
    expect(estimate(outcome, "kerf y")).toBeCloseTo(0.12, 6);
    expect(outcome.findings.find((f) => f.id === "apart")?.headline).toMatch(/along X is 0\.080 mm wider/);
  });

  it("counts every cut of a comb, the frame too", () => {
    const plan = planOf({ way: "comb", cuts: 10 });
    expect(estimate(kerf.solve(historyOf(roundOf(plan, () => 1.62))), "kerf")).toBeCloseTo(0.162, 6);
    const { paths } = kerf.round(plan, CONTEXT, "measure").pieces[0] ?? never();
    const open = paths.filter((p) => p.settings === "cut" && !p.closed);
    // Eight between the strips of each comb, and two sides of its frame.
    expect(open).toHaveLength(2 * 8);
    expect(paths.filter((p) => p.settings === "cut" && p.closed)).toHaveLength(2);
  });

  it("says how much narrower the cut is at the bottom, where both faces are read", () => {
    const plan = planOf({ faces: "both", way: "part" });
    const outcome = kerf.solve(historyOf(roundOf(plan, (s) => (s.endsWith("bottom") ? 39.87 : 39.84))));
    expect(estimate(outcome, "taper")).toBeCloseTo(0.03, 6);
    // The kerf itself goes by the top face.
    expect(estimate(outcome, "kerf")).toBeCloseTo(0.16, 5);
  });

  it.each([
    [40 / MM_PER_INCH, /look like inches entered as mm/],
    [40 * MM_PER_INCH, /look 25\.4 times too large/],
  ])("names a slip of 25.4: %f", (size, words) => {
    const outcome = kerf.solve(historyOf(roundOf(planOf({ way: "part" }), () => size)));
    expect(outcome.findings[0]?.headline).toMatch(words);
  });

  it("waits for both part and hole", () => {
    const outcome = kerf.solve(historyOf(roundOf(planOf({}), (s) => (s.startsWith("part") ? 39.8 : undefined))));
    expect(outcome).toMatchObject({ status: "open", missing: "Measure part and hole along one axis." });
  });
});

describe("kerf from mates", () => {
  const plan = planOf({ way: "tongue and slot", repeats: 1 });

  it("has clearances of 2k - 4o, 2k - 2o on one mate alone, and N - T + k - 2o for the sheet", () => {
    expect(clearanceOf(plan)).toEqual({ atZero: 0, cuts: 2, perOffset: 4 });
    expect(clearanceOf({ ...plan, offsetOn: "inner" })).toEqual({ atZero: 0, cuts: 2, perOffset: 2 });
    const sheet = clearanceOf({ ...plan, way: "sheet slot", jointMm: 3.1 });
    expect(sheet.atZero).toBeCloseTo(0.1, 9);
    expect(sheet).toMatchObject({ cuts: 1, perOffset: 2 });
  });

  it("draws what it says: tongue wider and slot narrower by twice the offset", () => {
    const [, , cell] = cellsOf(plan);
    const [touching] = mateShape(plan, cell ?? never()).touching;
    const width = ({ from, to }: NonNullable<typeof touching>["outer"]) => middleX(to) - middleX(from);
    expect(width(touching?.outer ?? never())).toBeCloseTo(10 - 2 * 0.04, 9);
    expect(width(touching?.inner ?? never())).toBeCloseTo(10 + 2 * 0.04, 9);
  });

  it("is snug between the easier and the harder ones, and supposes a gap for the kerf alone", () => {
    const outcome = kerf.solve(historyOf(roundOf(plan, fits(plan, "lllssntwww"))));
    const snug = estimate(outcome, "snug offset");
    expect(snug).toBeGreaterThan(0.09);
    expect(snug).toBeLessThan(0.11);
    expect(estimate(outcome, "kerf")).toBeCloseTo((0.02 + 4 * snug) / 2, 9);
    expect(solved(outcome).forStock?.values.map((v) => v.id)).toEqual(["kerf", "offset", "snug offset"]);
  });

  it.each([
    ["lllssssnnn", "larger", 0.16],
    ["nntwwwwwww", "smaller", -0.16],
  ])("asks for more mates on the side where snug lies: %s", (letters, side, first) => {
    const history = historyOf(roundOf(plan, fits(plan, letters)));
    const outcome = kerf.solve(history);
    expect(outcome).toMatchObject({ status: "unsolvable", reason: expect.stringContaining(side) });
    const next = kerf.next(history, outcome);
    expect(next).toMatchObject({ do: "round", purpose: "refine" });
    if (next.do === "round") expect(next.plan.firstMm).toBeCloseTo(first, 9);
  });

  it("goes without mates that are lost", () => {
    const outcome = kerf.solve(historyOf(roundOf(plan, fits(plan, "ll-s-ntw-w"))));
    expect(solved(outcome).complete).toBe(true);
    expect(estimate(outcome, "snug offset")).toBeGreaterThan(0.08);
  });

  it("names the mates that contradict each other, and works out nothing from them", () => {
    const outcome = kerf.solve(historyOf(roundOf(plan, fits(plan, "lltslsntww"))));
    expect(outcome.status).toBe("unsolvable");
    if (outcome.status === "unsolvable") expect(outcome.reason).toMatch(/Pair 3 is tighter than pair [45]/);
    expect(outcome.findings.map((f) => f.site)).toContain(mateSite(2));
  });

  it("takes one that differs by a word where pairs are close, and names it where they are far apart", () => {
    const close = planOf({ way: "tongue and slot", repeats: 1, stepMm: 0.004 });
    const fine = kerf.solve(historyOf(roundOf(close, fits(close, "lllslsntww"))));
    expect(fine.status).toBe("solved");
    expect(fine.findings.filter((f) => f.suspect)).toEqual([]);
    const outcome = kerf.solve(historyOf(roundOf(plan, fits(plan, "lllslsntww"))));
    expect(outcome.status).toBe("solved");
    expect(outcome.findings[0]?.headline).toBe("Pair 4 does not match the other pairs.");
  });

  it("keeps nothing on the card while a pair contradicts the others, until it is left out or accepted", () => {
    const history = historyOf(roundOf(plan, fits(plan, "lllslsntww")));
    const [finding] = kerf.solve(history).findings;
    const { accept = "", leaveOut = [] } = finding?.suspect ?? {};
    expect(finding?.site).toBe(mateSite(3));
    expect(solved(kerf.solve(history)).forStock).toBeUndefined();
    expect(leaveOut).toHaveLength(1);
    const without = kerf.solve({ ...history, decisions: { [leaveOut[0] ?? ""]: "yes" } });
    expect(without.findings.some((f) => f.suspect)).toBe(false);
    expect(solved(without).forStock).toBeDefined();
    // As if the pair had never been judged.
    expect(estimate(without, "snug offset")).toBe(
      estimate(kerf.solve(historyOf(roundOf(plan, fits(plan, "lll-lsntww")))), "snug offset"),
    );
    const accepted = kerf.solve({ ...history, decisions: { [accept]: "burr on the slot" } });
    expect(accepted.findings.some((f) => f.suspect)).toBe(false);
    // What is accepted may be all that another pair contradicts, but a second odd pair stays one.
    const two = historyOf(roundOf(plan, fits(plan, "wllslsnlww")));
    const odd = kerf.solve(two).findings.filter((f) => f.suspect);
    expect(odd.length).toBeGreaterThanOrEqual(2);
    const [first] = odd;
    const one = kerf.solve({ ...two, decisions: { [first?.suspect?.accept ?? ""]: "a burr" } });
    expect(one.findings.some((f) => f.suspect)).toBe(true);
    expect(solved(accepted).forStock).toBeDefined();
  });

  it("says that the words are reversed, and not of a ladder that is right", () => {
    const reversed = kerf.solve(historyOf(roundOf(plan, fits(plan, "wwtnnsslll"))));
    expect(reversed.findings[0]?.headline).toBe("The fits look reversed.");
    const right = kerf.solve(historyOf(roundOf(plan, fits(plan, "lllssnntww"))));
    expect(right.findings.filter((f) => f.suspect)).toEqual([]);
    // Turned round, the middle word stays what it is: more of one end than of the other is no reversal.
    const uneven = kerf.solve(historyOf(roundOf(plan, fits(plan, "llllllllsn"))));
    expect(uneven.findings.map((f) => f.headline)).not.toContain("The fits look reversed.");
  });

  it("leaves a proof undecided while a pair contradicts the others", () => {
    const first = roundOf(plan, fits(plan, "lllssntwww"));
    const next = kerf.next(historyOf(first), kerf.solve(historyOf(first)));
    if (next.do !== "round") throw new Error(next.do);
    // Judged often, one word off is unlikely too.
    const proof = roundOf({ ...plan, repeats: 6 }, fits(plan, "lllssntwww"), 2);
    const answers = proof.answers.map((a, i) =>
      i === 0
        ? { ...a, content: { status: "read" as const, value: { kind: "ordinal" as const, category: "slides" } } }
        : a,
    );
    const history = historyOf(first, { ...proof, answers });
    expect(kerf.judge(historyOf(first, proof))?.headline).not.toBe("Judgements contradict each other");
    const [odd] = kerf.judge(history)?.findings ?? [];
    expect(kerf.judge(history)).toMatchObject({ result: "cannot tell", headline: "Judgements contradict each other" });
    expect(odd?.headline).toBe("Pair 1 does not match the other pairs.");
  });

  it("goes on with a finer ladder where that is worth it, else with a proof around the snug offset", () => {
    const coarse = planOf({ way: "tongue and slot", repeats: 1, stepMm: 0.1, mates: 8 });
    const rough = historyOf(roundOf(coarse, fits(coarse, "lsntwwww")));
    const finer = kerf.next(rough, kerf.solve(rough));
    expect(finer).toMatchObject({ do: "round", purpose: "refine" });
    if (finer.do === "round") expect(finer.plan.stepMm).toBeCloseTo(0.025, 9);
    const fine = historyOf(roundOf(plan, fits(plan, "lllssntwww")));
    const proof = kerf.next(fine, kerf.solve(fine));
    expect(proof).toMatchObject({ do: "round", purpose: "proof", plan: { stepMm: 0.005, mates: 9 } });
  });

  it("is proved where the finer mates are snug in their middle, and not where they are elsewhere", () => {
    const first = roundOf(plan, fits(plan, "lllssntwww"));
    const next = kerf.next(historyOf(first), kerf.solve(historyOf(first)));
    if (next.do !== "round") throw new Error(next.do);
    const proof = (letters: string) =>
      kerf.judge(historyOf(first, roundOf(next.plan, fits(next.plan, letters), 2)))?.result;
    expect(proof("lssnnntww")).toBe("proved");
    expect(proof("lsnttwwww")).toBe("proved");
    const wide = { ...next.plan, stepMm: 0.02, firstMm: next.plan.firstMm - 0.06 };
    const far = kerf.judge(historyOf(first, roundOf(wide, fits(wide, "lsntwwwww"), 2)));
    expect(far?.result).toBe("not proved");
  });
});

describe("sizes that cannot be", () => {
  const solved = (read: (site: string) => number) => kerf.solve(historyOf(roundOf(planOf({}), read)));
  const found = (read: (site: string) => number) => solved(read).findings.map((f) => f.id);
  const isKept = (read: (site: string) => number) => {
    const outcome = solved(read);
    return outcome.status === "solved" && outcome.forStock !== undefined;
  };

  it("a cut of nothing, part and hole mixed up, wholly or along one axis", () => {
    expect(found(sizes(40, 40))).toContain("no cut");
    expect(found(sizes(40.16, 39.84))).toContain("negative");
    const isAlongY = (site: string) => squareSites(planOf({})).some((s) => s.id === site && s.axis === "y");
    const mixed = (site: string) => {
      const isPart = site.startsWith("part") !== isAlongY(site);
      return isPart ? 39.8 : 40.2 - (isAlongY(site) ? 0.25 : 0);
    };
    expect(found(mixed)).toContain("mixed up");
    expect(found(sizes(39.84, 40.16))).toEqual([]);
    // What is no cut goes on no card.
    expect([sizes(40, 40), sizes(40.16, 39.84), mixed, sizes(39.84, 40.16)].map(isKept)).toEqual([
      false,
      false,
      false,
      true,
    ]);
  });
});

describe("the proof of an offset", () => {
  const first = roundOf(planOf({}), sizes(39.84, 40.16));

  it("is a square that is grown by half the kerf, and holds where its part measures what was drawn", () => {
    const next = kerf.next(historyOf(first), kerf.solve(historyOf(first)));
    if (next.do !== "round") throw new Error(next.do);
    expect(next.plan.grownMm).toBeCloseTo(0.08, 9);
    const proof = roundOf(next.plan, sizes(40.0, 40.32), 2);
    const verdict = kerf.judge(historyOf(first, proof));
    const wasShort = { result: "proved", before: { value: expect.closeTo(-0.08, 5) } };
    expect(verdict).toMatchObject({ result: "proved", lines: [wasShort, wasShort] });
    expect(leftIn(historyOf(first, proof), proof)?.value).toBeCloseTo(0, 6);
  });

  it("does not hold where the errors of X and Y cancel in their mean", () => {
    const next = kerf.next(historyOf(first), kerf.solve(historyOf(first)));
    if (next.do !== "round") throw new Error(next.do);
    // The kerf is 0.24 mm along X and 0.08 along Y: the offset of 0.08 is 0.04 too small along one, too large along the other.
    const oval = (site: string) => {
      const isAlongX = squareSites(first.plan).some((s) => s.id === site && s.axis === "x");
      const part = isAlongX ? 39.92 : 40.08;
      return site.startsWith("part") ? part : part + 2 * (isAlongX ? 0.24 : 0.08);
    };
    const proof = roundOf(next.plan, oval, 2);
    const verdict = kerf.judge(historyOf(first, proof));
    expect(leftIn(historyOf(first, proof), proof)?.value).toBeCloseTo(0, 6);
    expect(verdict?.lines.map((l) => l.after.value)).toEqual([expect.closeTo(-0.04, 5), expect.closeTo(0.04, 5)]);
    expect(verdict?.result).toBe("not proved");
    expect(verdict?.findings.map((f) => f.id)).toContain("axes apart");
  });

  it("says so where the offset was not there, or acted the other way", () => {
    const grown = { ...first.plan, grownMm: 0.08 };
    // Cut as it was at first: the part is short by the kerf again, and the hole long by it.
    const same = kerf.judge(historyOf(first, roundOf(grown, sizes(39.84 + 0.16 - 0.16, 40.16 + 0.32), 2)));
    expect(same?.result).toBe("not proved");
  });

  it("of a part alone holds the size itself against the drawing, scale or not", () => {
    const alone = roundOf(planOf({ way: "part" }), () => 39.8);
    const next = kerf.next(historyOf(alone), kerf.solve(historyOf(alone)));
    if (next.do !== "round") throw new Error(next.do);
    const verdict = kerf.judge(
      historyOf(
        alone,
        roundOf(next.plan, () => 40, 2),
      ),
    );
    expect(verdict?.result).toBe("proved");
  });
});

describe("what may be laid out", () => {
  it("wants a card of the stock, and its thickness where the sheet itself goes in", () => {
    expect(faultsOf({}, { ...CONTEXT, stocks: [] }).stock).toMatch(/Make a stock card first/);
    const unmeasured = { ...CONTEXT, stocks: [{ ...SAMPLE_STOCK, thickness: null }] };
    expect(faultsOf({ way: "sheet slot" }, unmeasured).stock).toMatch(/never measured.*enter it on the stock card/);
    const plan = planOf({}, unmeasured);
    expect(planWarnings(plan, unmeasured)[0]?.message).toMatch(/never measured/);
  });

  it("flows mates onto the piece of stock row by row, and refuses by name what does not go on it", () => {
    const narrow = planOf({ way: "tongue and slot", sheetWidthMm: 120, sheetHeightMm: 200 });
    expect(columnsOf(narrow)).toBe(4);
    expect(new Set(cellsOf(narrow).map((c) => c.y)).size).toBe(3);
    expect(matesNeed(narrow).widthMm).toBeLessThanOrEqual(120);
    expect(faultsOf({ way: "tongue and slot", sheetWidthMm: 120, sheetHeightMm: 80 }).mates).toMatch(
      /10 mates need .* mm\. The piece is 120 × 80 mm\. Enter at most 4 mates\./,
    );
    expect(faultsOf({ way: "tongue and slot", sheetWidthMm: 30 }).mates).toMatch(/narrower joint or a larger piece/);
  });

  it("refuses steps whose last offset no kerf takes, or whose last slot is no slot", () => {
    expect(faultsOf({ way: "tongue and slot", stepMm: 0.2 }).mates).toMatch(/offset of 1\.8 mm per side/);
    const thin = { ...SAMPLE_STOCK, nominalMm: 0.5, thickness: { ...measuredSheet(), meanMm: 0.5 } };
    const onThin = { ...CONTEXT, stocks: [thin] };
    expect(faultsOf({ way: "sheet slot" }, onThin).mates).toMatch(/drawn 0\.14 mm wide. The limit is 0\.3 mm/);
    expect(faultsOf({ way: "sheet slot", mates: 6 }, onThin)).toEqual({});
  });

  it("has the same value on both mates", () => {
    const plan = planOf({ way: "tongue and slot" });
    for (const cell of cellsOf(plan)) expect(mateShape(plan, cell).words).toHaveLength(2);
    expect(cellsOf(plan).map((c) => mateText(plan, c.offsetMm))).toEqual([
      "0.00",
      "0.02",
      "0.04",
      "0.06",
      "0.08",
      "0.10",
      "0.12",
      "0.14",
      "0.16",
      "0.18",
    ]);
    const fine = planOf({ way: "tongue and slot", stepMm: 0.005 });
    expect(mateText(fine, 0.005)).toBe("0.005");
  });

  it("refuses strips that bend and holes that jaws do not go into", () => {
    expect(faultsOf({ way: "comb", stripMm: 2 }).stripMm).toMatch(/bend or burn/);
    expect(faultsOf({ sideMm: 6 }).sideMm).toMatch(/Inside jaws/);
    expect(faultsOf({ way: "part", sideMm: 6 })).toEqual({});
    expect(faultsOf({ sideMm: 200 }).sideMm).toMatch(/at most 149 mm/);
  });

  it("is burned in as many passes as are said", () => {
    const spec = kerf.round(planOf({ passes: 3 }), CONTEXT, "measure");
    expect(spec.program.filter((op) => op.kind === "mark" && op.settings === "cut")).toHaveLength(3);
    expect(isMateWay(planOf({}).way)).toBe(false);
  });
});

function middleX(feature: { kind: string; within?: { x0: number; x1: number } }): number {
  return feature.within ? (feature.within.x0 + feature.within.x1) / 2 : Number.NaN;
}

function measuredSheet(): NonNullable<typeof SAMPLE_STOCK.thickness> {
  return SAMPLE_STOCK.thickness ?? never();
}

function never(): never {
  throw new Error("there should be one");
}

describe("part and hole together", () => {
  const round = roundOf(planOf({}), (s) => (s.startsWith("part") ? 39.84 : 40.16));
  const read = readCuts(historyOf(round), round);

  it("tell scale and kerf apart: readings of equal weight leave them uncorrelated", () => {
    expect(read?.along.x?.quantity.value).toBeCloseTo(0.16, 5);
    const correlation = read?.scale.x?.correlation ?? Number.NaN;
    expect(Math.abs(correlation)).toBeLessThan(0.35);
  });

  it("have strays in the scale alone, and what a cut differs from place to place in the kerf alone", () => {
    const u = (parts: readonly { id: string; standardUncertainty: number }[] | undefined, id: string) =>
      parts?.find((p) => p.id === id)?.standardUncertainty ?? 0;
    const scale = read?.scale.x?.error.parts;
    const along = read?.along.x?.parts;
    // Two cuts that stray by 0.01 mm, over a side of 40 mm; a cut of 0.003 mm, over the two of a side.
    expect(u(scale, "stray x")).toBeCloseTo((0.01 * Math.SQRT2) / 40, 6);
    expect(u(along, "stray x")).toBeCloseTo(0, 9);
    expect(u(along, "wander")).toBeCloseTo(0.003 / Math.SQRT2, 9);
    expect(u(scale, "wander")).toBeCloseTo(0, 9);
  });

  it("give the mean of both axes as the kerf", () => {
    const wanted = observeCuts(historyOf(round), round)?.wanted.find((w) => w.id === "kerf");
    expect(wanted?.row).toEqual({ "kerf x": 0.5, "kerf y": 0.5 });
  });
});

describe("kerfs along X and Y", () => {
  const comb = planOf({ way: "comb", cuts: 10 });
  const gapsOf = (x: number, y: number) => historyOf(roundOf(comb, (site) => (site === "gap x" ? x : y)));

  it("are nearly alike: a gap of one comb in inches contradicts the other", () => {
    const [first] = solved(kerf.solve(gapsOf(2.2, 2.2 / MM_PER_INCH))).findings;
    expect(first).toMatchObject({
      headline: expect.stringMatching(/^The gap of the comb along Y contradicts/),
      site: "gap y",
    });
  });

  it("may differ as beams that are not round cut, and the usual difference has no part in either", () => {
    const outcome = solved(kerf.solve(gapsOf(2.4, 2.0)));
    expect(outcome.findings.filter((f) => f.suspect)).toEqual([]);
    expect(estimate(outcome, "kerf x")).toBeCloseTo(0.24, 9);
    expect(estimate(outcome, "kerf y")).toBeCloseTo(0.2, 9);
  });
});
