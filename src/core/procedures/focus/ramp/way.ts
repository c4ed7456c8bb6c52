/** The ramp as a way to the focus. */

import { defocusWish } from "../../../beam/defocus";
import { dosePower } from "../../../beam/mark-width-law";
import { DEPTH_SHARE, spotEstimates } from "../../../beam/spot-estimates";
import { widthFigure } from "../../../beam/width-figure";
import { FEWEST_CELLS, fitWidths, type WidthFit } from "../../../beam/width-fit";
import { mean, pooled } from "../../../fitting/repeats";
import { effectiveFreedom } from "../../../fitting/student-t";
import { namedAnswers, withoutLeftOut } from "../../../measuring/length-readings";
import { type BudgetPart, joined } from "../../../metrology/budget";
import { type Measured, measured } from "../../../metrology/measured";
import { plain } from "../../../metrology/quantity-text";
import { quantitiesAt, sitesLeft } from "../../../trial/answer";
import { lengthUnitOf } from "../../../trial/decisions";
import type { History, RoundRecord } from "../../../trial/history";
import type { Finding } from "../../../trial/outcome";
import type { PlanContext, PlanWarning } from "../../../trial/plan-form";
import type { BurnWay } from "../burn-way";
import { fitFindings, waysApart } from "../fit-findings";
import { type Found, GO_BY, ranked, settingParts, type Way } from "../found";
import { opticWarnings } from "../optic-warnings";
import { apartSense, type RampPlan, settingUncertainty } from "../plan";
import { FIRST_SITE, LAST_SITE, LIFT_SITE, rampRound, THINNEST_SITE } from "./coupon";
import { detailOf } from "./detail";
import { observeRamp } from "./observe";
import { type RampReadings, readRamp } from "./read-ramp";
import { clearanceOver, liftContradiction, lineLength, numbersAlong, slopeOf, slopeShare, ticksOf } from "./slope";
import { rampTable } from "./table";

/** Scatter of pointing at the sharpest place, as a share of what marked, and how many judgements that is worth. (common practice, no source) */
const EYE = { share: 0.12, unknownMm: 0.8, freedom: 2 };
/** Nearer to the end of the line than this it is no end of the mark, mm of height. */
const END_MM = 0.3;
const MORE_LOOKS = 3;
/** Fewer ticks tell little. */
const FEW_TICKS = 9;

export const ramp: BurnWay<RampPlan> = {
  nothingRead: "The ramp is not read yet. Enter where its line begins and ends.",
  warnings,
  round: rampRound,
  found,
  proofPlan: (_, { plan }, middleMm) => around(plan, middleMm),
  observe: (history, round) => observeRamp(history, round, () => answersIn(history, round).chosen?.id ?? null),
  contradicting: (history, round) =>
    waysApart(
      answersIn(history, round).ways,
      { sharpest: THINNEST_SITE, marked: FIRST_SITE },
      namedAnswers(round.answers, history.decisions),
    ),
  overlay: () => [],
  detail: detailOf,
  waysOut: () => [
    {
      text: `Read the sharpest point ${MORE_LOOKS} more times, or ask another person.`,
      sites: [THINNEST_SITE],
      more: MORE_LOOKS,
      gauge: null,
    },
  ],
};

function answersIn(history: History<RampPlan>, round: RoundRecord<RampPlan>) {
  const { plan } = round;
  const read = readRamp(history, round);
  const fit = read?.widths.some((w) => w.status === "marked") ? fitWidths(read.widths, dosePower(plan)) : null;
  const ways = read ? waysOf(read, fit, plan) : [];
  return { read, fit, ...ranked(ways, GO_BY.of(history.decisions)) };
}

