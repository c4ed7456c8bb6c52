/** Result of a ramp: the best value of its setting, the good range, and the entry for the stock card. */
import type { MachineSpec } from "../../machine/machine-spec";
import { CELL_SETTINGS, internalValue, settingText, unitOf } from "../../marking/cell-settings";
import { doseOf } from "../../marking/dose";
import { markingResult } from "../../marking/marking-result";
import { newestRead } from "../../measuring/examined";
import { type Budgeted, times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, inUnit, plain } from "../../metrology/quantity-text";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History } from "../../trial/history";
import { PURPOSES } from "../../trial/marking-fields";
import type { Finding, ResultTable, StockResult } from "../../trial/outcome";
import { endWithBest, type Found, foundIn, type Ramp, READ_FIRST, spreadOf, valueOfAlong } from "./found";
import { beyond } from "./next-range";
import { isByRatio, type RampPlan } from "./plan";
import { settingsAt, valueAt } from "./strip";

export function solveRamp(history: History<RampPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: READ_FIRST };
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
        helps: "Read the best point again, or burn a ramp over a narrower range.",
      }),
    ],
    findings: findingsOf(found, history.machine),
    table: tableOf(found),
    forStock: resultOf(history, found, best),
    predicted: `Mark with ${settingText(plan.varied, rounded(plan, valueOfAlong(plan, found.best.quantity.value)))}.`,
  };
}

/** In internal units of the setting. A small change of the logarithm is a share of the value. */
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

function findingsOf(found: Found, machine: MachineSpec): Finding[] {
  const { last } = found;
  const { plan } = last;
  const end = endWithBest(last);
  const spread = spreadOf(last);
  const findings: Finding[] = [];
  if (end)
    findings.push({
      id: "end",
      tone: "needs you",
      site: null,
      headline: `The best point is near the end of the ramp: ${textAt(plan, end === "start" ? 0 : plan.lengthMm)}.`,
      text: beyond(found, machine)
        ? "Burn the next ramp. The range continues beyond this end."
        : "The machine and the stock allow no ramp beyond this end. Vary another setting to look further.",
    });
  if (spread !== null)
    findings.push({
      id: "apart",
      tone: "needs you",
      site: null,
      headline: `The readings of the best point differ by ${plain(spread, 1)} mm.`,
      text: "Several points may be equally good. Read again, or burn a test array.",
    });
  return findings;
}

function tableOf({ ramps }: Found): ResultTable {
  const [first] = ramps;
  return {
    title: "Along the strip",
    columns: ["Point", "on the scale, mm"],
    resultLabel: first ? CELL_SETTINGS[first.plan.varied].label : "",
    rows: ramps.flatMap((ramp) => rowsOf(ramp, ramps.length > 1)),
  };
}

function rowsOf({ n, plan, start, best, end }: Ramp, isOneOfMany: boolean): ResultTable["rows"] {
  const burn = isOneOfMany ? `, burn ${n}` : "";
  const row = (label: string, s: number | null) => ({
    label: `${label}${burn}`,
    sites: [],
    cells: [s === null ? "–" : fixed(s, 1)],
    result: s === null ? "–" : textAt(plan, s),
    state: s === null ? ("none" as const) : ("read" as const),
  });
  return [row("Start of good", start), row("Best", best), row("End of good", end)];
}

/** Each end from the first ramp that shows it. */
function goodRange(ramps: readonly Ramp[]): { label: string; text: string }[] {
  const textOf = (which: "start" | "end") => {
    const ramp = ramps.find((r) => r[which] !== null);
    const s = ramp?.[which];
    return ramp && s !== null && s !== undefined ? textAt(ramp.plan, s) : null;
  };
  const [start, end] = [textOf("start"), textOf("end")];
  if (start && end) return [{ label: "Good", text: `from ${start} to ${end}` }];
  if (start) return [{ label: "Good", text: `from ${start} to the end of the ramp` }];
  if (end) return [{ label: "Good", text: `from the start of the ramp to ${end}` }];
  return [{ label: "Good", text: "on the whole ramp" }];
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
  const readings = ramps.reduce((sum, r) => sum + r.readings.length, 0);
  const uncertainty = inUnit(expandedUncertainty(best.quantity), unitOf(plan.varied), 2);
  return markingResult({
    stock: plan.stock,
    from: plan.from,
    purpose: PURPOSES[plan.purpose],
    machine,
    lens: plan.lens,
    settings,
    dose: doseOf(settings, source),
    varied: [
      { id: plan.varied, label: CELL_SETTINGS[plan.varied].label, quantity: best.quantity, unit: unitOf(plan.varied) },
    ],
    quality: [],
    scoredBy: "By eye, along a ramp",
    conditions: goodRange(ramps),
    arithmetic: [
      ...ramps.map(
        (r) =>
          `Burn ${r.n}: best point at ${plain(r.best, 1)} of ${plain(r.plan.lengthMm)} mm = ${textAt(r.plan, r.best)}`,
      ),
      `All ${readings} readings, weighted by 1/u²: ${inUnit(best.quantity.value, unitOf(plan.varied), 2)} ± ${uncertainty}`,
    ],
  });
}
