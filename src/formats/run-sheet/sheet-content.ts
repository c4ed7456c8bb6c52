/** What a run sheet says, before it is laid out on paper. */

import { beforeBurn, duringBurn } from "../../core/coupon/checklist";
import { markingTimeS } from "../../core/coupon/marking-time";
import type { MarkingSettings, Piece } from "../../core/coupon/piece";
import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Site } from "../../core/coupon/site";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import { fieldTableText } from "../../core/settings/field-table";
import { isHeldBy, type SettingSpec, type SettingsInForce, type SettingValue } from "../../core/settings/setting";
import { shownUnit } from "../../core/trial/decisions";
import type { Purpose } from "../../core/trial/history";
import { type PencilField, pencilFields } from "../../core/trial/pencil";

export type SheetFacts = {
  procedure: AnyProcedure;
  machine: MachineSpec;
  couponCode: string;
  purpose: Purpose;
  spec: RoundSpec;
  inForce: SettingsInForce;
  unit: LengthUnit;
};

export type SheetSite = { n: number; site: Site; question: string; fields: PencilField[] };

export type RunSheet = {
  title: string;
  facts: { label: string; value: string }[];
  before: string[];
  /** Heights that a hand sets, one after the other. */
  during: string[];
  held: { label: string; rows: { label: string; value: string | null }[] }[];
  groups: { piece: Piece; settings: MarkingSettings; cells: string[] }[];
  pieces: Piece[];
  sites: SheetSite[];
};

export const GROUP_COLUMNS = ["Group", "Speed", "", "Power", "Rows, pulses"] as const;

const PURPOSES: Record<Purpose, string> = {
  measure: "to measure",
  tune: "to tune",
  refine: "to refine",
  proof: "proof",
  check: "check",
};
const HELD_DECIMALS = 4;

export function runSheet(facts: SheetFacts): RunSheet {
  const { procedure, machine, couponCode, spec } = facts;
  const written = new Set(Object.keys(facts.inForce));
  return {
    title: `${procedure.title} · coupon ${couponCode}`,
    facts: [
      { label: "Machine", value: `${machine.name}, ${machine.kind}` },
      { label: "Burn", value: PURPOSES[facts.purpose] },
      { label: "Stock", value: spec.pieces.map((p) => p.stock).join(", ") || "none" },
      { label: "Sent as", value: spec.delivery },
      { label: "Marking takes at least", value: duration(markingTimeS(spec)) },
    ],
    before: beforeBurn(spec),
    during: duringBurn(spec),
    held: procedure.settings
      .filter((setting) => isHeldBy(setting, machine.held, written))
      .flatMap((setting) => heldTable(setting, facts)),
    groups: spec.pieces.flatMap((piece) =>
      piece.settings.map((settings) => ({ piece, settings, cells: groupCells(settings) })),
    ),
    pieces: spec.pieces,
    sites: spec.sites.map((site, i) => ({
      n: i + 1,
      site,
      question: [site.question, site.ask.kind === "quantity" ? site.ask.signedBy?.question : ""]
        .filter(Boolean)
        .join(" "),
      fields: pencilFields(site.ask, site.repeats, facts.unit),
    })),
  };
}

function groupCells({ label, speedMmPerS, powerPct, runUpMm, scan, pulseKHz }: MarkingSettings): string[] {
  const rows = scan
    ? `every ${plain(scan.rowPitchMm)} mm, ${scan.direction === "both" ? "both ways" : "one way, right-going"}`
    : runUpMm > 0
      ? `run-up ${plain(runUpMm)} mm`
      : "as drawn";
  const pulses = pulseKHz === undefined ? "" : `, ${plain(pulseKHz)} kHz`;
  return [
    label,
    inUnit(speedMmPerS, "mmPerS"),
    inUnit(speedMmPerS, "mmPerMin"),
    `${plain(powerPct)} %`,
    `${rows}${pulses}`,
  ];
}

/** Every value that the controller should hold, to be read back and written beside it. */
function heldTable(setting: SettingSpec, { inForce, unit }: SheetFacts): RunSheet["held"] {
  const rows = heldRows(setting, inForce[setting.key] ?? null, unit);
  return rows.length > 0 ? [{ label: setting.label, rows }] : [];
}

function heldRows(setting: SettingSpec, value: SettingValue | null, length: LengthUnit) {
  const text = (internal: number) => inUnit(internal, shownUnit(setting.unit, length), HELD_DECIMALS);
  if (value === null) return [{ label: "not known", value: null }];
  if (value.shape === "scalar") return [{ label: setting.label, value: text(value.value) }];
  if (value.shape === "map") return [{ label: fieldTableText(value), value: null }];
  if (value.rows.length === 0) return [{ label: "no entries", value: null }];
  return value.rows.map((row) => ({
    label: setting.atUnit ? inUnit(row.at, setting.atUnit) : plain(row.at),
    value: text(row.value),
  }));
}

/** `2 min 10 s`. */
function duration(seconds: number): string {
  const whole = Math.max(1, Math.round(seconds));
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  return [hours > 0 ? `${hours} h` : "", minutes > 0 ? `${minutes} min` : "", hours === 0 ? `${rest} s` : ""]
    .filter(Boolean)
    .join(" ");
}