function found(history: History<RampPlan>, round: RoundRecord<RampPlan>): Found {
  const { plan } = round;
  const { read, fit, ways, chosen } = answersIn(history, round);
  const short = read ? (shortEnd(read, plan) ?? sharpestAtEnd(read, plan)) : null;
  const slanted = slantIn(history, round);
  return {
    ways: slanted ? [] : ways,
    chosen: slanted ? null : chosen,
    whyNot:
      slanted ??
      short ??
      "These readings do not show where the focus is. Enter where the line begins and ends, or where it is sharpest.",
    findings: [
      ...(slanted ? [wrongSlope(slanted)] : []),
      ...(short ? [tooShort(short)] : []),
      ...fitFindings(fit, plan, history.machine),
      ...fewWidths(fit, read),
    ],
    table: read && rampTable(read, ways, round),
    figures: read
      ? widthFigure(
          { fit, beam: null },
          {
            heights: ticksOf(plan)
              .ticks.map((t) => t.heightMm)
              .sort((a, b) => a - b),
            widths: read.widths,
            doses: plan.doses,
          },
          lengthUnitOf(history),
          DEPTH_SHARE,
        )
      : [],
    estimates: spotEstimates({ fit, beam: null }, plan, history.machine),
    wishes: defocusWish(fit, plan, history),
    predicted: "Expect the sharpest point in the middle of a ramp around this height.",
    beyond: null,
    judged: sitesLeft(round.spec.sites, round.answers).length === 0,
  };
}

function waysOf(read: RampReadings, fit: WidthFit | null, plan: RampPlan): Way[] {
  const { first, last, looks, placeU, commonU } = read;
  const marked = first !== null && last !== null ? { first, last } : null;
  const ways: Way[] = [];
  if (fit?.status === "solved") {
    const count = read.widths.filter((w) => w.status === "marked").length;
    ways.push({
      id: "widths",
      label: "By the widths",
      helps: null,
      sum: `fitted to ${count} widths: ${plain(fit.z0.value, 2)}`,
      found: joined(fit.z0.value, partsOf(fit.z0, "A", "Widths and how they scatter", plan, 0)),
    });
  }
  if (marked && !shortEnd(read, plan)) {
    const z0 = measured((marked.first + marked.last) / 2, placeU / Math.SQRT2, Infinity);
    ways.push({
      id: "marked",
      label: "By first and last",
      helps: "Read the ends of the line with a magnifier.",
      sum: `(${plain(marked.first, 2)} + ${plain(marked.last, 2)}) ÷ 2 = ${plain(z0.value, 3)}`,
      found: joined(z0.value, partsOf(z0, "B", "Where the line begins and ends to be seen", plan, commonU)),
    });
  }
  if (looks.length > 0 && !sharpestAtEnd(read, plan)) {
    const z0 = sharpestOf(looks, marked && Math.abs(marked.last - marked.first), placeU);
    ways.push({
      id: "sharpest",
      label: "By the sharpest",
      helps: "Read again on another day, or ask another person.",
      sum: `mean of ${looks.map((l) => plain(l, 2)).join(", ")}: ${plain(z0.value, 3)}`,
      found: joined(z0.value, partsOf(z0, "A", "Pointing at the sharpest place", plan, commonU)),
    });
  }
  return ways;
}

/** Repeats are pooled with what is usual of the eye. */
function sharpestOf(looks: readonly number[], marked: number | null, placeU: number): Measured {
  const usual = marked === null ? EYE.unknownMm : EYE.share * marked;
  const { sd, freedom } = pooled([looks], { sd: usual, freedom: EYE.freedom });
  const eye = sd / Math.sqrt(looks.length);
  const parts = [
    { u: eye, degreesOfFreedom: freedom },
    { u: placeU, degreesOfFreedom: Infinity },
  ];
  return measured(mean(looks), Math.hypot(eye, placeU), effectiveFreedom(parts));
}

/** Rise and run tilt the whole scale about its low end; the low height shifts it; and the answer must be set. */
function partsOf(z0: Measured, kind: "A" | "B", label: string, plan: RampPlan, commonU: number): BudgetPart[] {
  const share = slopeShare(plan);
  const stated = { kind: "B", degreesOfFreedom: "infinite" } as const;
  return [
    { id: "burn", label, kind, standardUncertainty: z0.standardUncertainty, degreesOfFreedom: z0.degreesOfFreedom },
    {
      ...stated,
      id: "slope",
      label: "Rise and run of the plate",
      standardUncertainty: share * Math.abs(plan.lowMm - z0.value),
    },
    { ...stated, id: "low", label: "Height over the low end", standardUncertainty: settingUncertainty(plan) },
    ...(commonU > 0
      ? [{ ...stated, id: "rule", label: "Common error of the rule", standardUncertainty: commonU }]
      : []),
    ...settingParts(plan),
  ];
}

