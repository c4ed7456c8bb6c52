/**
 * The live sweep: a small square is marked again and again while the height is moved through the brightest, loudest point, several
 * times up and down. What rising and falling passes differ by is the play of the screw, and how late a person notes the number.
 */
import { mean, pooled } from "../../../fitting/repeats";
import { coverageFactor, effectiveFreedom, expandedUncertainty } from "../../../fitting/student-t";
import { joined } from "../../../metrology/budget";
import { type Measured, measured } from "../../../metrology/measured";
import { plain } from "../../../metrology/quantity-text";
import { quantitiesAt, sitesLeft } from "../../answer";
import type { History, PlanContext, PlanWarning, RoundRecord } from "../../contract";
import type { Estimate, Finding, ResultTable } from "../../outcome";
import type { BurnWay } from "../burn-way";
import { type Found, GO_BY, ranked, settingParts, type Way } from "../found";
import type { SweepPlan } from "../plan-type";
import { FALLING_SITE, RISING_SITE, sweepRound } from "./coupon";
import { detailOf } from "./detail";

/** Scatter of noting the brightest point, mm, and how many passes that is worth. (common practice, no source) */
const EYE = { sd: 0.3, freedom: 2 };
/** Another pass is worth it where it takes off more than this share. */
const WORTH_SHARE = 0.1;
const MORE_PASSES = 2;

export const liveSweep: BurnWay<SweepPlan> = {
  nothingRead: "No pass is noted yet: write down the height at the brightest, loudest point of each.",
  warnings,
  round: sweepRound,
  found,
  proofPlan: (_, { plan }) => plan,
  overlay: () => [],
  detail: detailOf,
  waysOut: () => [
    {
      text: `Sweep ${MORE_PASSES} times more each way.`,
      ...{ sites: [RISING_SITE, FALLING_SITE], more: MORE_PASSES, gauge: null },
    },
  ],
};

type Passes = { rising: number[]; falling: number[]; sdMm: number; freedom: number };

function passesOf({ answers }: RoundRecord<SweepPlan>): Passes {
  const [rising, falling] = [quantitiesAt(answers, RISING_SITE), quantitiesAt(answers, FALLING_SITE)];
  const { sd, freedom } = pooled([rising, falling], EYE);
  return { rising, falling, sdMm: sd, freedom };
}

function found(history: History<SweepPlan>, round: RoundRecord<SweepPlan>): Found {
  const passes = passesOf(round);
  const unread = sitesLeft(round.spec.sites, round.answers);
  const ways = waysOf(passes, round.plan);
  const { ways: sorted, chosen } = ranked(ways, history.decisions[GO_BY]);
  return {
    ...{ ways: sorted, chosen },
    whyNot: "No pass is noted yet: write down the height at the brightest, loudest point of each.",
    findings: [...playFinding(passes), ...(chosen ? passFinding(passes, chosen, history.tolerance) : [])],
    table: tableOf(passes, ways),
    figures: [],
    estimates: playEstimate(passes),
    wishes: [],
    predicted: "Another sweep should find it at the height that is set.",
    ...{ beyond: null, judged: unread.length === 0 },
  };
}

/** Coming from one side the screw always lies on the same flank: its number is that side's own. */
function waysOf({ rising, falling, sdMm, freedom }: Passes, plan: SweepPlan): Way[] {
  const oneSide = (id: string, label: string, of: readonly number[]): Way[] => {
    if (of.length === 0) return [];
    const z0 = measured(mean(of), sdMm / Math.sqrt(of.length), freedom);
    return [{ id, label, helps: null, sum: sumOf(of), found: joined(z0.value, [noting(z0), ...settingParts(plan)]) }];
  };
  const ways = [
    ...oneSide("rising", "By rising passes, coming from below", rising),
    ...oneSide("falling", "By falling passes, coming from above", falling),
  ];
  if (rising.length === 0 || falling.length === 0) return ways;
  const middle = (mean(rising) + mean(falling)) / 2;
  const u = (sdMm / 2) * Math.sqrt(1 / rising.length + 1 / falling.length);
  const half = Math.abs(mean(rising) - mean(falling)) / 2;
  ways.push({
    ...{ id: "either", label: "By the middle of both", helps: null },
    sum: `(${plain(mean(rising), 2)} + ${plain(mean(falling), 2)}) ÷ 2 = ${plain(middle, 3)}`,
    found: joined(middle, [
      noting(measured(middle, u, freedom)),
      {
        ...{ id: "play", label: "From which side it is set", kind: "B", degreesOfFreedom: "infinite" },
        standardUncertainty: half / Math.sqrt(3),
      },
      ...settingParts(plan),
    ]),
  });
  return ways;
}

