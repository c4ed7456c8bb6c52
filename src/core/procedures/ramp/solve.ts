/** What a ramp says: the best value of its setting, the range that is good, and what is kept with the stock. */
import { CELL_SETTINGS, internalValue, settingText, unitOf } from "../../marking/cell-settings";
import { doseOf } from "../../marking/dose";
import { markingResult } from "../../marking/marking-result";
import { newestRead } from "../../measuring/examined";
import { type Budgeted, times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History } from "../../trial/history";
import { PURPOSES } from "../../trial/marking-fields";
import type { Finding, ResultTable, StockResult } from "../../trial/outcome";
import { endOf, type Found, foundIn, isApart, type Ramp, valueOfAlong } from "./found";
import { isByRatio, type RampPlan } from "./plan";
import { settingsAt, valueAt } from "./strip";

export function solveRamp(history: History<RampPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Read where the strip is best." };
  const finding = foundIn(history, round);
  if (!finding.ok)
    return finding.status === "open"
      ? { status: "open", missing: finding.why }
      : { status: "unsolvable", reason: finding.why };
  const { found } = finding;
  const { plan } = found.last;
  const best = asSetting(plan, found.best);
  const { label } = CELL_SETTINGS[plan.varied];
  return {
    status: "solved",
    estimates: [
      estimate("best", `Best ${label.toLowerCase()}`, best, {
        unit: unitOf(plan.varied),
        headline: true,
        helps: "Look again from the other end, or burn a ramp over a narrower range.",
      }),
    ],
    findings: findingsOf(found),
    table: tableOf(found),
    forStock: resultOf(history, found, best),
    predicted: `Mark with ${settingText(plan.varied, rounded(plan, valueOfAlong(plan, found.best.quantity.value)))}.`,
  };
}

/** From what `along` has to the setting in internal units: a small change of the logarithm is a share of the value. */
function asSetting(plan: RampPlan, best: Budgeted): Budgeted {
  const value = internalValue(plan.varied, valueOfAlong(plan, best.quantity.value));
  const scaled = times(best, isByRatio(plan) ? value : 1);
  return { ...scaled, quantity: { ...scaled.quantity, value } };
}

function rounded({ varied }: RampPlan, value: number): number {
  return Number(value.toFixed(CELL_SETTINGS[varied].decimals));
}

function textAt(plan: RampPlan, s: number): string {
  return settingText(plan.varied, rounded(plan, valueAt(plan, s)));
}

function findingsOf({ last }: Found): Finding[] {
  const { plan } = last;
  const end = endOf(last);
  const findings: Finding[] = [];
  if (end)
    findings.push({
      id: "end",
      tone: "needs you",
      site: null,
      headline: `The best lies at the end of the ramp: ${textAt(plan, end === "start" ? 0 : plan.lengthMm)}.`,
      text: "Burn the next ramp. Its range continues beyond this end.",
    });
  if (isApart(last))
    findings.push({
      id: "apart",
      tone: "needs you",
      site: null,
      headline: `The looks at the best place differ by ${plain(Math.max(...last.looks) - Math.min(...last.looks), 1)} mm.`,
      text: "Several places may be equally good. Look again, or burn a test array over two settings.",
    });
  return findings;
}

function tableOf({ ramps }: Found): ResultTable {
  const rows = ramps.flatMap((ramp) => {
    const burn = ramps.length > 1 ? `, burn ${ramp.n}` : "";
    return [
      { label: `Begins${burn}`, s: ramp.begins },
      { label: `Best${burn}`, s: ramp.best },
      { label: `Too much${burn}`, s: ramp.tooMuch },
    ].map(({ label, s }) => ({ label, s, plan: ramp.plan }));
  });
  const [first] = ramps;
  return {
    title: "Along the strip",
    columns: ["Place", "on the scale, mm"],
    resultLabel: first ? CELL_SETTINGS[first.plan.varied].label : "",
    rows: rows.map(({ label, s, plan }) => ({
      label,
      sites: [],
      cells: [s === null ? "–" : plain(s, 1)],
      result: s === null ? "–" : textAt(plan, s),
      state: s === null ? ("none" as const) : ("read" as const),
    })),
  };
}

/** The widest range that was seen to be good. */
export function goodRange(ramps: readonly Ramp[]): { label: string; text: string }[] {
  const known = (which: "begins" | "tooMuch") =>
    ramps.flatMap((r) => {
      const s = r[which];
      return s === null ? [] : [textAt(r.plan, s)];
    });
  const [begins] = known("begins");
  const [tooMuch] = known("tooMuch");
  return [
    { label: "Begins at", text: begins ?? "not on this ramp" },
    { label: "Too much from", text: tooMuch ?? "not on this ramp" },
  ];
}

function resultOf({ machine }: History<RampPlan>, { ramps, last, best: joint }: Found, best: Budgeted): StockResult {
  const { plan } = last;
  const settings = settingsAt(plan, rounded(plan, valueOfAlong(plan, joint.quantity.value)));
  const source = {
    wattsAtFull: plan.wattsAtFull,
    lineMm: plan.lineMm,
    isPulsed: machine.kind === "galvo",
    isFilled: true,
  };
  const looks = ramps.reduce((sum, r) => sum + r.looks.length, 0);
  return markingResult({
    stock: plan.stock,
    from: plan.from,
    purpose: PURPOSES[plan.purpose],
    machine,
    lens: plan.lens,
    settings,
    dose: doseOf(settings, source),
    values: [
      { id: plan.varied, label: CELL_SETTINGS[plan.varied].label, quantity: best.quantity, unit: unitOf(plan.varied) },
    ],
    scoredBy: "By eye, along a ramp",
    conditions: goodRange(ramps),
    arithmetic: [
      ...ramps.map(
        (r) =>
          `Burn ${r.n}: best at ${plain(r.best, 1)} mm of ${plain(r.plan.lengthMm)} mm, which is ${textAt(r.plan, r.best)}.`,
      ),
      `${looks} looks: ${plain(valueOfAlong(plan, joint.quantity.value), 2)} ± ${plain(100 * expandedShare(plan, joint), 0)} % of the range.`,
    ],
  });
}

/** The uncertainty as a share of the newest range. */
function expandedShare(plan: RampPlan, { quantity }: Budgeted): number {
  const ends = [0, plan.lengthMm].map((s) => (isByRatio(plan) ? Math.log(valueAt(plan, s)) : valueAt(plan, s)));
  return expandedUncertainty(quantity) / Math.abs((ends[1] ?? 0) - (ends[0] ?? 0));
}
