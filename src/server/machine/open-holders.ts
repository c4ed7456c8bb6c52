/** Places that still have an older value than the one that acts on burns: each must be updated by hand. */
import { isSame } from "../../core/settings/setting-history";
import type { LedgerEntry } from "../../data/ledger";
import type { Holder } from "../../data/machines";
import type { MachineRecord } from "../procedures/machine-record";
import { settingsOf } from "../procedures/settings";

export type Behind = {
  setting: string;
  holder: Holder;
  /** What the controller has since. */
  newest: LedgerEntry;
};

/** What was found stays as it is: nobody decided on it. */
export function behindOf({
  machine,
  entries,
  holders,
}: Pick<MachineRecord, "machine" | "entries" | "holders">): Behind[] {
  const inUse = holders.filter((h) => h.archivedAt === null);
  const controllers = inUse.filter((h) => h.role === "controller").map((h) => h.id);
  const copies = inUse.filter((h) => h.role === "copy");
  const alone = settingsOf(machine.spec.kind).flatMap((s) => (s.copied ? [] : [s.key]));
  const settings = [...new Set(entries.map((e) => e.setting))].filter((key) => !alone.includes(key));
  return settings.flatMap((setting) => {
    const own = entries.filter((e) => e.setting === setting);
    const newest = own.find((e) => e.holderId !== null && controllers.includes(e.holderId));
    if (!newest || newest.origin === "found") return [];
    return copies
      .filter((holder) => {
        const copy = own.find((e) => e.holderId === holder.id);
        return !copy || !isSame(copy.value, newest.value);
      })
      .map((holder) => ({ setting, holder, newest }));
  });
}
