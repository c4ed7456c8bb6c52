/** What a distance should read: as the other place at the same edge reads, else as it is drawn. */
import { mean } from "../../fitting/repeats";
import { type Measured, measured } from "../../metrology/measured";
import { quantitiesAt } from "../answer";
import type { History } from "../contract";
import { distanceOf, type EdgeTerms, edgeSite, ofEdge } from "./terms";

/** Two places at one edge differ by no more than a stock lies turned, sd, mm. (common practice, no source) */
const SAME_EDGE_MM = 0.5;

/** @param withinMm how far a line may lie off before anything is read, sd, mm */
export function expectedDistance<P extends EdgeTerms>(
  history: History<P>,
  site: string,
  withinMm: number,
): Measured | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const { axis, which } = ofEdge(site);
  const beside = quantitiesAt(round.answers, edgeSite(axis, which === 1 ? 2 : 1));
  if (beside.length > 0) return measured(mean(beside), SAME_EDGE_MM, Infinity);
  return measured(distanceOf(round.plan, axis), withinMm, Infinity);
}
