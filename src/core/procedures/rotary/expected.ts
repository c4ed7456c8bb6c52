/** What a site should read: a size as it was laid out, a length about as it was sent, everything else as it was read there before. */
import { mean } from "../../fitting/repeats";
import { type Measured, measured } from "../../metrology/measured";
import { quantitiesAt } from "../../trial/answer";
import type { History } from "../../trial/history";
import { type RotaryPlan, tapeOn } from "./plan";
import { SITES, TAPE_LAYERS } from "./travel";

/** A part is laid out to within this before it is measured well, mm. */
const LAID_OUT_WITHIN_MM = 2;
/** A drive that was never adjusted may be off by this share, sd. (common practice, no source) */
const UNADJUSTED_SHARE = 0.5;
/** The same place read again, with a rule too, mm. (common practice, no source) */
const AGAIN_WITHIN_MM = 0.5;

export function expectedAt(history: History<RotaryPlan>, site: string): Measured | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const { plan, answers } = round;
  if (site === SITES.marked || site === SITES.resting) {
    const across = site === SITES.marked ? plan.diameterMm : plan.restsOnMm;
    return measured(across * (plan.sizedBy === "around" ? Math.PI : 1), LAID_OUT_WITHIN_MM, Infinity);
  }
  if (site === SITES.tape) {
    const mm = TAPE_LAYERS * tapeOn(plan);
    return measured(mm, mm, Infinity);
  }
  // The slip of a part is not known beforehand.
  if (site === SITES.back) return null;
  const before = quantitiesAt(answers, site);
  const drawn = site === SITES.span || site === SITES.line ? plan.spanMm : undefined;
  if (before.length === 0 && drawn !== undefined) return measured(drawn, UNADJUSTED_SHARE * drawn, Infinity);
  return before.length === 0 ? null : measured(mean(before), AGAIN_WITHIN_MM, Infinity);
}
