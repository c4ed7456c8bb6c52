/** Every place there is, for the palette: machines, procedures on them, settings, trials. */

import { kindText } from "../../core/machine/machine-kind";
import { END_WORDS } from "../../core/trial/trial-end";
import type { Db } from "../../data/database";
import { everyMachine } from "../../data/machines";
import { batchesOf, everyStock } from "../../data/stocks";
import { allTrials } from "../../data/trials";
import { offeredProcedures } from "../procedures/procedures";
import { settingsOf } from "../procedures/settings";

export type Place = {
  group: "Machines" | "Procedures" | "Settings" | "Stock" | "Trials";
  label: string;
  /** What tells it from others of its name. */
  detail: string;
  href: string;
};

/** Trials newest first. */
export function placesView(db: Db): Place[] {
  const machines = everyMachine(db);
  const nameOf = new Map(machines.map((m) => [m.id, m.spec.name]));
  const titles = new Map(machines.flatMap((m) => offeredProcedures(m.spec.kind)).map((p) => [p.id, p.title] as const));
  return [
    ...machines.map(
      (m): Place => ({
        group: "Machines",
        label: m.spec.name,
        detail: m.archivedAt === null ? kindText(m.spec.kind) : `${kindText(m.spec.kind)}, archived`,
        href: `/machine/${m.slug}`,
      }),
    ),
    ...machines.flatMap((m) =>
      offeredProcedures(m.spec.kind).map(
        (p): Place => ({
          group: "Procedures",
          label: `${p.title} on ${m.spec.name}`,
          detail: p.summary,
          href: `/machine/${m.slug}/${p.id}`,
        }),
      ),
    ),
    ...machines.flatMap((m) =>
      settingsOf(m.spec.kind).map(
        (s): Place => ({
          group: "Settings",
          label: `${s.label}, ${m.spec.name}`,
          detail: "over time",
          href: `/ledger?${new URLSearchParams({ machine: m.slug, setting: s.key })}`,
        }),
      ),
    ),
    ...everyStock(db).map(
      (s): Place => ({
        group: "Stock",
        label: s.spec.name,
        href: `/stock/${s.slug}`,
        detail: s.archivedAt === null ? (batchesOf(db, s.id)[0]?.label ?? "") : "put away",
      }),
    ),
    ...allTrials(db).map(
      (t): Place => ({
        group: "Trials",
        label: `${t.code} ${titles.get(t.procedure) ?? t.procedure}`,
        detail: `${nameOf.get(t.machineId) ?? ""}, ${t.end === null ? "open" : END_WORDS[t.end]}`,
        href: `/trial/${t.id}`,
      }),
    ),
  ];
}
