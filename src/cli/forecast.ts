/** `forecast TRIAL`: what the layout of the last round will be able to tell, before its readings, as JSON. */
import { z } from "zod";
import { forecastOf } from "../core/course/forecast";
import { contextOf } from "../formats/document-history";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

/** Checked by its procedure already. */
const planRecord = z.record(z.string(), z.unknown());

/** @throws CliFault where the readings are judged by eye, or too few are asked for to tell a result */
export function forecast(file: string, document: TrialDocument): string {
  const { procedure, history } = trialIn(file, document);
  const last = history.rounds.at(-1);
  const context = contextOf(document, history.rounds.length);
  const { tolerance } = history;
  const plan = last && planRecord.parse(last.plan);
  const found = plan && forecastOf({ procedure, plan, context, tolerance });
  if (!found)
    throw new CliFault(file, "rounds", "There is no forecast for this layout. Lay out a round that measures.");
  return `${JSON.stringify({ ...found, tolerance }, null, 2)}\n`;
}
