"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { countText } from "../../../core/metrology/count-text";
import { valueText } from "../../../core/settings/entry-text";
import type { SettingSpec } from "../../../core/settings/setting";
import { isReadBack } from "../../../core/trial/decisions";
import { confirmHeld } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { NextStep } from "../../primitives/next-step";
import { Faults } from "../../primitives/notice";
import { faultsElsewhere, useAction } from "../../primitives/use-action";
import { ConfirmHeld, rowsOf } from "./confirm-held";

/** Many values that the controller held during the burn: confirmed together, or changed one by one. */
export function ConfirmAll({ view, n, settings }: { view: TrialView; n: number; settings: readonly SettingSpec[] }) {
  const round = view.rounds.find((r) => r.n === n);
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const { busy, fault, run } = useAction();
  if (!round) return null;
  const acting = view.holders[0]?.name ?? "the controller";
  const held = (s: SettingSpec) => round.inForce?.[s.key] ?? null;
  const unit = (s: SettingSpec) => view.machine.held[s.key]?.unit ?? s.unit;
  const isConfirmed = (s: SettingSpec) => isReadBack(round, view.decisions, s.key);
  const left = settings.filter((s) => !isConfirmed(s));
  const unknown = left.filter((s) => held(s) === null);
  const known = left.filter((s) => held(s) !== null);
  const changed = settings.find((s) => s.key === open);

  const confirmAll = () => {
    const rows = known.flatMap((s) => {
      const value = held(s);
      return value ? [[s.key, rowsOf(value, unit(s))] as const] : [];
    });
    run(
      () => confirmHeld({ trialId: view.id, n, held: Object.fromEntries(rows) }),
      () => router.refresh(),
    );
  };

  return (
    <section className={left.length > 0 ? "card border-ember p-5" : "card px-5 py-3"} aria-label="Read back">
      <h2 className={left.length > 0 ? "text-[17px] font-bold" : "font-semibold"}>
        {left.length > 0 ? `Values in ${acting} during the burn` : `Read back from ${acting}`}
      </h2>
      {known.length > 0 && (
        <p className="mt-1 text-ink2">The ledger shows these values. Compare each value with the controller.</p>
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
        <NextStep className="mt-3">
          <Button weight="primary" disabled={busy} onClick={confirmAll}>
            {busy ? "Confirming…" : `Confirm ${countText(known.length, "value")}`}
          </Button>
        </NextStep>
      )}
      <Faults of={faultsElsewhere(fault, () => false)} />
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
