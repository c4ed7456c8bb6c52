"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { setLimits } from "../../server/actions";
import type { ProcedureView } from "../../server/procedure-view";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** How good is good enough here, and how often it is looked at again. */
export function LimitsForm({ view }: { view: ProcedureView }) {
  const router = useRouter();
  const [tolerance, setTolerance] = useState(view.tolerance.text);
  const [recheckDays, setRecheckDays] = useState(String(view.recheck.days));
  const { busy, fault, run } = useAction();
  const save = () =>
    run(
      () => setLimits({ machine: view.machineSlug, procedure: view.procedure, tolerance, recheckDays }),
      () => {
        toast("Kept. Trials from now on are judged by it.");
        router.refresh();
      },
    );
  const changed = tolerance !== view.tolerance.text || recheckDays !== String(view.recheck.days);
  return (
    <form
      className="card grid gap-3 p-5"
      aria-label="Limits"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h2 className="text-[17px] font-bold">Good enough here</h2>
      <div>
        <label htmlFor="limit-tolerance" className="block text-[14px] text-ink2">
          {view.tolerance.label}
        </label>
        <input
          id="limit-tolerance"
          className="field num w-40"
          autoComplete="off"
          value={tolerance}
          aria-invalid={fault.field === "tolerance"}
          onChange={(e) => setTolerance(e.target.value)}
        />
        <p className="text-[14px] text-ink2">Usual: {view.tolerance.usual}.</p>
        {fault.field === "tolerance" && <Fault>{fault.message}</Fault>}
      </div>
      <div>
        <label htmlFor="limit-recheck" className="block text-[14px] text-ink2">
          Check again after, days
        </label>
        <input
          id="limit-recheck"
          className="field num w-40"
          inputMode="numeric"
          autoComplete="off"
          value={recheckDays}
          aria-invalid={fault.field === "recheckDays"}
          onChange={(e) => setRecheckDays(e.target.value)}
        />
        <p className="text-[14px] text-ink2">
          Usual: {view.recheck.usualDays} days. {view.recheck.why}
        </p>
        {fault.field === "recheckDays" && <Fault>{fault.message}</Fault>}
      </div>
      {fault.message && fault.field !== "tolerance" && fault.field !== "recheckDays" && <Fault>{fault.message}</Fault>}
      <div>
        <Button type="submit" disabled={busy || !changed}>
          Keep these
        </Button>
      </div>
    </form>
  );
}
