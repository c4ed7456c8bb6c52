"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { inUnit } from "../../../core/metrology/quantity-text";
import { setTolerance } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { CheckBox } from "../../primitives/check-box";

import { Fault } from "../../primitives/notice";
import { useAction } from "../../primitives/use-action";
import { procedureOf } from "../shared/known-procedure";

/** The tolerance of this trial, and whether it is to be the usual one of the machine. */
export function ToleranceForm({ view }: { view: TrialView }) {
  const procedure = procedureOf(view);
  const { unit, label } = procedure.tolerance;
  const shown = inUnit(view.tolerance, unit, 4);
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(shown);
  const [always, setAlways] = useState(false);
  const { busy, fault, run } = useAction();
  const save = () =>
    run(
      () => setTolerance({ trialId: view.id, text, always }),
      () => {
        setOpen(false);
        router.refresh();
      },
    );
  if (!open)
    return (
      <p className="flex flex-wrap items-center justify-between gap-2">
        <span>
          Tolerance: <b className="num font-semibold">{shown}</b>{" "}
          <span className="text-[14px] text-ink2">({label.toLowerCase()})</span>
        </span>
        {view.endedAt === null && (
          <Button weight="quiet" onClick={() => setOpen(true)}>
            Change
          </Button>
        )}
      </p>
    );
  return (
    <form
      aria-label="Tolerance"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <label htmlFor="tolerance" className="block font-semibold">
        {label}
      </label>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <input
          id="tolerance"
          className="field num w-36"
          autoComplete="off"
          value={text}
          aria-invalid={fault.message !== ""}
          onChange={(e) => setText(e.target.value)}
        />
        <Button weight="primary" type="submit" disabled={busy}>
          Judge by this
        </Button>
        <Button onClick={() => setOpen(false)}>Back</Button>
      </div>
      <CheckBox label={`from now on for ${view.machine.name}`} checked={always} onChange={setAlways} />
      {fault.message && <Fault>{fault.message}</Fault>}
    </form>
  );
}
