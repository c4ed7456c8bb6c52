"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { parseSignedReading } from "../../../core/metrology/reading-text";
import { UNITS } from "../../../core/metrology/units";
import { MAP_KEYS } from "../../../core/procedures/field/setting";
import { type EnteredRow, entrySlip } from "../../../core/settings/entry-slip";
import { entryText, valueText } from "../../../core/settings/entry-text";
import { MAP_WORDS } from "../../../core/settings/field-table";
import type { Correction } from "../../../core/trial/outcome";
import { recordEntries, undoEntry } from "../../../server/actions/trial-actions";
import type { Holder, LedgerEntry, TrialView } from "../../../server/trial/trial-view";
import { Ago } from "../../primitives/ago";
import { Button } from "../../primitives/button";
import { CheckBox } from "../../primitives/check-box";
import { TextField } from "../../primitives/fields";
import { NextStep } from "../../primitives/next-step";
import { Fault, Faults } from "../../primitives/notice";
import { type ActionFault, faultAt, faultsElsewhere } from "../../primitives/use-action";
import { holdersOf } from "../shared/entered-where";

type Props = {
  view: TrialView;
  n: number;
  now: number;
  corrections: Correction[];
  isConfirmed: (setting: string) => boolean;
  /** The settings are one table, recorded together. */
  isMany: boolean;
};

/** Settings of the holder that acts on the burn, recorded in one form. */
function RecordAll({ view, n, corrections, isConfirmed }: Omit<Props, "now" | "isMany">) {
  const [open, setOpen] = useState(false);
  const holder = view.holders[0];
  const isRecorded = (c: Correction) =>
    view.records.some((r) => r.holderId === holder?.id && r.setting === c.setting && r.n === n);
  const left = corrections.filter((c) => !isRecorded(c) && c.rows.every((row) => row.heldBack === null));
  if (!holder || left.length < 2) return null;
  if (open) return <RecordForm view={view} n={n} holder={holder} corrections={left} onClose={() => setOpen(false)} />;
  const canRecord = left.every((c) => isConfirmed(c.setting));
  return (
    <NextStep isNext={canRecord} className="mt-2">
      <Button
        onClick={() => setOpen(true)}
        disabled={!canRecord}
        title={canRecord ? undefined : "Confirm the values during the burn first"}
      >
        Record all {left.length}
      </Button>
    </NextStep>
  );
}

/** Where the new value is entered: each holder is recorded by itself, as it was entered. */
export function Holders({ view, n, now, corrections, isConfirmed, isMany }: Props) {
  return (
    <section className="card p-5">
      <h2 className="font-semibold">Where it is entered</h2>
      {isMany && <RecordAll view={view} n={n} corrections={corrections} isConfirmed={isConfirmed} />}
      {corrections.map((correction) => (
        <fieldset key={correction.setting} className="mt-2">
          <legend className={corrections.length > 1 ? "text-[14px] text-ink2" : "sr-only"}>{correction.label}</legend>
          <ul>
            {holdersOf(view, correction.setting).map((holder) => (
              <HolderRow
                key={holder.id}
                view={view}
                n={n}
                now={now}
                holder={holder}
                correction={correction}
                record={view.records.find(
                  (r) => r.holderId === holder.id && r.setting === correction.setting && r.n === n,
                )}
                confirmed={isConfirmed(correction.setting)}
              />
            ))}
          </ul>
        </fieldset>
      ))}
      {corrections.some((c) => c.newValue.shape !== "scalar") && (
        <p className="mt-3 border-t border-hair pt-3 text-[14px] text-ink2">
          Check that the correction is switched on.
        </p>
      )}
    </section>
  );
}

