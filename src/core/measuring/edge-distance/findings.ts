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
      headline: `It lies turned by ${fixed(Math.abs(value) / DEGREE, 2)} ± ${fixed(expanded / DEGREE, 2)}° ${value > 0 ? "counter-clockwise" : "clockwise"}.`,
      text: "Taken out of the numbers, which hold for the corner. Push the stock against both stops, or look for a chip under it; if it comes back, the stops are not square to the axes.",
    },
  ];
}
