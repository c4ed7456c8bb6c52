"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { valueText } from "../../../core/settings/entry-text";
import type { SettingSpec } from "../../../core/settings/setting";
import { isReadBack } from "../../../core/trial/decisions";
import { confirmHeld } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Fault } from "../../primitives/notice";
import { ConfirmHeld, rowsOf } from "./confirm-held";

/** What the controller held during the burn at many numbers: all confirmed at once, or one of them set right. */
export function ConfirmAll({ view, n, settings }: { view: TrialView; n: number; settings: readonly SettingSpec[] }) {
  const round = view.rounds.find((r) => r.n === n);
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  if (!round) return null;
  const acting = view.holders[0]?.name ?? "the controller";
  const held = (s: SettingSpec) => round.inForce?.[s.key] ?? null;
  const unit = (s: SettingSpec) => view.machine.held[s.key]?.unit ?? s.unit;
  const isConfirmed = (s: SettingSpec) => isReadBack(round, view.decisions, s.key);
  const left = settings.filter((s) => !isConfirmed(s));
  const unknown = left.filter((s) => held(s) === null);
  const known = left.filter((s) => held(s) !== null);
  const changed = settings.find((s) => s.key === open);

  const confirmAll = () =>
    start(async () => {
      setFault("");
      for (const setting of known) {
        const value = held(setting);
        if (!value) continue;
        const rows = rowsOf(value, unit(setting));
        const result = await confirmHeld({ trialId: view.id, n, setting: setting.key, rows }).catch(() => null);
        if (!result?.ok) return setFault(result?.message ?? "The server does not answer.");
      }
      router.refresh();
    });

  return (
    <section className={left.length > 0 ? "card border-ember p-5" : "card px-5 py-3"} aria-label="Read back">
      <h2 className={left.length > 0 ? "text-[17px] font-bold" : "font-semibold"}>
        {left.length > 0 ? `What did ${acting} hold during the burn?` : `Read back from ${acting}`}
      </h2>
      {known.length > 0 && (
        <p className="mt-1 text-ink2">The ledger shows these values. Compare each of them with the controller.</p>
      )}
      <ul className="mt-2 grid gap-x-6 sm:grid-cols-2">
        {settings.map((s) => (
          <li key={s.key} className="flex items-center justify-between gap-3 border-b border-hair py-1">
            <span>
              {isConfirmed(s) && <span className="text-verdigris">✓ </span>}
              {s.label}: <b className="num font-semibold">{valueText(held(s), unit(s))}</b>
            </span>
            <Button weight="quiet" onClick={() => setOpen(s.key)}>
              Change<span className="sr-only"> {s.label}</span>
            </Button>
          </li>
        ))}
      </ul>
      {known.length > 0 && (
        <div className="mt-3">
          <Button weight="primary" disabled={busy} onClick={confirmAll}>
            {busy ? "Confirming…" : "I read all of these back"}
          </Button>
        </div>
      )}
      {fault && <Fault>{fault}</Fault>}
      {changed ? (
        <div className="mt-3">
          <ConfirmHeld
            key={changed.key}
            view={view}
            n={n}
            setting={changed}
            isOneOfMany
            opened
            onSettled={() => setOpen(null)}
          />
        </div>
      ) : (
        unknown.map((s) => (
          <div key={s.key} className="mt-3">
            <ConfirmHeld view={view} n={n} setting={s} isOneOfMany />
          </div>
        ))
      )}
    </section>
  );
}
