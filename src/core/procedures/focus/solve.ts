/** Focus height from what was burned: what to set, with every line of the sum. */
import { sitesLeft } from "../../trial/answer";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate } from "../../trial/outcome";
import { burnWayOf, foundIn } from "./burn-ways";
import { correctionsOf, FOCUS_ESTIMATE, storedFindings } from "./correction";
import type { Found } from "./found";
import type { FocusPlan } from "./plan";
import { spacerOf } from "./spacer";

export function solveFocus(history: History<FocusPlan>): GivenOutcome {
  const round = lastAnsweredRound(history);
  if (!round) return nothingYet(history);
  const found = foundIn(history, round);
  const findings = [...storedFindings(round), ...found.findings];
  const { chosen, table, figures, predicted } = found;
  if (!chosen) return { status: "unsolvable", reason: found.whyNot, table, findings };
  const spacer = spacerOf(history, round.plan, chosen);
  return {
    status: "solved",
    findings,
    table,
    figures,
    predicted,
    wishes: [...found.wishes, ...spacer.wishes],
    artefacts: spacer.artefacts,
    complete: sitesLeft(round.spec.sites, round.answers).length === 0,
    estimates: [...answersOf(found), ...found.estimates],
    corrections: correctionsOf(history, found, chosen, round),
  };
}

/** The newest round of which anything was said, if only that it cannot be read. */
export function lastAnsweredRound<P extends FocusPlan>(history: History<P>): RoundRecord<P> | undefined {
  return history.rounds.findLast((r) => r.answers.length > 0);
}

function nothingYet(history: History<FocusPlan>): GivenOutcome {
  const round = history.rounds.at(-1);
  return {
    status: "open",
    missing: round ? burnWayOf(round.plan).nothingRead : "Nothing burned yet.",
    table: null,
    findings: [],
  };
}

function answersOf({ ways, chosen }: Found): Estimate[] {
  const estimates = ways.map(
    (way): Estimate => ({
      id: way.id === chosen?.id ? FOCUS_ESTIMATE : way.id,
      label: way.id === chosen?.id ? "Focus height" : way.label,
      quantity: way.found.quantity,
      unit: "mm",
      headline: way.id === chosen?.id,
      budget: way.found.parts,
      helps: way.helps,
    }),
  );
  return estimates.sort((a, b) => Number(b.headline) - Number(a.headline));
}
