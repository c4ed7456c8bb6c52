/** The kerf with its offset per side, what is kept of it on the card of the stock, and what was noticed. */
import { times } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import { fixed, plain, shownLength, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import { stockText } from "../../stock/stock-at-hand";
import { sitesLeft } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate, StockResult } from "../../trial/outcome";
import { figuresOf } from "./figures";
import { findingsOf, isCut } from "./findings";
import { type KerfFound, kerfIn } from "./found";
import { cutSideMm } from "./layout";
import { mateSuspects } from "./mate-suspects";
import { clearanceOf, isMateWay, type KerfPlan } from "./plan";
import { readMates } from "./read-mates";
import { resultTable } from "./result-table";

export function solveKerf(history: History<KerfPlan>): GivenOutcome {
  const round = history.rounds.findLast((r) => r.answers.length > 0);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const table = resultTable(history, round);
  const found = kerfIn(history, round);
  const findings = findingsOf(history, round, found);
  const complete = sitesLeft(round.spec.sites, round.answers).length === 0;
  if (!found) {
    const reason = isMateWay(round.plan.way) ? whyNoFit(history, round, complete) : null;
    if (reason) return { status: "unsolvable", reason, table, findings };
    return { status: "open", missing: missingIn(round.plan), table, findings };
  }
  const odd = new Set(mateSuspects(history, round).flatMap((s) => s.site ?? []));
  return {
    status: "solved",
    complete,
    findings,
    table,
    estimates: estimatesOf(round.plan, found),
    figures: figuresOf(round.plan, found, odd, lengthUnitOf(history)),
    // A value that is too small for a cut is not offered for the stock card.
    ...(isCut(found) ? { forStock: resultFor(history, round, found) } : {}),
    predicted: predictedFor(round.plan, found, history),
  };
}

function missingIn({ way }: KerfPlan): string {
  if (way === "part and hole") return "Measure part and hole along one axis.";
  if (way === "comb") return "Measure the gap of one comb.";
  return isMateWay(way) ? "Judge more pairs, until one is looser than snug and one is tighter." : "Measure one size.";
}

function whyNoFit(history: History<KerfPlan>, round: RoundRecord<KerfPlan>, complete: boolean): string | null {
  const mates = readMates(history.decisions, round);
  if (mates?.contradiction) {
    const { first, second } = mates.contradiction;
    return `Pair ${first.index + 1} is tighter than pair ${second.index + 1}, which has a larger offset. This is impossible. Check that each tongue is in its own slot and that both are cut free. Judge both pairs again.`;
  }
  if (!complete || !mates?.open) return null;
  return mates.open === "smaller"
    ? "No pair is looser than snug. Add pairs with smaller offsets."
    : "No pair is tighter than snug. Add pairs with larger offsets.";
}

function estimatesOf(plan: KerfPlan, found: KerfFound): Estimate[] {
  const { kerf, cuts, snug } = found;
  const offset = times(kerf, 0.5);
  const helps = helpFor(plan, found);
  const snugEstimate = snug && {
    id: "snug offset",
    label: "Snug offset per side",
    quantity: snug,
    unit: "mm" as const,
    headline: true,
    budget: [
      {
        id: "judged",
        label: "Judged by hand",
        kind: "A" as const,
        degreesOfFreedom: "infinite" as const,
        standardUncertainty: snug.standardUncertainty,
      },
    ],
    helps: "Use smaller steps between pairs, or judge each pair more often.",
  };
  return [
    ...(snugEstimate ? [snugEstimate] : []),
    estimate("kerf", "Kerf", kerf, { headline: true, helps }),
    estimate("offset", "Offset per side", offset, { headline: snug === null, helps }),
    ...(["x", "y"] as const).flatMap((axis) => {
      const along = cuts?.along[axis];
      const scale = cuts?.scale[axis];
      return [
        ...(along && cuts.axes.length > 1 ? [estimate(`kerf ${axis}`, `Kerf along ${axis.toUpperCase()}`, along)] : []),
        ...(scale
          ? [estimate(`scale ${axis}`, `Error of length, ${axis.toUpperCase()}`, scale.error, { unit: "percent" })]
          : []),
      ];
    }),
    ...(cuts?.taper ? [estimate("taper", "Taper: narrower at the bottom by", cuts.taper)] : []),
  ];
}

function helpFor(plan: KerfPlan, { kerf, cuts }: KerfFound): string | null {
  const [largest] = kerf.parts;
  if (!largest) return null;
  if (largest.id === "scale") return "Measure part and hole. The axis scale cancels between them.";
  if (largest.id === "gap") return "Measure part and hole, or a comb. Neither needs an assumed gap.";
  if (largest.id === "snug") return "Use smaller steps between pairs, or judge each pair more often.";
  if (plan.way === "comb") return "Make more cuts in the comb.";
  return cuts ? "Take more readings of each size, or cut a comb." : null;
}

