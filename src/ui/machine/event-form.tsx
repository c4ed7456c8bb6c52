"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { noteEvent } from "../../server/actions";
import type { ProcedureView } from "../../server/procedure-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

const EFFECT_WORDS = { stale: "this must be measured again", check: "this is due for a check" } as const;

/** Something was changed on the machine: what it makes of this procedure is said before it is noted. */
export function EventForm({ view, now }: { view: ProcedureView; now: number }) {
  const router = useRouter();
  const [kind, setKind] = useState("");
  const [note, setNote] = useState("");
  const { busy, fault, run } = useAction();
  const effect = view.kinds.find((k) => k.kind === kind)?.effect;
  const save = () =>
    run(
      () => noteEvent({ machine: view.machineSlug, procedure: view.procedure, kind, note }),
      () => {
        setKind("");
        setNote("");
        router.refresh();
      },
    );
  return (
    <form
      className="card grid gap-3 p-5"
      aria-label="Something changed"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h2 className="text-[17px] font-bold">Something changed on {view.machine}?</h2>
      <div className="grid gap-1">
        <label htmlFor="event-kind" className="text-[14px] text-ink2">
          What
        </label>
        <select id="event-kind" className="field" value={kind} onChange={(e) => setKind(e.target.value)}>
          <option value="">choose</option>
          {view.kinds.map((k) => (
            <option key={k.kind} value={k.kind}>
              {k.kind}
            </option>
          ))}
        </select>
        {effect && <p className="text-[14px] text-ember">After that {EFFECT_WORDS[effect]}.</p>}
        <label htmlFor="event-note" className="text-[14px] text-ink2">
          Note
        </label>
        <input
          id="event-note"
          className="field"
          autoComplete="off"
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
      </div>
      {fault.message && <Fault>{fault.message}</Fault>}
      <div>
        <Button type="submit" disabled={busy || kind === ""}>
          Note it
        </Button>
      </div>
      {view.events.length > 0 && (
        <ul className="text-[14px]">
          {view.events.map((e) => (
            <li key={e.id} className="border-t border-hair py-1.5">
              <b className="font-semibold">{e.kind}</b>
              {e.note && `: ${e.note}`} <span className="text-ink2">· </span>
              <Ago at={e.at} now={now} />
            </li>
          ))}
        </ul>
      )}
    </form>
  );
}
