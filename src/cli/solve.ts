/** `solve TRIAL`: what the readings amount to, as JSON, beside the verdicts that were accepted; `results TRIAL`: the numbers as CSV. */
import { lengthUnitOf } from "../core/trial/decisions";
import { resultsCsv } from "../formats/results-csv";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

export function solve(file: string, document: TrialDocument): string {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  const verdict = procedure.judge(history);
  const next = procedure.next(history, outcome);
  return `${JSON.stringify({ ...outcome, verdict, recorded: document.verdicts, next }, null, 2)}\n`;
}

export function results(file: string, document: TrialDocument): string {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  if (outcome.status !== "solved")
    throw new CliFault(file, "rounds", outcome.status === "open" ? outcome.missing : outcome.reason);
  return resultsCsv(outcome, lengthUnitOf(history));
}
