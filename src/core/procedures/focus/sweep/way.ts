/** The live sweep: a small square is marked again and again while the height is moved through the brightest, loudest point, several times up and down. */
import { coverageFactor, effectiveFreedom } from "../../../fitting/student-t";
import { examinationOf } from "../../../measuring/examined";
import { expandedUncertainty } from "../../../metrology/measured";
import { plain } from "../../../metrology/quantity-text";
import { sitesLeft } from "../../../trial/answer";
import type { History, RoundRecord } from "../../../trial/history";
import type { Estimate, Finding, ResultTable } from "../../../trial/outcome";
import type { PlanContext, PlanWarning } from "../../../trial/plan-form";
import type { BurnWay } from "../burn-way";
import { type Found, GO_BY, ranked, type Way } from "../found";
import type { SweepPlan } from "../plan";
import { FALLING_SITE, RISING_SITE, sweepRound } from "./coupon";
import { detailOf } from "./detail";
import { notedPasses, observeSweep } from "./observe";
import { type Passes, playOf, waysOf } from "./ways";

/** Another pass is worth it where it takes off more than this share. */
const WORTH_SHARE = 0.1;
const MORE_PASSES = 2;

export const liveSweep: BurnWay<SweepPlan> = {
  nothingRead: "No pass is noted yet. Enter the height at the brightest, loudest point of each pass.",
  warnings,
  round: sweepRound,
  found,
  observe: observeSweep,
  proofPlan: (_, { plan }) => plan,
  overlay: () => [],
  detail: detailOf,
  waysOut: () => [
    {
      text: `Sweep ${MORE_PASSES} more times each way.`,
      sites: [RISING_SITE, FALLING_SITE],
      more: MORE_PASSES,
      gauge: null,
    },
  ],
};

function found(history: History<SweepPlan>, round: RoundRecord<SweepPlan>): Found {
  const noted = notedPasses(history, round);
  const adjustment = examinationOf(history, round, observeSweep)?.adjustment;
  const passes = adjustment && { ...noted, adjustment };
  const ways = passes ? waysOf(passes) : [];
  const { ways: sorted, chosen } = ranked(ways, GO_BY.of(history.decisions));
  return {
    ways: sorted,
    chosen,
    whyNot: "No pass is noted yet. Enter the height at the brightest, loudest point of each pass.",
    findings: passes && chosen ? [...playFinding(passes), ...passFinding(passes, chosen, history.tolerance)] : [],
    table: tableOf(noted, ways),
    figures: [],
    estimates: passes ? playEstimate(passes) : [],
    wishes: [],
    predicted: "Expect the brightest point of another sweep at the new height.",
    beyond: null,
    judged: sitesLeft(round.spec.sites, round.answers).length === 0,
  };
}

function playEstimate(passes: Passes): Estimate[] {
  const play = playOf(passes);
  if (!play) return [];
  return [
    {
      id: "backlash",
      label: "Rising minus falling, by backlash and late noting",
      unit: "mm",
      quantity: play.quantity,
      headline: false,
      helps: null,
      budget: play.parts,
    },
  ];
}

function playFinding(passes: Passes): Finding[] {
  const play = playOf(passes)?.quantity;
  if (!play || Math.abs(play.value) <= expandedUncertainty(play)) return [];
  return [
    {
      id: "backlash",
      tone: "note",
      site: null,
      headline: `Rising and falling passes differ by ${plain(Math.abs(play.value), 2)} mm.`,
      text: "The screw has backlash, or the number is noted late. Always approach the height from the side of the value that you enter.",
    },
  ];
}

/** Whether another pass would help. */
function passFinding(passes: Passes, { found: { quantity, parts } }: Way, tolerance: number): Finding[] {
  const now = expandedUncertainty(quantity);
  const fewest = Math.min(passes.rising.length || Infinity, passes.falling.length || Infinity);
  if (!Number.isFinite(fewest)) return [];
  const shrink = Math.sqrt(fewest / (fewest + 1));
  const after = parts.map((p) => {
    if (p.degreesOfFreedom === "infinite") return { u: p.standardUncertainty, degreesOfFreedom: Infinity };
    return { u: p.standardUncertainty * shrink, degreesOfFreedom: p.degreesOfFreedom + 2 };
  });
  const then = coverageFactor(effectiveFreedom(after)) * Math.hypot(...after.map((p) => p.u));
  const helps = then < now * (1 - WORTH_SHARE);
  const enough = now < tolerance / 2;
  return [
    {
      id: "another pass",
      tone: "note",
      site: null,
      headline: helps && !enough ? "Another pass each way would help." : "Another pass hardly helps.",
      text: `The uncertainty is ± ${plain(now, 2)} mm. One more pass each way makes it ± ${plain(then, 2)} mm. The tolerance is ${plain(tolerance, 2)} mm.`,
    },
  ];
}

function tableOf({ rising, falling }: Pick<Passes, "rising" | "falling">, ways: readonly Way[]): ResultTable {
  const row = (id: string, label: string, sites: string[], of: readonly number[]): ResultTable["rows"][number] => {
    const quantity = ways.find((w) => w.id === id)?.found.quantity;
    return {
      label,
      sites,
      cells: [of.length > 0 ? of.map((v) => plain(v, 2)).join("; ") : "…"],
      result: quantity ? `${plain(quantity.value, 2)} ± ${plain(expandedUncertainty(quantity), 2)}` : "–",
      state: quantity ? "read" : "none",
    };
  };
  return {
    title: "Brightest point",
    columns: ["Passes", "heights"],
    resultLabel: "height, mm",
    rows: [row("rising", "rising", [RISING_SITE], rising), row("falling", "falling", [FALLING_SITE], falling)],
  };
}

function warnings(_: SweepPlan, { machine }: PlanContext): PlanWarning[] {
  if (machine.kind === "galvo") return [];
  return [
    {
      field: "way",
      message:
        "Keep your hands away from the head. On a gantry the file repeats the square. Move the height only while the file runs.",
    },
  ];
}
