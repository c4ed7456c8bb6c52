import { countText } from "../../core/metrology/count-text";
import { valueText } from "../../core/procedures/entry-text";
import type { TrialView } from "../../server/trial/trial-view";
import { Link } from "../primitives/link";
import { Notice } from "../primitives/notice";
import { stageHref } from "./stages";

type Entry = { holder: TrialView["holders"][number]; label: string; record: TrialView["records"][number] | undefined };

/** Every location of every setting that the round before a proof corrects, with what was recorded there. The first of each setting acts. */
export function entriesBefore(
  view: TrialView,
  n: number,
  settings: readonly { key: string; label: string }[],
): Entry[] {
  return settings.flatMap(({ key, label }) =>
    view.holders.map((holder) => ({
      holder,
      label,
      record: view.records.find((r) => r.holderId === holder.id && r.setting === key && r.n === n - 1),
    })),
  );
}

/** Whether something was entered where it acts on the burn: in the controller, or in the files that Ustrina writes. */
export function isEnteredWhereItActs(entries: readonly Entry[]): boolean {
  return entries.some((e) => e.holder.role !== "copy" && e.record !== undefined);
}

/** What is entered where before a proof is burned; what is missing where it acts comes first. */
export function EnteredWhere({ view, n, entries }: { view: TrialView; n: number; entries: readonly Entry[] }) {
  const toCorrect = (
    <Link className="underline" href={stageHref(view, "correct", n - 1)}>
      Go to Correct
    </Link>
  );
  if (!entries.some((e) => e.record))
    return (
      <Notice tone="needs you" headline="Nothing is recorded yet.">
        Record first what you entered. Without the new values this burn looks like the first. {toCorrect}
      </Notice>
    );
  const acting = entries.filter((e) => e.holder.role !== "copy" && !e.record);
  return (
    <>
      {acting.length > 0 && (
        <Notice
          tone="needs you"
          headline={`${acting[0]?.holder.name}: ${countText(acting.length, "new value")} not recorded.`}
        >
          Enter the new value there and record it. {toCorrect}
        </Notice>
      )}
      <h2 className={acting.length > 0 ? "mt-3 font-semibold" : "font-semibold"}>Where the new values are</h2>
      <ul>
        {entries.map(({ holder, label, record }) => (
          <li key={`${label} ${holder.id}`} className="border-t border-hair py-1.5 first:border-0">
            <span className="flex items-baseline justify-between gap-3">
              <span>
                {record && <span className="text-verdigris">✓ </span>}
                {holder.name}
              </span>
              <span className="text-right text-[14px] text-ink2">
                {record
                  ? record.readBack
                    ? "entered and read back"
                    : "entered, not read back"
                  : "still the old value"}
              </span>
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
