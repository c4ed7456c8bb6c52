/** The report of a machine: every setting in force with its uncertainty and its origin, and the state of every procedure. */

import { isOpen, STATE_WORDS } from "../../core/course/state";
import { kindText } from "../../core/machine/machine-kind";
import { afterNumber, decimalsFor, fixed, plain } from "../../core/metrology/quantity-text";
import { fromInternal, type LengthUnit, type UnitId } from "../../core/metrology/units";
import { valueText } from "../../core/settings/entry-text";
import { dayOf } from "../../core/trial/plan-form";
import type { Db } from "../../data/database";
import { allGauges } from "../../data/gauges";
import type { LedgerEntry } from "../../data/ledger";
import { machineBySlug } from "../../data/machines";
import type { MachineReport, ReportSetting } from "../../formats/machine-report/report-content";
import { reportPages } from "../../formats/machine-report/report-pages";
import type { Paper, SheetPage } from "../../formats/paper/sheet-page";
import { sheetPdf } from "../../formats/paper/sheet-pdf";
import { behindOf } from "../machine/open-holders";
import { machineRecord } from "../procedures/machine-record";
import { offeredProcedures } from "../procedures/procedures";
import { Refusal } from "../refusal";
import { type MachineView, machineView } from "./machine-view";

/** Coverage factor of about 95 %. [JCGM 100:2008 (GUM), 6.3.3] */
const COVERAGE = 2;
const ORIGIN_WORDS = { found: "as found", trial: "trial", hand: "entered by hand", restored: "restored" } as const;

/** @throws Refusal where there is no machine of this address */
export function machineReport(db: Db, slug: string, now: number, length: LengthUnit = "mm"): MachineReport {
  const machine = machineBySlug(db, slug);
  const view = machineView(db, slug, now, length);
  if (!machine || !view)
    throw new Refusal("machine", `No machine has the address “${slug}”. Open the bench and choose one.`);
  const record = machineRecord(db, machine);
  const { readWith } = record;
  const behind = behindOf(record);
  const isBehind = (key: string, holder: number) => behind.some((b) => b.setting === key && b.holder.id === holder);
  const { spec } = view;
  const names = new Map(allGauges(db).map(({ spec: g }) => [g.id, g.name]));
  const gaugesOf = (trialId: number) => [...new Set(readWith(trialId).map((r) => names.get(r.gauge) ?? r.gauge))];
  return {
    name: spec.name,
    facts: [
      { label: "Machine", value: `${kindText(spec.kind)}, ${plain(spec.widthMm)} × ${plain(spec.depthMm)} mm` },
      { label: "Lens", value: view.fitted.optic?.label ?? "not written down" },
      ...(view.fitted.rotary ? [{ label: "Rotary", value: view.fitted.rotary.label }] : []),
      { label: "Date of this report", value: dayOf(now) },
    ],
    settings: view.held.flatMap(({ entry, setting, holder, unit }): ReportSetting[] =>
      entry
        ? [
            {
              label: setting.label,
              location: holder.name,
              value: valueText(entry.value, unit),
              uncertainty: uncertaintyText(entry, unit),
              date: dayOf(entry.at),
              origin: originText(entry, gaugesOf),
              state: isBehind(setting.key, holder.id) ? "old value" : stateOf(view, setting.key, entry),
            },
          ]
        : [],
    ),
    procedures: view.procedures
      .filter((p) => p.state !== "not done" || !p.occasional)
      .map(({ title, state, since, detail, reasons, stocks }) => ({
        title,
        state: STATE_WORDS[state],
        since: since === null ? "" : dayOf(since),
        residual: isOpen(state) || stocks ? "" : detail,
        reasons: (isOpen(state) || stocks ? [detail, ...reasons] : reasons).join("; "),
      })),
  };
}

/** @throws Refusal as {@link machineReport} */
export function machineReportPages(
  db: Db,
  slug: string,
  now: number,
  { paper, length }: { paper: Paper; length: LengthUnit },
): { title: string; pages: SheetPage[] } {
  const report = machineReport(db, slug, now, length);
  return { title: `Report of ${report.name}`, pages: reportPages(report, paper) };
}

/** The same as PDF. @throws Refusal as {@link machineReport} */
export function machineReportPdf(
  db: Db,
  slug: string,
  now: number,
  on: { paper: Paper; length: LengthUnit },
): Promise<Buffer> {
  const { title, pages } = machineReportPages(db, slug, now, on);
  return sheetPdf(pages, title, new Date(now));
}

function uncertaintyText({ u }: LedgerEntry, unit: UnitId): string {
  if (u === null) return "";
  const expanded = fromInternal(COVERAGE * u, unit);
  return `± ${fixed(expanded, decimalsFor(expanded))}${afterNumber(unit)}`;
}

function originText({ origin, trialId, trialCode }: LedgerEntry, gaugesOf: (trialId: number) => string[]): string {
  if (trialId === null) return ORIGIN_WORDS[origin];
  return [`trial ${trialCode ?? trialId}`, ...gaugesOf(trialId)].join(", ");
}

/** A setting is as valid as the procedure that corrects it; one as found says nothing where a trial set it in another location. */
function stateOf({ spec, procedures, held }: MachineView, setting: string, entry: LedgerEntry): string {
  const isSetElsewhere = held.some((h) => h.setting.key === setting && (h.entry?.trialId ?? null) !== null);
  if (entry.trialId === null && isSetElsewhere) return "";
  const corrects = offeredProcedures(spec.kind).find((p) => p.settings.some((s) => s.key === setting));
  const state = procedures.find((p) => p.id === corrects?.id)?.state;
  return state ? STATE_WORDS[state] : "";
}
