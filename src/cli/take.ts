/** `take TRIAL --sheet FILE`: readings of the last round from a filled sheet, whole or not at all. */
import type { Site } from "../core/coupon/site";
import { questionAbout } from "../core/course/plausibility";
import { textFromInput } from "../core/trial/answer-text";
import { type CsvReading, parseReadingsCsv } from "../formats/readings-csv";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { fileText, trialIn } from "./document-file";

/**
 * @param sure takes what is unlikely too
 * @throws CliFault when a cell cannot be read, or is unlikely and nobody said it is right
 */
export function take(file: string, document: TrialDocument, sheetFile: string, sure: boolean): TrialDocument {
  const { history } = trialIn(file, document);
  const round = history.rounds.at(-1);
  if (!round) throw new CliFault(file, "rounds", "The trial has no round to read.");
  const rows = parseReadingsCsv(fileText(sheetFile), round.spec.sites);
  if (!rows.ok) throw new CliFault(sheetFile, `line ${rows.line}, column ${rows.column}`, rows.message);
  if (rows.value.length === 0) throw new CliFault(sheetFile, "", "No reading is filled in on this sheet.");
  const readings = rows.value.map((row) => written(row, round.spec.sites));
  const last = document.rounds.length - 1;
  const taken = {
    ...document,
    rounds: document.rounds.map((r, i) =>
      i === last ? { ...r, spec: round.spec, readings: [...r.readings, ...readings] } : r,
    ),
  };
  const before = document.rounds[last]?.readings.length ?? 0;
  const questions = sure ? [] : questionsFrom(file, taken, before, rows.value);
  if (questions[0])
    throw new CliFault(sheetFile, `line ${questions[0].line}`, `${questions[0].text} If it is right: --sure.`);
  return taken;
}

function written(
  { site: id, input }: CsvReading,
  sites: readonly Site[],
): TrialDocument["rounds"][number]["readings"][number] {
  const site = sites.find((s) => s.id === id) as Site;
  const { reading, words } = textFromInput(site, input);
  const cannotRead = input.kind === "cannot read" ? input.why : null;
  return { site: id, reading, which: words, cannotRead, from: "typed", taken: null };
}

/** Every new reading that a person would be asked about, with the readings before it known. */
function questionsFrom(file: string, taken: TrialDocument, before: number, rows: readonly CsvReading[]) {
  const { procedure, history } = trialIn(file, taken);
  const round = history.rounds.at(-1);
  if (!round) return [];
  return rows.flatMap(({ line }, i) => {
    const answer = round.answers[before + i];
    const site = round.spec.sites.find((s) => s.id === answer?.site);
    if (!answer || !site || answer.content.status !== "read") return [];
    const known = { ...round, answers: round.answers.slice(0, before + i) };
    const text = questionAbout(
      procedure,
      { ...history, rounds: [...history.rounds.slice(0, -1), known] },
      site,
      answer.content.value,
    );
    return text ? [{ line, text }] : [];
  });
}
