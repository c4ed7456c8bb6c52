/** What a burn tells of its focus, whichever way it was burned. */

import type { XyFigure } from "../../drawing/figure";
import { known, type Observation } from "../../estimate/model";
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { typed } from "../../trial/decision";
import type { Estimate, Finding, ResultTable, Wish } from "../../trial/outcome";
import { type FocusPlan, type HeightTerms, settingUncertainty } from "./plan";

/** The decision by which of several answers is gone. */
export const GO_BY = typed("focus by");

/** One answer. */
export type Way = {
  /** Stable, for example `widths`. */
  id: string;
  label: string;
  found: Budgeted;
  /** How it came about, as a sum. */
  sum: string;
  /** What would make it surer; `null` where nothing simple would. */
  helps: string | null;
  /** It suits lines of one direction alone: gone by only where a person chooses it. */
  onRequest?: true;
};

export type Found = {
  /** Smallest uncertainty first. */
  ways: Way[];
  /** The one that is gone by. */
  chosen: Way | null;
  /** Why there is none. */
  whyNot: string;
  findings: Finding[];
  table: ResultTable | null;
  figures: XyFigure[];
  /** Besides the answers themselves. */
  estimates: Estimate[];
  wishes: Wish[];
  /** What the next burn should show. */
  predicted: string;
  /** What goes on where this burn ended too early, and from where to where; `null` where it did not. */
  beyond: { plan: FocusPlan; why: string } | null;
  /** Whether what was read may be gone on from. */
  judged: boolean;
};

/** Smallest uncertainty first, and the one that a person chose, or else that first one. */
export function ranked(ways: readonly Way[], wanted: string): Pick<Found, "ways" | "chosen"> {
  const sorted = [...ways].sort(
    (a, b) => expandedUncertainty(a.found.quantity) - expandedUncertainty(b.found.quantity),
  );
  return { ways: sorted, chosen: sorted.find((w) => w.id === wanted) ?? sorted.find((w) => !w.onRequest) ?? null };
}

/** With the uncertainty of setting a height added. */
export function withSetting(found: Measured, kind: "A" | "B", label: string, terms: HeightTerms): Budgeted {
  const { standardUncertainty, degreesOfFreedom } = found;
  return joined(found.value, [
    { id: "burn", label, kind, standardUncertainty, degreesOfFreedom },
    ...settingParts(terms),
  ]);
}

/** The parameter by which setting and reading a height is part of what is set. */
export const SETTING = "setting";

/** How well a height is set and read, as something known beforehand. */
export function knownSetting(u: number): Observation {
  return known(SETTING, "setting the height", { u, canBeWrong: false });
}

export function settingParts(terms: HeightTerms): BudgetPart[] {
  return [
    {
      id: "setting",
      label: "Setting the height",
      kind: "B",
      degreesOfFreedom: "infinite",
      standardUncertainty: settingUncertainty(terms),
    },
  ];
}
