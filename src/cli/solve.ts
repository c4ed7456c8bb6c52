/** `solve TRIAL`: what the readings amount to, as JSON. */
import type { TrialDocument } from "../formats/trial-document";
import { trialIn } from "./document-file";

export function solve(file: string, document: TrialDocument): string {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  const verdict = procedure.judge(history);
  const next = procedure.next(history, outcome);
  return `${JSON.stringify({ ...outcome, verdict, next }, null, 2)}\n`;
}
