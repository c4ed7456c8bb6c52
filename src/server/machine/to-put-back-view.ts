/** What is set for a while, as bench and machine show it. */
import { valueText } from "../../core/settings/entry-text";
import type { LedgerEntry } from "../../data/ledger";
import type { Machine } from "../../data/machines";
import type { ToPutBack } from "../../data/put-back";
import { settingLabel, settingUnit } from "../procedures/settings";

export type PutBackView = {
  id: number;
  what: string;
  openedAt: number;
  /** The value that is entered again: `Axis scale Y, 6.25 µm`; `null` where it is no setting. */
  value: string | null;
  /** It is a setting, but nobody knows what was in force before. */
  isUnknown: boolean;
};

export function putBackViews(
  machine: Machine,
  items: readonly ToPutBack[],
  entries: readonly LedgerEntry[],
): PutBackView[] {
  return items.map(({ id, what, openedAt, setting, ledgerEntryId }) => {
    const kept = entries.find((e) => e.id === ledgerEntryId);
    const text = kept?.value ? valueText(kept.value, settingUnit(machine.spec, kept.setting)) : null;
    return {
      id,
      what,
      openedAt,
      isUnknown: setting !== null && text === null,
      value: setting && text ? `${settingLabel(machine.spec.kind, setting)}, ${text}` : null,
    };
  });
}