function resultFor(history: History<KerfPlan>, { plan }: RoundRecord<KerfPlan>, found: KerfFound): StockResult {
  const unit = lengthUnitOf(history);
  const { kerf, snug, cuts } = found;
  const value = (id: string, label: string, quantity: Measured) => ({ id, label, quantity, unit: "mm" as const });
  return {
    kind: "kerf",
    stock: plan.stock,
    values: [
      value("kerf", "Kerf", kerf.quantity),
      value("offset", "Offset per side", times(kerf, 0.5).quantity),
      ...(snug ? [snugValue(plan, snug)] : []),
      ...(["x", "y"] as const).flatMap((axis) => {
        const along = cuts && cuts.axes.length > 1 ? cuts.along[axis] : undefined;
        return along ? [value(`kerf ${axis}`, `Kerf along ${axis.toUpperCase()}`, along.quantity)] : [];
      }),
      ...(cuts?.taper ? [value("taper", "Taper: narrower at the bottom by", cuts.taper.quantity)] : []),
    ],
    conditions: conditionsOf(history, plan),
    arithmetic: arithmeticOf(plan, found, unit),
  };
}

/** Of slots for the sheet it says what to draw for the sheet, of mates what to draw for mates. */
function snugValue({ way, offsetOn }: KerfPlan, quantity: Measured): StockResult["values"][number] {
  const [id, label] =
    way === "sheet slot"
      ? ["snug slot", "Snug offset per side, slot for the sheet"]
      : ["snug offset", `Snug offset per side, ${offsetOn === "both" ? "both mates" : "tongue or plug alone"}`];
  return { id, label, quantity, unit: "mm" };
}

function conditionsOf({ machine }: History<KerfPlan>, plan: KerfPlan): StockResult["conditions"] {
  const { from } = plan;
  const thickness = from?.thickness;
  return [
    { label: "Stock", text: from ? stockText(from) : plan.stock },
    {
      label: "Thickness",
      text: thickness
        ? `${plain(thickness.meanMm, 2)} mm (${plain(thickness.leastMm, 2)} to ${plain(thickness.mostMm, 2)})`
        : `${plain(from?.nominalMm ?? 0)} mm nominal, not measured`,
    },
    { label: "Machine", text: machine.name },
    { label: "Optic", text: plan.optic ?? "not entered" },
    { label: "Speed", text: `${plain(plan.speedMmPerS)} mm/s` },
    { label: "Power", text: `${plain(plan.powerPct)} %` },
    { label: "Passes", text: String(plan.passes) },
    { label: "Gas", text: plan.gas },
    {
      label: "Focus",
      text:
        plan.focusBelowMm === 0
          ? "on the top face"
          : `${plain(Math.abs(plan.focusBelowMm))} mm ${plan.focusBelowMm > 0 ? "below" : "above"} the top face`,
    },
  ];
}

/** The sum with the figures that were read, in the unit of the screen. */
function arithmeticOf(plan: KerfPlan, { kerf, cuts, snug }: KerfFound, unit: LengthUnit): string[] {
  const shown = (mm: number) => shownNumber(mm, unit, 3);
  const k = kerf.quantity.value;
  const half = `${shown(k)} ÷ 2 = ${shown(k / 2)} ${unit} offset per side`;
  if (snug) {
    const { atZero, cuts: count, perOffset } = clearanceOf(plan);
    const gap = `${shown(plan.snugGapMm)} gap${atZero === 0 ? "" : ` ${atZero < 0 ? "+" : "−"} ${shown(Math.abs(atZero))} by which the sheet is off the drawing`}`;
    return [`(${gap} + ${perOffset} × ${shown(snug.value)} snug offset) ÷ ${count} = ${shown(k)} ${unit} kerf`, half];
  }
  const lines = (cuts?.axes ?? []).map((axis) => {
    const here = (cuts?.read ?? []).filter((r) => r.axis === axis && r.square?.face !== "bottom");
    const mean = (of: "part" | "hole" | null) => {
      const own = here.filter((r) => (r.square?.of ?? null) === of);
      return own.reduce((sum, r) => sum + r.mean, 0) / own.length;
    };
    const name = axis.toUpperCase();
    const result = shown(cuts?.along[axis]?.quantity.value ?? 0);
    const side = shown(cutSideMm(plan));
    if (plan.way === "comb") return `${name}: ${shown(mean(null))} ÷ ${plan.cuts} cuts = ${result} ${unit}`;
    if (plan.way === "part") return `${name}: ${side} − ${shown(mean("part"))} = ${result} ${unit}`;
    if (plan.way === "hole") return `${name}: ${shown(mean("hole"))} − ${side} = ${result} ${unit}`;
    const correlation = cuts?.scale[axis]?.correlation ?? 0;
    return `${name}: (${shown(mean("hole"))} − ${shown(mean("part"))}) ÷ 2 = ${result} ${unit}; the scale is (${shown(mean("hole"))} + ${shown(mean("part"))}) ÷ (2 × ${side}), correlated with the kerf by ${fixed(correlation, 2)}`;
  });
  const mean = lines.length > 1 ? [`mean of X and Y: ${shown(k)} ${unit} kerf`] : [];
  return [...lines, ...mean, half];
}

function predictedFor(plan: KerfPlan, { kerf, snug }: KerfFound, history: History<KerfPlan>): string {
  const unit = lengthUnitOf(history);
  if (snug) return `Expect a snug fit with ${shownLength(snug.value, unit, 3)} offset per side.`;
  return `Cut a square of ${shownLength(plan.sideMm, unit, 2)} with ${shownLength(kerf.quantity.value / 2, unit, 3)} offset per side. Expect ${shownLength(plan.sideMm, unit, 2)}.`;
}
