"use client";
import { useState } from "react";
import { plain } from "../../core/metrology/quantity-text";
import { fromInternal, UNITS } from "../../core/metrology/units";
import { valueText } from "../../core/settings/entry-text";
import type { ComparedDays } from "../../server/ledger/compared-days-view";
import type { Compared, CompareView } from "../../server/ledger/ledger-view";
import { OnDay } from "../primitives/ago";
import { Button } from "../primitives/button";
import { PickField } from "../primitives/fields";
import { HeadRow } from "../primitives/head-row";
import { Link } from "../primitives/link";
import { TopBar } from "../shell/top-bar";

const DECIMALS = 4;

/** What each place held at the end of two days, number by number. */
export function CompareScreen({ view, days, now }: { view: CompareView; days: ComparedDays; now: number }) {
  const changed = view.compared.filter((c) => !c.same);
  const same = view.compared.filter((c) => c.same);
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Ledger", href: "/ledger" }, { label: "Two days" }]} />
      <main className="mx-auto grid max-w-4xl gap-4 px-6 py-5 max-sm:px-4">
        <h1 className="text-2xl font-bold">{view.machine ? `${view.machine.name} on two days` : "Two days"}</h1>
        {view.machine === null ? (
          <p className="text-ink2">There is no machine yet.</p>
        ) : (
          <>
            <Choose view={view} days={days} />
            {view.compared.length === 0 && <p className="text-ink2">Nothing was written down by either day.</p>}
            {changed.map((c) => (
              <Change key={`${c.setting} ${c.holder}`} compared={c} days={days} now={now} />
            ))}
            {view.compared.length > 0 && changed.length === 0 && <p>Nothing differs.</p>}
            {same.length > 0 && (
              <section aria-label="The same on both days" className="card p-5">
                <h2 className="font-semibold">The same on both days</h2>
                <ul className="mt-1">
                  {same.map((c) => (
                    <li key={`${c.setting} ${c.holder}`} className="border-t border-hair py-1.5 first:border-0">
                      {c.label}, {c.holder}
                      <span className="num block text-[14px] text-ink2">
                        {valueText(c.after?.value ?? null, c.unit)}
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </>
        )}
      </main>
    </>
  );
}

/** A form that changes only the address, so that a comparison can be sent to another person. */
function Choose({ view, days }: { view: CompareView; days: ComparedDays }) {
  return (
    <form action="/ledger/compare" aria-label="What is compared" className="no-print flex flex-wrap items-end gap-4">
      <MachinePick view={view} />
      <label className="text-[14px] text-ink2">
        From
        <input
          type="date"
          name="from"
          defaultValue={days.from}
          required
          className="field num block text-[15px] text-ink"
        />
      </label>
      <label className="text-[14px] text-ink2">
        To
        <input type="date" name="to" defaultValue={days.to} required className="field num block text-[15px] text-ink" />
      </label>
      <Button type="submit">Compare</Button>
    </form>
  );
}

function MachinePick({ view }: { view: CompareView }) {
  const [slug, setSlug] = useState(view.machine?.slug ?? "");
  return (
    <>
      <input type="hidden" name="machine" value={slug} />
      <PickField
        label="Machine"
        value={slug}
        choices={view.machines.map((m) => ({ value: m.slug, label: m.name }))}
        onChange={setSlug}
      />
    </>
  );
}

function Change({ compared, days, now }: { compared: Compared; days: ComparedDays; now: number }) {
  const { label, holder, unit, atUnit, before, after, rows } = compared;
  const shown = (value: number | null) => (value === null ? "–" : plain(fromInternal(value, unit), DECIMALS));
  const title = `${label}, ${holder}`;
  return (
    <section className="card p-5" aria-label={title}>
      <h2 className="text-[17px] font-bold">{title}</h2>
      {rows === null || rows.length === 0 ? (
        <p className="mt-1">
          {before ? valueText(before.value, unit) : "not written down"} →{" "}
          {after ? valueText(after.value, unit) : "not written down"}
        </p>
      ) : (
        <table className="mt-2 w-full">
          <HeadRow
            className="border-b border-hair"
            cells={[
              { label: atUnit ? `At, ${UNITS[atUnit].symbol}` : "Value" },
              { label: onDay(days.before, now), align: "right" },
              { label: `${onDay(days.after, now)} `, align: "right" },
              { label: `change, ${UNITS[unit].symbol}`, align: "right" },
            ]}
          />
          <tbody className="num">
            {rows.map((row) => (
              <tr key={row.at ?? "value"} className="border-b border-hair last:border-0">
                <th scope="row" className="py-1.5 text-left font-normal">
                  {row.at === null ? "" : plain(row.at)}
                </th>
                <td className="py-1.5 text-right">{shown(row.before)}</td>
                <td className="py-1.5 text-right font-bold">{shown(row.after)}</td>
                <td className="py-1.5 text-right">{changeText(compared, row)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {after && (
        <p className="mt-2 text-[14px] text-ink2">
          Last entered <OnDay at={after.at} />
          {after.trialId !== null && (
            <>
              {", "}
              <Link href={`/trial/${after.trialId}`} className="underline decoration-line underline-offset-4">
                trial {after.trialCode}
              </Link>
            </>
          )}
          {after.note && ` · ${after.note}`}
        </p>
      )}
    </section>
  );
}

function changeText({ before, unit }: Compared, row: NonNullable<Compared["rows"]>[number]): string {
  if (row.before === null) return before === null || before.value === null ? "was not known" : "new";
  if (row.after === null) return "gone";
  const change = fromInternal(row.after - row.before, unit);
  if (Math.abs(change) < 10 ** -DECIMALS / 2) return "same";
  return change > 0 ? `+${plain(change, DECIMALS)}` : plain(change, DECIMALS);
}

function onDay(moment: number, now: number): string {
  if (moment >= now) return "today";
  return new Date(moment).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}