/** At an end of the line it is not known how much further it would have marked; `null` where both ends are inside. */
function shortEnd({ first, last, low, high }: RampReadings, plan: RampPlan): string | null {
  if (first === null || last === null) return null;
  const ends = [Math.min(first, last), Math.max(first, last)] as const;
  const isLow = ends[0] < low + END_MM;
  const isHigh = ends[1] > high - END_MM;
  if (!isLow && !isHigh) return null;
  const where = isLow && isHigh ? "both ends" : isLow === apartSense(plan) > 0 ? "the high end" : "the low end";
  return `The line is visible up to ${where} of the plate. Use less power, more rise, or another height over the low end.`;
}

/** Within this share of the height from an end, the sharpest point may be outside the line. */
const AT_END_SHARE = 0.08;

/** What to do if the sharpest point is at an end of the line; `null` if it is inside. */
function sharpestAtEnd({ looks, low, high }: RampReadings, plan: RampPlan): string | null {
  if (looks.length === 0) return null;
  const inset = AT_END_SHARE * (high - low);
  const isLow = mean(looks) < low + inset;
  if (!isLow && mean(looks) <= high - inset) return null;
  return isLow === apartSense(plan) > 0
    ? "The line is sharpest at the high end of the plate. The focus may be outside the line. Set another height over the low end."
    : "The line is sharpest at the low end of the plate. The focus may be outside the line. Set another height over the low end.";
}

/** Why the lift of the line contradicts rise and run; `null` where it does not, or is not read. */
function slantIn({ decisions }: History<RampPlan>, { plan, answers }: RoundRecord<RampPlan>): string | null {
  const slope = slopeOf(plan);
  const lift = quantitiesAt(withoutLeftOut(answers, decisions), LIFT_SITE).at(-1);
  return slope && lift !== undefined ? liftContradiction(plan, slope, lift) : null;
}

function wrongSlope(text: string): Finding {
  const headline = "The slope of the ramp does not match its layout.";
  return { id: "slope of the ramp", tone: "needs you", site: LIFT_SITE, headline, text };
}

function tooShort(text: string): Finding {
  return { id: "ramp too short", tone: "needs you", site: LAST_SITE, headline: "The ramp ended too early.", text };
}

/** Why widths were read and nothing is said by them. */
function fewWidths(fit: WidthFit | null, read: RampReadings | null): Finding[] {
  if (fit?.status !== "cannot tell" || !read) return [];
  const count = read.widths.filter((w) => w.status === "marked").length;
  const few = fit.reason === "few cells";
  return [
    {
      id: "widths do not tell",
      tone: "note",
      site: null,
      headline: few ? `Only ${count} ticks marked.` : "The widths do not show the focus.",
      text: few
        ? `The focus by widths needs at least ${FEWEST_CELLS} marked ticks. Use less rise, or a little more power.`
        : "The widths have no smallest point along this line. Use another height over the low end.",
    },
  ];
}

/** So many steps further apart are tried. */
const MOST_LIFTS = 80;

/** Focus in the middle of the line, or as near to it as nothing touches over the high end. */
function around(plan: RampPlan, middleMm: number): RampPlan {
  const kept = { ...plan, homedMm: undefined };
  const slope = slopeOf(plan);
  if (!slope) return plan;
  const lift = (lineLength(plan, slope) / 2) * slope.tangent + plan.thicknessMm / slope.cosine;
  const first = Math.round((middleMm + apartSense(plan) * lift) / plan.settableMm);
  for (let k = 0; k < MOST_LIFTS; k++) {
    const lowMm = Number(((first + apartSense(plan) * k) * plan.settableMm).toFixed(6));
    const next = { ...kept, lowMm };
    const { low, high } = numbersAlong(next, slope);
    if (low >= plan.lowestMm && high <= plan.highestMm && clearanceOver(next) >= 0) return next;
  }
  return { ...kept, lowMm: plan.lowMm };
}

function warnings(plan: RampPlan, { machine, optic }: PlanContext): PlanWarning[] {
  const slope = slopeOf(plan);
  if (!slope) return [];
  const { low, high } = numbersAlong(plan, slope);
  const all = opticWarnings({ plan, low, high, field: "lowMm" }, machine, optic);
  if (plan.judged === "by widths" && ticksOf(plan).ticks.length < FEW_TICKS)
    all.push({
      field: "riseMm",
      message: "The widths of so few ticks do not show the focus well. Use more rise, or a longer plate.",
    });
  return all;
}
