/** What is noticed of lines that are measured from edges. */
import { expandedUncertainty } from "../../fitting/student-t";
import { fixed, plain, shownLength } from "../../metrology/quantity-text";
import { type LengthUnit, MM_PER_INCH } from "../../metrology/units";
import { AXES, type Axis } from "../axes";
import type { Finding } from "../outcome";
import type { EdgesRead } from "./read-edges";
import { distanceOf, type EdgeTerms, ofEdge, sideOf } from "./terms";

const DEGREE = Math.PI / 180;
/** Less turn than this is laid by hand at its best, rad. (common practice, no source) */
const LITTLE_TURN = 0.05 * DEGREE;
const NEAR_SLIP = 0.05;
/** Places that were mixed up fit so much better the other way round. */
const SWAPPED_BY = 4;

export function edgeFindings(terms: EdgeTerms, read: EdgesRead, unit: LengthUnit): Finding[] {
  return [...slips(terms, read), ...swapped(terms, read, unit), ...turned(read)];
}

function turned({ turn }: EdgesRead): Finding[] {
  const { value } = turn.quantity;
  const expanded = expandedUncertainty(turn.quantity);
  if (Math.abs(value) <= Math.max(expanded, LITTLE_TURN)) return [];
  return [
    {
      ...{ id: "turned", tone: "note", site: null },
      headline: `It lies turned by ${fixed(Math.abs(value) / DEGREE, 2)} ± ${fixed(expanded / DEGREE, 2)}° ${value > 0 ? "counter-clockwise" : "clockwise"}.`,
      text: "Taken out of the numbers, which hold for the corner. Push the stock against both stops, or look for a chip under it; if it comes back, the stops are not square to the axes.",
    },
  ];
}

function slips(terms: EdgeTerms, { read, errors }: EdgesRead): Finding[] {
  return AXES.flatMap((axis): Finding[] => {
    const own = read.filter((r) => ofEdge(r.site).axis === axis);
    if (own.length === 0 || !errors[axis]) return [];
    const ratio = own.reduce((sum, r) => sum + r.mean, 0) / own.length / distanceOf(terms, axis);
    const is = (factor: number) => Math.abs(ratio / factor - 1) < NEAR_SLIP;
    if (!is(MM_PER_INCH) && !is(1 / MM_PER_INCH)) return [];
    return [
      {
        ...{ id: `slip ${axis}`, tone: "needs you", site: null },
        headline: `The distance from the ${sideOf(terms, axis)} edge is ${plain(ratio, 2)} times what is drawn.`,
        text: "That is a slip between inches and mm: in the file, or in what was typed.",
      },
    ];
  });
}

function swapped(terms: EdgeTerms, { read }: EdgesRead, unit: LengthUnit): Finding[] {
  const meanOf = (axis: Axis) => {
    const own = read.filter((r) => ofEdge(r.site).axis === axis);
    return own.length === 0 ? null : own.reduce((sum, r) => sum + r.mean, 0) / own.length;
  };
  const [x, y] = [meanOf("x"), meanOf("y")];
  if (x === null || y === null || terms.distanceXMm === terms.distanceYMm) return [];
  const asRead = Math.hypot(x - terms.distanceXMm, y - terms.distanceYMm);
  const asSwapped = Math.hypot(y - terms.distanceXMm, x - terms.distanceYMm);
  if (asSwapped * SWAPPED_BY >= asRead) return [];
  return [
    {
      ...{ id: "swapped", tone: "needs you", site: null },
      headline: "X and Y look as if they had changed places.",
      text: `From the ${terms.sideX} edge ${shownLength(x, unit, 1)} were read, from the ${terms.sideY} edge ${shownLength(y, unit, 1)}: each fits the other. Was the piece turned while it was read?`,
    },
  ];
}
