/** `forecast TRIAL`: the uncertainty to expect of the layout of the last round, before its readings, as JSON. */
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
    throw new CliFault(
      file,
      "rounds",
      "This layout has no forecast. Choose a trial of which the result has an uncertainty.",
    );
  return `${JSON.stringify({ ...found, tolerance }, null, 2)}\n`;
}