function noting({ standardUncertainty, degreesOfFreedom }: Measured) {
  return { id: "burn", label: "Noting the brightest point", kind: "A" as const, standardUncertainty, degreesOfFreedom };
}

function sumOf(of: readonly number[]): string {
  return `mean of ${of.map((v) => plain(v, 2)).join(", ")}: ${plain(mean(of), 3)}`;
}

/** Rising minus falling. */
function playOf({ rising, falling, sdMm, freedom }: Passes): Measured | null {
  if (rising.length === 0 || falling.length === 0) return null;
  return measured(mean(rising) - mean(falling), sdMm * Math.sqrt(1 / rising.length + 1 / falling.length), freedom);
}

function playEstimate(passes: Passes): Estimate[] {
  const play = playOf(passes);
  if (!play) return [];
  return [
    {
      ...{ id: "play", label: "Rising minus falling: play of the screw, and noting late", quantity: play, unit: "mm" },
      ...{ headline: false, helps: null },
      budget: [noting(play)],
    },
  ];
}

function playFinding(passes: Passes): Finding[] {
  const play = playOf(passes);
  if (!play || Math.abs(play.value) <= expandedUncertainty(play)) return [];
  return [
    {
      ...{ id: "play", tone: "note", site: null },
      headline: `Rising and falling passes differ by ${plain(Math.abs(play.value), 2)} mm.`,
      text: "That is the play of the screw, and how late the number is noted. Always come to the height from the same side, the one of the answer that you enter.",
    },
  ];
}

/** Whether another pass would help. */
function passFinding(passes: Passes, { found: { quantity, parts } }: Way, tolerance: number): Finding[] {
  const now = expandedUncertainty(quantity);
  const fewest = Math.min(passes.rising.length || Infinity, passes.falling.length || Infinity);
  if (!Number.isFinite(fewest)) return [];
  const shrink = Math.sqrt(fewest / (fewest + 1));
  const after = parts.map((p) => ({
    u: p.id === "burn" ? p.standardUncertainty * shrink : p.standardUncertainty,
    degreesOfFreedom:
      p.id === "burn" ? passes.freedom + 2 : p.degreesOfFreedom === "infinite" ? Infinity : p.degreesOfFreedom,
  }));
  const then = coverageFactor(effectiveFreedom(after)) * Math.hypot(...after.map((p) => p.u));
  const helps = then < now * (1 - WORTH_SHARE);
  const enough = now < tolerance / 2;
  return [
    {
      ...{ id: "another pass", tone: "note", site: null },
      headline: helps && !enough ? "Another pass each way would help." : "Another pass hardly helps.",
      text: `The height is known to ± ${plain(now, 2)} mm; one more pass each way makes it ± ${plain(then, 2)} mm. It has to lie within ${plain(tolerance, 2)} mm.`,
    },
  ];
}

function tableOf({ rising, falling }: Passes, ways: readonly Way[]): ResultTable {
  const row = (id: string, label: string, sites: string[], of: readonly number[]): ResultTable["rows"][number] => {
    const quantity = ways.find((w) => w.id === id)?.found.quantity;
    return {
      ...{ label, sites, cells: [of.length > 0 ? of.map((v) => plain(v, 2)).join("; ") : "…"] },
      result: quantity ? `${plain(quantity.value, 2)} ± ${plain(expandedUncertainty(quantity), 2)}` : "–",
      state: quantity ? "read" : "none",
    };
  };
  return {
    ...{ title: "Brightest point", columns: ["Passes", "heights"], resultLabel: "height, mm" },
    rows: [row("rising", "rising", [RISING_SITE], rising), row("falling", "falling", [FALLING_SITE], falling)],
  };
}

function warnings(_: SweepPlan, { machine }: PlanContext): PlanWarning[] {
  if (machine.kind === "galvo") return [];
  return [
    {
      field: "way",
      message:
        "On a gantry the square comes as many copies of itself in the file: move the height only while it runs, and keep hands away from the head.",
    },
  ];
}
