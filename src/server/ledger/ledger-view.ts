/** The ledger as its pages receive it: by machine and setting, over time, and between two dates. */
import type { HistoryFigure } from "../../core/drawing/figure";
import { heldThrough } from "../../core/machine/fitted-part";
import { plain } from "../../core/metrology/quantity-text";
import { fromInternal, UNITS, type UnitId } from "../../core/metrology/units";
import { isHeldBy, type SettingValue } from "../../core/settings/setting";
import { differences, inForceAt, isSame, type ValueDifference } from "../../core/settings/setting-history";
import type { Db } from "../../data/database";
import { entriesOf, type LedgerEntry, ownerOfMachine } from "../../data/ledger";
import { allMachines, holdersOf, type Machine } from "../../data/machines";
import { fittingsOf } from "../../data/parts";
import { settingLabel, settingsOf, settingUnit } from "../procedures/settings";

export type LedgerRow = LedgerEntry & {
  machine: string;
  machineSlug: string;
  label: string;
  shownUnit: UnitId;
  /** In force now at its holder. */
  current: boolean;
  /** Where it can be put back; empty where nothing was known, or it is in force. */
  holders: { id: number; name: string }[];
};

export type LedgerView = {
  machines: { slug: string; name: string }[];
  settings: { key: string; label: string }[];
  chosen: { machine: string | null; setting: string | null };
  rows: LedgerRow[];
  /** How many rows there are beyond those shown. */
  more: number;
  /** Of one setting of one machine. */
  figures: HistoryFigure[];
};

/** More rows than anybody reads at once. */
const MOST_ROWS = 200;

/**
 * @param chosen one machine, one setting, or all of them
 * @param now up to which the figures go: what was entered last still holds
 */
export function ledgerView(
  db: Db,
  chosen: { machine: string | null; setting: string | null },
  now: number,
  most = MOST_ROWS,
): LedgerView {
  const machines = allMachines(db);
  const one = machines.find((m) => m.slug === chosen.machine);
  const settings = (one ? [one] : machines)
    .flatMap((m) => settingsHeld(db, m, chosen.setting))
    .map(({ key, label }) => ({ key, label }));
  const unique = settings.filter((s, i) => settings.findIndex((o) => o.key === s.key) === i);
  const setting = unique.find((s) => s.key === chosen.setting)?.key ?? null;
  const rows = (one ? [one] : machines)
    .flatMap((m) => rowsOf(db, m))
    .filter((row) => setting === null || row.setting === setting)
    .sort((a, b) => b.at - a.at || b.id - a.id);
  const sole = setting ?? (unique.length === 1 ? (unique[0]?.key ?? null) : null);
  return {
    machines: machines.map((m) => ({ slug: m.slug, name: m.spec.name })),
    settings: unique,
    chosen: { machine: one?.slug ?? null, setting },
    rows: rows.slice(0, most),
    more: Math.max(0, rows.length - most),
    figures: one && sole ? historyFigures(one, sole, rows, now) : [],
  };
}

/** What a machine has of the settings of its kind, and the one that is asked for. */
function settingsHeld(db: Db, machine: Machine, asked: string | null) {
  const written = new Set(entriesOf(db, ownerOfMachine(machine.id)).map((e) => e.setting));
  return settingsOf(machine.spec.kind).filter((s) => s.key === asked || isHeldBy(s, machine.spec.held, written));
}

function rowsOf(db: Db, machine: Machine): LedgerRow[] {
  const entries = entriesOf(db, ownerOfMachine(machine.id));
  const inForce = new Set(
    inForceAt(entries, Number.POSITIVE_INFINITY, holdsAt(db, machine, Number.POSITIVE_INFINITY)).map((e) => e.id),
  );
  const holders = holdersOf(db, machine.id).map(({ id, name }) => ({ id, name }));
  return entries.map((entry) => {
    const current = inForce.has(entry.id);
    return {
      ...entry,
      machine: machine.spec.name,
      machineSlug: machine.slug,
      current,
      label: settingLabel(machine.spec.kind, entry.setting),
      shownUnit: settingUnit(machine.spec, entry.setting),
      holders: current || entry.value === null || entry.value.shape === "map" ? [] : holders,
    };
  });
}