function HolderRow({
  view,
  n,
  now,
  holder,
  correction,
  record,
  confirmed,
}: {
  view: TrialView;
  n: number;
  now: number;
  holder: Holder;
  correction: Correction;
  record: LedgerEntry | undefined;
  confirmed: boolean;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const takeBack = () =>
    start(async () => {
      const result = await undoEntry({ trialId: view.id, entryId: record?.id ?? 0 }).catch(() => null);
      if (result?.ok) router.refresh();
      else setFault(result?.message ?? "The server does not answer.");
    });
  return (
    <li className="border-t border-hair py-3">
      <div className="flex items-start justify-between gap-3">
        <div>
          <p>
            {record && <span className="text-verdigris">✓ </span>}
            {holder.name}
          </p>
          <p className="text-[14px] text-ink2">
            {record ? (
              <>
                {record.readBack ? "entered and read back" : "entered"} <Ago at={record.at} now={now} />
              </>
            ) : (
              "still holds the old value"
            )}
          </p>
          {record && <p className="num text-[13px] text-ink2">{valueText(record.value, record.unit)}</p>}
        </div>
        {record ? (
          <Button weight="quiet" onClick={takeBack} disabled={busy}>
            Take back
          </Button>
        ) : (
          !open && (
            <NextStep isNext={confirmed}>
              <Button
                weight="small"
                onClick={() => setOpen(true)}
                disabled={!confirmed}
                title={confirmed ? undefined : "Confirm the value during the burn first"}
              >
                Record
              </Button>
            </NextStep>
          )
        )}
      </div>
      {open && !record && (
        <RecordForm view={view} n={n} holder={holder} corrections={[correction]} onClose={() => setOpen(false)} />
      )}
      {fault && <Fault>{fault}</Fault>}
    </li>
  );
}

/** The form is longer than the row that it opens in. */
const intoView = (form: HTMLFormElement | null) => form?.scrollIntoView({ block: "nearest" });

/** What was entered, as entered: the computed values stand there to be changed. */
function RecordForm({
  view,
  n,
  holder,
  corrections,
  onClose,
}: {
  view: TrialView;
  n: number;
  holder: Holder;
  corrections: readonly Correction[];
  onClose: () => void;
}) {
  const router = useRouter();
  const [rows, setRows] = useState(() =>
    corrections.flatMap((correction) =>
      correction.rows
        .filter((r) => r.heldBack === null)
        .map((r) => ({
          setting: correction.setting,
          key: r.key,
          at: r.at,
          label: r.label,
          text: correction.newValue.shape === "map" ? MAP_WORDS.made : entryText(r.enter, correction).replace("−", "-"),
        })),
    ),
  );
  // The user does not type a correction of the whole field.
  const isMade = (setting: string) => corrections.find((c) => c.setting === setting)?.newValue.shape === "map";
  const typedRows = rows.flatMap((row, i) => (isMade(row.setting) ? [] : [{ row, i }]));
  const [readBack, setReadBack] = useState(false);
  const [fault, setFault] = useState<ActionFault | null>(null);
  const [asked, setAsked] = useState<{ about: string; text: string } | null>(null);
  const [busy, start] = useTransition();
  const record = () => {
    const slip = corrections.flatMap(
      (c) =>
        slipIn(
          rows.filter((r) => r.setting === c.setting),
          c,
        ) ?? [],
    )[0];
    const about = JSON.stringify(rows);
    if (slip && asked?.about !== about) return setAsked({ about, text: slip });
    const typed = corrections.map(({ setting }) => {
      const own = rows.filter((r) => r.setting === setting);
      return [setting, own.map(({ at, text }) => ({ at, text }))] as const;
    });
    start(async () => {
      setFault(null);
      const result = await recordEntries({
        trialId: view.id,
        n,
        holderId: holder.id,
        rows: Object.fromEntries(typed),
        readBack,
        seen: view.rounds.find((r) => r.n === n)?.readingStamp ?? "",
      }).catch(() => null);
      if (result?.ok) onClose();
      else setFault(result ?? { field: "", message: "The server does not answer. Nothing was recorded." });
      if (result?.ok || result?.field === "readings") router.refresh();
    });
  };
  return (
    <form
      ref={intoView}
      className="mt-2 rounded-md bg-paper p-3"
      onSubmit={(e) => {
        e.preventDefault();
        record();
      }}
    >
      <p className="text-[14px] text-ink2">
        {typedRows.length > 0
          ? "As you entered it there:"
          : corrections.some((c) => c.setting === MAP_KEYS.artwork)
            ? "From now on drawings for this lens are bent before they are sent."
            : "The file of this trial is loaded there."}
      </p>
      <div className="mt-1 grid grid-cols-3 gap-2">
        {typedRows.map(({ row, i }) => (
          <TextField
            key={row.key}
            label={row.label}
            value={row.text}
            fault={fault ? faultAt(fault, fieldOf(row)) : ""}
            onChange={(text) => setRows((all) => all.map((r, j) => (i === j ? { ...r, text } : r)))}
          />
        ))}
      </div>
      <NextStep>
        <CheckBox label="I read it back from there" checked={readBack} onChange={setReadBack} className="mt-2" />
      </NextStep>
      {fault && <Faults of={faultsElsewhere(fault, (field) => rows.some((row) => fieldOf(row) === field))} />}
      {asked && asked.about === JSON.stringify(rows) && (
        <p role="alert" className="text-ochre">
          {asked.text} If that is what you entered, record it once more.
        </p>
      )}
      <div className="mt-2 flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {busy ? "Recording…" : "Record as entered"}
        </Button>
        <Button onClick={onClose}>Back</Button>
      </div>
    </form>
  );
}

/** As the server names it in a refusal. */
function fieldOf({ setting, at }: { setting: string; at: number | null }): string {
  return `${setting} ${at === null ? "value" : `row ${at}`}`;
}

/** A question about the entered values; `null` if they are the calculated ones. */
function slipIn(rows: readonly { key: string; text: string }[], correction: Correction): string | null {
  const entered = rows.flatMap((row): EnteredRow[] => {
    if (correction.newValue.shape === "map") return [];
    const of = correction.rows.find((r) => r.key === row.key);
    const read = parseSignedReading(row.text, UNITS[correction.unit].dimension, correction.unit);
    return of && read.ok ? [{ label: of.label, old: of.old, workedOut: of.enter, entered: read.value }] : [];
  });
  return entrySlip(entered);
}
