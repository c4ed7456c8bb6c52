import type { ReactNode } from "react";
import type { UnitId } from "../../core/metrology/units";
import { valueText } from "../../core/settings/entry-text";
import { fieldTableText } from "../../core/settings/field-table";
import type { SettingValue } from "../../core/settings/setting";
import type { BenchView } from "../../server/screens/bench-view";
import { Ago } from "../primitives/ago";
import { Folded } from "../primitives/folded";
import { Link } from "../primitives/link";
import { PLACES } from "../primitives/places";
import { PutBackItem } from "../put-back/put-back-item";
import { LoadTrial } from "./load-trial";

type Props = { view: BenchView; lastBackup: number | null; now: number };

/** What waits, what must be put in step, what was entered last, and how old the newest backup is. */
export function SideLists({ view, lastBackup, now }: Props) {
  return (
    <aside aria-label="What waits" className="grid content-start gap-6">
      <List title="Open trials" empty="No trial is open.">
        {view.open.map((t) => (
          <Item key={t.id}>
            <Link href={t.href} className="underline decoration-line underline-offset-4 hover:decoration-ink">
              <b className="font-semibold">{t.title}</b> on {t.machine}
            </Link>
            <p className="text-[14px] text-ink2">
              {t.code} · {t.detail} · begun <Ago at={t.begunAt} now={now} />
            </p>
          </Item>
        ))}
      </List>
      {view.openHolders.length > 0 && (
        <List title="Still holds the old value" empty="">
          {view.openHolders.map((h) => (
            <Item key={h.key}>
              <Link href={h.href} className="underline decoration-line underline-offset-4 hover:decoration-ink">
                {h.holder}
              </Link>
              <p className="text-[14px] text-ink2">
                {h.label}, {h.machine}
                {h.code && ` · trial ${h.code}`}
              </p>
            </Item>
          ))}
        </List>
      )}
      {view.putBack.length > 0 && (
        <List title="To put back" empty="">
          {view.putBack.map((item) => (
            <Item key={item.id}>
              <PutBackItem item={item} machine={item.slug} name={item.machine} now={now} />
            </Item>
          ))}
        </List>
      )}
      <List title="Last entered" empty="Nothing is entered yet; settings stand as found.">
        {view.lastEntered.map((e) => (
          <Item key={e.id}>
            <p className="flex justify-between gap-3">
              <span className="first-letter:uppercase">{e.label}</span>
              <span className="num whitespace-nowrap">{shortText(e.value, e.unit)}</span>
            </p>
            <p className="text-[14px] text-ink2">
              {[e.machine, e.holder].filter(Boolean).join(", ")} · was {shortText(e.was, e.unit)} ·{" "}
              <Ago at={e.at} now={now} />
            </p>
          </Item>
        ))}
      </List>
      <Folded title="Load a trial from another computer">
        <LoadTrial />
      </Folded>
      <p className="text-[14px] text-ink2">
        <Link href="/backup" className="underline decoration-line underline-offset-4 hover:decoration-ink">
          Last backup
        </Link>
        : {lastBackup === null ? "never" : <Ago at={lastBackup} now={now} />}
      </p>
      <p className="flex flex-wrap gap-x-5 gap-y-2 text-[14px] xl:hidden">
        {PLACES.filter((place) => !["/", "/backup"].includes(place.href)).map((place) => (
          <Link
            key={place.href}
            href={place.href}
            className="touch-link underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {place.label}
          </Link>
        ))}
      </p>
    </aside>
  );
}

function List({ title, empty, children }: { title: string; empty: string; children: ReactNode[] }) {
  return (
    <section>
      <h2 className="border-b border-line pb-2 text-[14px] font-semibold text-ink2">{title}</h2>
      {children.length === 0 ? <p className="py-2 text-ink2">{empty}</p> : <ul>{children}</ul>}
    </section>
  );
}

function Item({ children }: { children: ReactNode }) {
  return <li className="border-b border-hair py-2 last:border-0">{children}</li>;
}

/** In a line: a table by how many entries it has. */
function shortText(value: SettingValue | null, unit: UnitId): string {
  if (value === null || value.shape === "scalar") return valueText(value, unit);
  if (value.shape === "map") return fieldTableText(value);
  return value.rows.length === 0 ? "no entries" : `${value.rows.length} entries`;
}
