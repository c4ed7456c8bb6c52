import { countText } from "../../../core/metrology/count-text";
import { valueText } from "../../../core/settings/entry-text";
import type { SettingSpec } from "../../../core/settings/setting";
import type { TrialView } from "../../../server/trial/trial-view";
import { Link } from "../../primitives/link";
import { Notice } from "../../primitives/notice";
import { historyOf, procedureOf } from "./known-procedure";
import { stageHref } from "./stages";

type Entry = { holder: TrialView["holders"][number]; label: string; record: TrialView["records"][number] | undefined };

/**
 * Settings that round `n` corrects, of those that it could: a rotary trial gives one number of several. All that it could, where its
 * readings give no result any more.
 */
export function correctedIn(view: TrialView, n: number): readonly SettingSpec[] {
  const procedure = procedureOf(view);
  if (procedure.settings.length === 0) return [];
  const round = view.rounds.find((r) => r.n === n);
  if (!round?.plan) return [];
  const outcome = procedure.solve(historyOf(view, n));
  const keys =
    outcome.status === "solved"
      ? outcome.corrections.map((c) => c.setting)
      : [...procedure.sets(round.plan, view.machine)];
  return procedure.settings.filter((s) => keys.includes(s.key));
}

/** Where a setting is entered: other programs keep a copy of some settings only. */
export function holdersOf(view: TrialView, setting: string): TrialView["holders"] {
  const isCopied = procedureOf(view).settings.some((s) => s.key === setting && s.copied);
  return view.holders.filter((h) => isCopied || h.role !== "copy");
}

/** Each location of each setting that the round before a proof corrects, with its record. */
export function entriesBefore(view: TrialView, n: number, settings: readonly SettingSpec[]): Entry[] {
  return settings.flatMap(({ key, label }) =>
    holdersOf(view, key).map((holder) => ({
      holder,
      label,
      record: view.records.find((r) => r.holderId === holder.id && r.setting === key && r.n === n - 1),
    })),
  );
}

/** Entries at the location that acts on the burn, which have no record. */
function missingWhereItActs(entries: readonly Entry[]): Entry[] {
  return entries.filter((e) => e.holder.role !== "copy" && !e.record);
}

/** Whether every new value is recorded at the location that acts on the burn. */
export function isEnteredWhereItActs(entries: readonly Entry[]): boolean {
  return entries.length > 0 && missingWhereItActs(entries).length === 0;
}

function statusOf(record: Entry["record"]): string {
  if (!record) return "old value";
  return record.readBack ? "entered and read back" : "entered, not read back";
}

/** The state of each location before a proof. Missing values at the acting location come first. */
export function EnteredWhere({ view, n, entries }: { view: TrialView; n: number; entries: readonly Entry[] }) {
  const toCorrect = (
    <Link className="underline" href={stageHref(view, "correct", n - 1)}>
      Go to Correct
    </Link>
  );
  if (!entries.some((e) => e.record))
    return (
      <Notice tone="needs you" headline="Nothing is recorded yet.">
        Record the new values first. Without them this burn looks like the first. {toCorrect}
      </Notice>
    );
  const missing = missingWhereItActs(entries);
  return (
    <>
      {missing.length > 0 && (
        <Notice
          tone="needs you"
          headline={`${missing[0]?.holder.name}: ${countText(missing.length, "new value")} not recorded.`}
        >
          Enter and record each new value. {toCorrect}
        </Notice>
      )}
      <h2 className={missing.length > 0 ? "mt-3 font-semibold" : "font-semibold"}>Where the new values are</h2>
      <ul>
        {entries.map(({ holder, label, record }) => (
          <li key={`${label} ${holder.id}`} className="border-t border-hair py-1.5 first:border-0">
            <span className="flex items-baseline justify-between gap-3">
              <span>
                {record && <span className="text-verdigris">✓ </span>}
                {holder.name}
              </span>
              <span className="text-right text-[14px] text-ink2">{statusOf(record)}</span>
            </span>
            <span className="num block text-[13px] text-ink2">
              {label}
              {record ? `, ${valueText(record.value, record.unit)}` : ""}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
