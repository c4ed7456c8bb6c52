/** `fit TRIAL --thickness "2.96 3.01"`: the slot to draw for a part, by the kerf that a trial told. */

import { FIT_GAPS_MM, type FitKind, slotFor } from "../core/fits/slot";
import { type Gauge, gaugeAsUsual } from "../core/metrology/gauge";
import { expandedUncertainty } from "../core/metrology/measured";
import { parseReading } from "../core/metrology/reading-text";
import { thicknessOf } from "../core/stock/thickness";
import { APART_WITH_DECIMAL_COMMAS, readQuantities } from "../core/trial/draft";
import { documentText } from "../formats/json-document";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

export type FitWords = {
  thickness: string;
  kind?: string;
  width?: string;
  interference?: string;
  compensated: boolean;
};

const CALIPERS: Gauge = gaugeAsUsual("calipers");

/** @throws CliFault where the trial tells no kerf, or a word cannot be read */
export function slotToDraw(file: string, document: TrialDocument, words: FitWords): string {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  const kept = outcome.status === "solved" ? outcome.forStock : undefined;
  const value = (id: string) => kept?.values.find((v) => v.id === id)?.quantity ?? null;
  const kerf = value("kerf");
  if (!kerf) throw new CliFault(file, "", "This trial tells no kerf.");
  const { kind = "snug" } = words;
  if (!Object.hasOwn(FIT_GAPS_MM, kind))
    throw new CliFault("", "--fit", `Choose one of ${Object.keys(FIT_GAPS_MM).join(", ")}.`);
  const read = readQuantities(words.thickness, "length", "mm", APART_WITH_DECIMAL_COMMAS);
  if (!read.ok) throw new CliFault("", "--thickness", read.message);
  const thickness = thicknessOf(read.value, CALIPERS);
  if (!thickness) throw new CliFault("", "--thickness", "Give what was squeezed, for example “2.96 3.01 2.98”.");
  const found = slotFor(
    {
      fit: kind as FitKind,
      thickness,
      kerf,
      snugSlotOffset: value("snug slot"),
      compensated: words.compensated,
      interferenceMm: words.interference === undefined ? 0 : length(words.interference, "--interference"),
      widthMm: words.width === undefined ? null : length(words.width, "--width"),
    },
    "mm",
  );
  return documentText({
    drawnMm: found.drawn.value,
    expandedMm: expandedUncertainty(found.drawn),
    drawnLengthMm: found.drawnLengthMm,
    chanceThatItWillNotGo: found.chanceNot,
    arithmetic: found.arithmetic,
  });
}

function length(text: string, name: string): number {
  const read = parseReading(text, "length", "mm");
  if (!read.ok) throw new CliFault("", name, read.message);
  return read.value;
}
