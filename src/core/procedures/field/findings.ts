/** Findings on the settings of a field, and the conditions for which the field is valid. */
import { numberIn } from "../../measuring/number-correction";
import { fixed, plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Tuned } from "./correction";
import { termName } from "./map";
import { type FieldPlan, formTermsOf } from "./plan";
import { effectMm } from "./present";
import { fieldKey } from "./setting";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

export function tuningFindings({ term, step, tries }: Tuned): Finding[] {
  const says = (id: string, tone: Finding["tone"], headline: string, text: string): Finding[] => [
    { id: `${id} ${term}`, tone, site: null, headline, text },
  ];
  if (step.do === "try") {
    if (step.why !== "first step" && step.why !== "larger step") return [];
    return says(
      "tune",
      "note",
      `The effect of ${termName(term)} is not known.`,
      "Enter the value and burn again. The next burn shows the effect.",
    );
  }
  if (step.why === "end of range")
    return says(
      "out of range",
      "needs you",
      `${termName(term)} reaches the end of its range.`,
      "The range of this setting cannot correct the error. Enter the nearest value. Check that X and Y of the head are not mixed up.",
    );
  if (step.why === "nearest" && tries.length > 1)
    return says(
      "no zero",
      "needs you",
      `No value of ${termName(term)} gives zero.`,
      "The nearest value is shown. Check that the controller uses this coefficient.",
    );
  return [];
}

/** A coefficient that is to be tried needs its range. */
export function rangeMissing(history: H, round: Round, tuned: readonly Tuned[]): Finding[] {
  return formTermsOf(round.plan).flatMap((term): Finding[] => {
    const isTuned = tuned.some((t) => t.term === term);
    const isReadBack = numberIn(round, fieldKey(term)) !== null;
    if (isTuned || !isReadBack || effectMm(history, round, term) !== null) return [];
    return [
      {
        id: `range ${term}`,
        tone: "needs you",
        site: null,
        headline: `The range of ${termName(term)} is not known.`,
        text: "Enter its smallest and largest value on the machine page. Ustrina then proposes a value to try.",
      },
    ];
  });
}

/** The conditions of the burn. In others the field is another one. */
export function belongsTo({ plan }: Round): Finding {
  const perTenth = 0.1 * Math.tan((plan.beamDeg * Math.PI) / 180);
  const height = plan.heightMm ? `a height of ${plain(plan.heightMm, 2)} mm and ` : "";
  return {
    id: "belongs to",
    tone: "note",
    site: null,
    headline: `This field is valid for ${height}stock of ${plain(plan.stockMm, 2)} mm.`,
    text: `A height that is 0.1 mm wrong moves the edge of the field by ${fixed(perTenth, 3)} mm. Set the focus on the top face of every stock.`,
  };
}
