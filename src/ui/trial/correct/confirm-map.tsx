"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { fieldTableText, MAP_WORDS } from "../../../core/settings/field-table";
import type { SettingSpec } from "../../../core/settings/setting";
import { isReadBack } from "../../../core/trial/decisions";
import { confirmHeld } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Fault } from "../../primitives/notice";
import { useAction } from "../../primitives/use-action";

const WORDS = {
  table: {
    question: "Which correction table was loaded during the burn?",
    held: "The table of the ledger",
    none: "No table was loaded",
    sayHeld: "The correction table of the ledger was loaded during the burn.",
    sayNone: "No correction table was loaded during the burn.",
  },
  drawings: {
    question: "Was the drawing of this burn bent?",
    held: "The drawing was bent",
    none: "The drawing was not bent",
    sayHeld: "The drawing of this burn was bent.",
    sayNone: "The drawing of this burn was not bent.",
  },
} as const;

/** Asks whether a correction of the whole field was in force during the burn. The user chooses: nobody can type a table. */
export function ConfirmMap({ view, n, setting }: { view: TrialView; n: number; setting: SettingSpec }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const [changing, setChanging] = useState(false);
  const round = view.rounds.find((r) => r.n === n);
  if (!round) return null;
  const value = round.inForce?.[setting.key];
  // Another trial may have made the newest value of the ledger: only that one, or none, can have been in force.
  const known = value?.shape === "map" ? value : null;
  const isOn = known !== null && known.undone.length > 0;
  const words = WORDS[setting.acts.on === "drawings" ? "drawings" : "table"];
  const send = (text: string) =>
    run(
      () => confirmHeld({ trialId: view.id, n, held: { [setting.key]: [{ at: null, text }] } }),
      () => {
        setChanging(false);
        router.refresh();
      },
    );
  if (isReadBack(round, view.decisions, setting.key) && !changing)
    return (
      <section
        className="card flex flex-wrap items-center justify-between gap-3 px-5 py-2.5"
        aria-label={setting.label}
      >
        <p>
          <span className="text-verdigris">✓ </span>
          {isOn ? `${words.sayHeld} It is ${fieldTableText(known)}.` : words.sayNone}
        </p>
        {isOn && (
          <Button weight="quiet" onClick={() => setChanging(true)}>
            Change<span className="sr-only"> {setting.label.toLowerCase()}</span>
          </Button>
        )}
      </section>
    );
  return (
    <section className="card border-ember p-5" aria-label="Read back">
      <h2 className="text-[17px] font-bold">{words.question}</h2>
      {isOn && <p className="mt-1 text-ink2">The ledger holds a correction that is {fieldTableText(known)}.</p>}
      <div className="mt-3 flex flex-wrap gap-2">
        {isOn && (
          <Button weight="primary" disabled={busy} onClick={() => send(MAP_WORDS.held)}>
            {words.held}
          </Button>
        )}
        <Button weight={isOn ? "plain" : "primary"} disabled={busy} onClick={() => send(MAP_WORDS.none)}>
          {words.none}
        </Button>
        {changing && <Button onClick={() => setChanging(false)}>Cancel</Button>}
      </div>
      {fault.message && <Fault>{fault.message}</Fault>}
    </section>
  );
}
