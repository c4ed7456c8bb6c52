/** The height ladder as a way to the focus: everything of it in one place. */

import { defocusWish } from "../../../beam/defocus";
import { DEPTH_SHARE, spotEstimates } from "../../../beam/spot-estimates";
import { widthFigure } from "../../../beam/width-figure";
import type { Primitive } from "../../../drawing/scene";
import { namedAnswers } from "../../../measuring/length-readings";
import { inUnit, plain } from "../../../metrology/quantity-text";
import { sitesLeft } from "../../../trial/answer";
import { lengthUnitOf } from "../../../trial/decisions";
import type { History, RoundRecord } from "../../../trial/history";
import type { WayOut } from "../../../trial/verdict";
import type { BurnWay } from "../burn-way";
import { waysApart } from "../fit-findings";
import type { Found } from "../found";
import type { LadderPlan } from "../plan";
import { focusRound, MARKED_SITE, SHARPEST_SITE, widthSite } from "./coupon";
import { detailOf } from "./detail";
import { endText, findingsOf } from "./findings";
import { placesOf } from "./layout";
import { observeLadder } from "./observe";
import { burnOnPlan, proofPlan } from "./proof-plan";
import { readLadder, runsOf } from "./read-ladder";
import { resultTable } from "./result-table";
import { ladderWarnings } from "./warnings";
import { type Ladder, ladderOf } from "./ways";

const MORE_LOOKS = 3;

export const heightLadder: BurnWay<LadderPlan> = {
  nothingRead: "No cell is judged yet. Choose the first and the last cell with a mark.",
  warnings: ladderWarnings,
  round: focusRound,
  found,
  proofPlan: (history, round, middleMm) => proofPlan(round.plan, middleMm, ladderOf(history, round).readings.marked),
  observe: observeLadder,
  contradicting: (history, round) =>
    waysApart(
      ladderOf(history, round).ways,
      { sharpest: SHARPEST_SITE, marked: MARKED_SITE },
      namedAnswers(round.answers, history.decisions),
    ),
  overlay: readCells,
  detail: detailOf,
  waysOut,
};

function found(history: History<LadderPlan>, round: RoundRecord<LadderPlan>): Found {
  const ladder = ladderOf(history, round);
  const { ways, chosen } = ladder;
  const unread = sitesLeft(round.spec.sites, round.answers).map((s) => s.id);
  return {
    ways,
    chosen,
    whyNot: whyNot(ladder, round),
    findings: findingsOf(ladder, round, history.machine),
    table: resultTable(ladder, round),
    figures: widthFigure(
      ladder,
      {
        heights: ladder.readings.cells.map((c) => c.heightMm),
        widths: ladder.readings.widths,
        doses: round.plan.doses,
      },
      lengthUnitOf(history),
      DEPTH_SHARE,
    ),
    estimates: spotEstimates(ladder, round.plan, history.machine),
    wishes: defocusWish(ladder.fit, round.plan, history),
    predicted: chosen
      ? `Expect cells equally far above and below ${inUnit(chosen.found.quantity.value, "mm", 2)} to look alike.`
      : "",
    beyond: goOn(ladder, round),
    judged: isJudged(round, unread),
  };
}

/** Cells marked up to the end of the ladder: it goes on there, and what was read so far stays part of it. */
function goOn(ladder: Ladder, round: RoundRecord<LadderPlan>): Found["beyond"] {
  const plan = burnOnPlan(ladder, round);
  if (!plan) return null;
  const [low, high] = [plan.firstMm, plan.firstMm + (plan.count - 1) * plan.stepMm];
  return {
    plan,
    why: `Burn cells from ${plain(low)} to ${plain(high)} mm too, until one leaves no mark. Ustrina keeps the readings so far.`,
  };
}

function waysOut({ spec }: RoundRecord<LadderPlan>): WayOut[] {
  if (!spec.sites.some((s) => s.id === SHARPEST_SITE)) return [];
  return [
    {
      text: `Choose the sharpest cell ${MORE_LOOKS} more times, or ask another person.`,
      sites: [SHARPEST_SITE],
      more: MORE_LOOKS,
      gauge: null,
    },
  ];
}

function whyNot({ range, fit, beam, readings, sharpestAtEnd }: Ladder, { answers }: RoundRecord<LadderPlan>): string {
  const isLost = answers.some((a) => a.site === MARKED_SITE && a.content.status === "cannot read");
  if (isLost && !range && !fit)
    return "No cell with a mark is chosen. If none marked, use more power, a slower speed or other heights, and burn again.";
  if (sharpestAtEnd)
    return `The sharpest cell is at an end of the ladder. The focus may be outside the ladder. Burn more cells ${endText(sharpestAtEnd, readings)}.`;
  if (range?.status === "too short")
    return `All cells up to an end of the ladder marked. Burn more cells ${endText(range.side, readings)}, or choose the sharpest cell.`;
  const widths = fit ?? beam;
  if (widths?.status === "cannot tell" && widths.reason === "few cells")
    return beam
      ? "The focus needs at least five widths of the beam. Measure the beam at more heights."
      : "The focus by widths needs at least six cells. Read more widths, or choose the first and the last cell with a mark.";
  if (widths?.status === "cannot tell" && widths.reason !== "no turn")
    return `The widths show a focus ${endText(widths.reason === "focus beyond the first" ? "before the first" : "beyond the last", readings)}, or within one step of there. Burn more cells there.`;
  return "These readings do not show where the focus is. Choose the first and the last cell with a mark, or the sharpest cell.";
}

/** Whether it is known which cells marked; where widths are read they may still tell, so all of them are waited for. */
function isJudged({ plan }: RoundRecord<LadderPlan>, unread: readonly string[]): boolean {
  return plan.judged === "by eye" ? !unread.includes(MARKED_SITE) : unread.length === 0;
}

/** Cells that were judged are framed, the sharpest with a ring. */
function readCells(history: History<LadderPlan>): Primitive[] {
  const round = history.rounds.at(-1);
  if (!round) return [];
  if (round.plan.doses === "beam") return [];
  const readings = readLadder(history, [round]);
  const places = placesOf(round.plan);
  const framed = readings.marked ? [readings.marked.first, readings.marked.last] : [];
  const sharp = readings.looks.at(-1) ?? [0, -1];
  return places.flatMap(({ area, number }, i): Primitive[] => {
    const sites = runsOf(round.plan).map((run) => widthSite(number, run));
    const widths = sites.every((site) => round.answers.some((a) => a.site === site));
    const isSharp = i >= sharp[0] && i <= sharp[1];
    const frame: Primitive = {
      kind: "cell",
      x0: area.x0 - 0.6,
      y0: area.y0 - 0.6,
      x1: area.x1 + 0.6,
      y1: area.y1 + 0.6,
      label: "",
      tone: isSharp ? "proved" : "data",
    };
    const tick: Primitive = {
      kind: "highlight",
      at: { x: area.x1, y: area.y1 },
      radiusMm: 1,
      sign: "tick",
      tone: "proved",
    };
    return [...(isSharp || framed.includes(i) ? [frame] : []), ...(widths ? [tick] : [])];
  });
}
