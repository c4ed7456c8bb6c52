/** What a ladder shows besides its focus, and what to do about it. */

import type { MachineSpec } from "../../../machine/machine-spec";
import { plain } from "../../../metrology/quantity-text";
import type { RoundRecord } from "../../../trial/history";
import type { Finding } from "../../../trial/outcome";
import { fitFindings } from "../fit-findings";
import type { LadderPlan } from "../plan";
import { MARKED_SITE } from "./coupon";
import type { LadderReadings } from "./read-ladder";
import { type Ladder, shortSide } from "./ways";

/** So few marked cells lie too far apart. */
const FEW_MARKED = 4;

export function findingsOf(ladder: Ladder, round: RoundRecord<LadderPlan>, machine: MachineSpec): Finding[] {
  const { plan } = round;
  return [...shortLadder(ladder), ...coarseSteps(ladder, plan), ...fitFindings(ladder.fit, plan, machine)];
}

/** The words for an end of the ladder. */
export function endText(
  side: "before the first" | "beyond the last" | "both sides",
  { cells }: Pick<LadderReadings, "cells">,
): string {
  const [low, high] = [cells[0]?.heightMm ?? 0, cells.at(-1)?.heightMm ?? 0];
  if (side === "both sides") return `below ${plain(low)} mm and above ${plain(high)} mm`;
  return side === "before the first" ? `below ${plain(low)} mm` : `above ${plain(high)} mm`;
}

function shortLadder(ladder: Ladder): Finding[] {
  const where = shortSide(ladder);
  if (!where) return [];
  const side = ladder.range?.status === "too short";
  return [
    {
      id: "ladder too short",
      tone: "needs you",
      site: side ? MARKED_SITE : null,
      headline: "The ladder ended too early.",
      text: `Burn cells ${endText(where, ladder.readings)} as well, until one leaves no mark.`,
    },
  ];
}

function coarseSteps({ readings: { marked } }: Ladder, { stepMm }: LadderPlan): Finding[] {
  const count = marked ? marked.last - marked.first + 1 : Infinity;
  if (count >= FEW_MARKED) return [];
  return [
    {
      id: "step too coarse",
      tone: "note",
      site: MARKED_SITE,
      headline: count === 1 ? "Only one cell marked." : `Only ${count} cells marked.`,
      text: `The step of ${plain(stepMm)} mm is too large. Use a smaller step around this height, or a little more power.`,
    },
  ];
}