/** What belongs to an optic or a rotary holds while that one is fitted. */
function holdsAt(db: Db, machine: Machine, moment: number): (entry: LedgerEntry) => boolean {
  const fittings = fittingsOf(db, machine.id);
  const settings = new Map(settingsOf(machine.spec.kind).map((s) => [s.key, s]));
  return ({ setting, at }) => {
    const spec = settings.get(setting);
    return !spec || heldThrough(spec, fittings, at, moment);
  };
}

/** One figure a holder in which more than one thing was ever written down: each number of the setting as a line over time. */
function historyFigures(machine: Machine, setting: string, rows: readonly LedgerRow[], now: number): HistoryFigure[] {
  const unit = settingUnit(machine.spec, setting);
  const atUnit = settingsOf(machine.spec.kind).find((s) => s.key === setting)?.atUnit ?? null;
  const own = rows.filter((r) => r.setting === setting && r.undoneAt === null && r.value !== null).reverse();
  const holders = [...new Set(own.map((r) => r.holderName ?? ""))];
  return holders.flatMap((holder) => {
    const entries = own.filter((r) => (r.holderName ?? "") === holder);
    const places = new Set(entries.flatMap((e) => numbersIn(e.value).map((n) => n.at)));
    if (entries.length < 2 || places.size === 0) return [];
    return [
      {
        kind: "history" as const,
        id: `history ${holder}`,
        unit: UNITS[unit].symbol,
        title: `${settingLabel(machine.spec.kind, setting)} over time, ${holder}`,
        series: [...places]
          .sort((a, b) => (a ?? 0) - (b ?? 0))
          .map((at) => ({
            label: at === null ? "" : `${plain(at)}${atUnit ? ` ${UNITS[atUnit].symbol}` : ""}`,
            points: [...entries, { at: now, value: entries.at(-1)?.value ?? null }].map((e) => {
              const value = numbersIn(e.value).find((n) => n.at === at)?.value;
              return { at: e.at, value: value === undefined ? null : fromInternal(value, unit) };
            }),
          })),
      },
    ];
  });
}

function numbersIn(value: SettingValue | null): { at: number | null; value: number }[] {
  if (value?.shape === "scalar") return [{ at: null, value: value.value }];
  return value?.shape === "table" ? value.rows : [];
}

export type Compared = {
  setting: string;
  label: string;
  holder: string;
  unit: UnitId;
  atUnit: UnitId | null;
  before: LedgerEntry | null;
  after: LedgerEntry | null;
  same: boolean;
  /** `null` where numbers cannot be held against each other. */
  rows: ValueDifference[] | null;
};

export type CompareView = {
  machines: { slug: string; name: string }[];
  machine: { slug: string; name: string } | null;
  compared: Compared[];
  /** When something was entered, newest first: days worth comparing. */
  days: number[];
};

/** @param before, after moments; what was in force at the end of each is compared */
export function compareView(db: Db, slug: string | null, before: number, after: number): CompareView {
  const machines = allMachines(db);
  const machine = machines.find((m) => m.slug === slug) ?? machines[0];
  const names = machines.map((m) => ({ slug: m.slug, name: m.spec.name }));
  if (!machine) return { machines: names, machine: null, compared: [], days: [] };
  const entries = entriesOf(db, ownerOfMachine(machine.id));
  const [then, now] = [before, after].map((moment) => inForceAt(entries, moment, holdsAt(db, machine, moment))) as [
    LedgerEntry[],
    LedgerEntry[],
  ];
  const places = [...then, ...now].filter(
    (e, i, all) => all.findIndex((o) => o.setting === e.setting && o.holderId === e.holderId) === i,
  );
  return {
    machines: names,
    machine: { slug: machine.slug, name: machine.spec.name },
    days: [...new Set(entries.map((e) => e.at))],
    compared: places.map((place): Compared => {
      const at = (list: readonly LedgerEntry[]) =>
        list.find((e) => e.setting === place.setting && e.holderId === place.holderId) ?? null;
      const [b, a] = [at(then), at(now)];
      return {
        setting: place.setting,
        label: settingLabel(machine.spec.kind, place.setting),
        holder: place.holderName ?? "",
        unit: settingUnit(machine.spec, place.setting),
        atUnit: settingsOf(machine.spec.kind).find((s) => s.key === place.setting)?.atUnit ?? null,
        before: b,
        after: a,
        same: b !== null && a !== null && isSame(b.value, a.value),
        rows: differences(b?.value ?? null, a?.value ?? null),
      };
    }),
  };
}
