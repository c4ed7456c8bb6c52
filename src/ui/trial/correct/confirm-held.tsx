"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { inUnit } from "../../../core/metrology/quantity-text";
import { UNITS, type UnitId } from "../../../core/metrology/units";
import { editableText, valueText } from "../../../core/settings/entry-text";
import type { SettingSpec, SettingValue } from "../../../core/settings/setting";
import { isReadBack } from "../../../core/trial/decisions";
import { confirmHeld } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { NextStep } from "../../primitives/next-step";
import { Fault } from "../../primitives/notice";

type Row = { at: number | null; text: string };
type Props = {
  view: TrialView;
  n: number;
  setting: SettingSpec;
  /** Others are asked for beside it. */
  isOneOfMany: boolean;
  /** It begins with the value to be typed. */
  opened?: boolean;
  onSettled?: () => void;
};

/** What the controller held during the burn: the ledger's word, confirmed or set right. */
export function ConfirmHeld({ view, n, setting, isOneOfMany, opened = false, onSettled }: Props) {
  const round = view.rounds.find((r) => r.n === n);
  const held = round?.inForce?.[setting.key] ?? null;
  const router = useRouter();
  const [editing, setEditing] = useState(opened);
  const [rows, setRows] = useState<Row[]>(() =>
    opened ? editableRows(view, n, held, setting, view.machine.held[setting.key]?.unit ?? setting.unit) : [],
  );
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  if (!round) return null;
  const unit = view.machine.held[setting.key]?.unit ?? setting.unit;
  const practiceTable = view.practice?.tables[setting.key];
  const acting = view.holders[0]?.name ?? "the controller";

  /** @param value `null` = nobody knows */
  const send = (value: Row[] | null) =>
    start(async () => {
      setFault("");
      const typed = value?.filter((r) => r.text.trim() !== "") ?? null;
      const result = await confirmHeld({ trialId: view.id, n, held: { [setting.key]: typed } }).catch(() => null);
      if (result?.ok) {
        setEditing(false);
        onSettled?.();
        router.refresh();
      } else setFault(result?.message ?? "The server does not answer.");
    });

  function edit(value: SettingValue | null) {
    setRows(editableRows(view, n, value, setting, unit));
    setEditing(true);
  }

  if (isReadBack(round, view.decisions, setting.key) && !editing)
    return (
      <section className="card flex flex-wrap items-center justify-between gap-3 px-5 py-2.5">
        <p>
          <span className="text-verdigris">✓ </span>
          {setting.label}: {acting} held <b className="font-semibold">{valueText(held, unit)}</b> during the burn.
        </p>
        <Button weight="quiet" onClick={() => edit(held)}>
          Set it right
        </Button>
      </section>
    );

  return (
    <section className="card border-ember p-5" aria-label="Read back">
      <h2 className="text-[17px] font-bold">
        {isOneOfMany ? `${setting.label}: what` : "What"} did {acting} hold during the burn?
      </h2>
      {!editing ? (
        <>
          <p className="mt-1 text-ink2">
            {setting.label}: the ledger says <b className="font-semibold text-ink">{valueText(held, unit)}</b>. Look at
            it and say; it may not be what you think.
          </p>
          <NextStep className="mt-3 flex flex-wrap gap-2">
            {held !== null && (
              <Button weight="primary" disabled={busy} onClick={() => send(rowsOf(held, unit))}>
                Yes, I read that back
              </Button>
            )}
            {held === null && setting.shape === "scalar" && (
              <Button disabled={busy} onClick={() => send(null)}>
                It is not known
              </Button>
            )}
            <Button weight={held === null ? "primary" : "plain"} disabled={busy} onClick={() => edit(held)}>
              {held === null ? "Say what it held" : "It held something else"}
            </Button>
            {practiceTable && view.holders[0]?.role === "controller" && (
              <Button
                disabled={busy}
                onClick={() => send(practiceTable.map((r) => ({ at: r.at, text: editableText(r.value, unit) })))}
              >
                Read it back from the practice machine
              </Button>
            )}
          </NextStep>
        </>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            send(rows);
          }}
        >
          <p className="mt-1 text-ink2">
            {UNITS[unit].symbol ? `In ${UNITS[unit].symbol}, as` : "As"}{" "}
            {setting.shape === "scalar" ? "it is shown." : "it shows them. Leave empty where there was no entry."}
          </p>
          <div className="mt-2 flex flex-wrap gap-3">
            {rows.map((row, i) => (
              <label key={row.at ?? "value"} className="text-[14px] text-ink2">
                {row.at === null || !setting.atUnit ? setting.label : inUnit(row.at, setting.atUnit)}
                <input
                  className="field num block w-28 text-ink"
                  value={row.text}
                  onChange={(e) => setRows((all) => all.map((r, j) => (i === j ? { ...r, text: e.target.value } : r)))}
                />
              </label>
            ))}
          </div>
          <div className="mt-3 flex gap-2">
            <Button weight="primary" type="submit" disabled={busy}>
              That is what it held
            </Button>
            <Button
              onClick={() => {
                setEditing(false);
                onSettled?.();
              }}
            >
              Back
            </Button>
          </div>
        </form>
      )}
      {fault && <Fault>{fault}</Fault>}
    </section>
  );
}

export function rowsOf(value: SettingValue, unit: UnitId): Row[] {
  if (value.shape === "scalar") return [{ at: null, text: editableText(value.value, unit) }];
  if (value.shape === "table") return value.rows.map((r) => ({ at: r.at, text: editableText(r.value, unit) }));
  return [{ at: null, text: "held" }];
}

/** Existing rows and one for each place that was burned. */
function editableRows(
  view: TrialView,
  n: number,
  value: SettingValue | null,
  setting: SettingSpec,
  unit: UnitId,
): Row[] {
  const rows = value ? rowsOf(value, unit) : [];
  if (setting.shape === "scalar") return rows.length > 0 ? rows : [{ at: null, text: "" }];
  const speeds = view.rounds.find((r) => r.n === n)?.spec?.pieces[0]?.settings.filter((s) => s.use !== "line") ?? [];
  const burned = [...new Set(speeds.map((s) => s.speedMmPerS))];
  const extra = burned.filter((at) => rows.every((r) => r.at !== at)).map((at) => ({ at, text: "" }));
  return [...rows, ...extra].sort((a, b) => (a.at ?? 0) - (b.at ?? 0));
}
