import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import type { Finding } from "../../trial/outcome";
import type { EdgesRead } from "./read-edges";

const DEGREE = Math.PI / 180;
/** Less turn than this is laid by hand at its best, rad. (common practice, no source) */
const LITTLE_TURN = 0.05 * DEGREE;

/** What is noticed of lines that are measured from edges: how the stock lies. */
export function edgeFindings({ turn }: EdgesRead): Finding[] {
  const { value } = turn.quantity;
  const expanded = expandedUncertainty(turn.quantity);
  if (Math.abs(value) <= Math.max(expanded, LITTLE_TURN)) return [];
  return [
    {
      id: "turned",
      tone: "note",
      site: null,
      headline: `The stock is turned by ${fixed(Math.abs(value) / DEGREE, 2)} ± ${fixed(expanded / DEGREE, 2)}° ${value > 0 ? "counter-clockwise" : "clockwise"}.`,
      text: "The results are corrected for this turn. Push the stock against both stops and remove any chips. If the turn returns, the stops are not square to the axes.",
    },
  ];
}
