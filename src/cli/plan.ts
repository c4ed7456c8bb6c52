/** `plan PROCEDURE --machine FILE`: a filled-in document to start from. */

import { isMeasured } from "../core/coupon/ask";
import type { RoundSpec } from "../core/coupon/round-spec";
import { procedureById } from "../core/course/registry";
import { machineSpecSchema } from "../core/machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../core/metrology/gauge";
import type { SettingsInForce } from "../core/settings/setting";
import type { StockAtHand } from "../core/stock/stock-at-hand";
import { draftOf } from "../core/trial/draft";
import type { PlanContext } from "../core/trial/plan-form";
import { documentText } from "../formats/json-document";
import { FORMAT, trialDocumentSchema, VERSION } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { jsonFile } from "./document-file";

export function plan(procedureId: string, machineFile: string): string {
  const machine = jsonFile(machineFile, machineSpecSchema);
  const procedure = procedureOf(procedureId);
  if (!procedure.machineKinds.includes(machine.kind))
    throw new CliFault(machineFile, "kind", `${procedure.title} is not done on a ${machine.kind}.`);
  const stocks = procedure.stock ? [SOME_STOCK] : [];
  const context: PlanContext = { machine, couponCode: "T-1", inForce: {}, stocks };
  const form = procedure.plan(context);
  const spec = procedure.round(form.defaults, context, "measure");
  const gauge = gaugeFor(spec);
  const inside = spec.sites.some(({ ask }) => ask.kind === "quantity" && ask.jaws === "inside");
  const inForce: SettingsInForce = Object.fromEntries(
    procedure.settings.map((s) => [s.key, s.shape === "table" ? { shape: "table", rows: [] } : null]),
  );
  // Inside jaws have a zero of their own: as good as closed ones show until it is looked at.
  const sitting = { id: "1", gauge: gauge.id, ...(inside ? { insideZero: "0 mm" } : {}) };
  return documentText(
    trialDocumentSchema.parse({
      format: FORMAT,
      version: VERSION,
      procedure: procedure.id,
      machine,
      gauges: [gauge],
      stocks,
      rounds: [{ plan: draftOf(form, form.defaults), inForce, sittings: [sitting] }],
    }),
  );
}

/** To be filled in: its thickness is not known. */
const SOME_STOCK: StockAtHand = { key: "sheet/1", name: "Sheet", batch: "1", nominalMm: 3, thickness: null };

/** Calipers where anything is measured, else the eye. */
function gaugeFor({ sites }: RoundSpec): Gauge {
  return sites.some((s) => isMeasured(s.ask)) ? gaugeAsUsual("calipers") : gaugeAsUsual("eye");
}

function procedureOf(id: string) {
  try {
    return procedureById(id);
  } catch {
    throw new CliFault("", "procedure", `There is no procedure “${id}”. \`procedures\` lists them.`);
  }
}
