"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { setLimits } from "../../server/actions/trial-actions";
import type { ProcedureView } from "../../server/screens/procedure-view";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { Faults } from "../primitives/notice";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";

/** How good is good enough here, and how often it is looked at again. */
export function LimitsForm({ view }: { view: ProcedureView }) {
  const router = useRouter();
  const [tolerance, setTolerance] = useState(view.tolerance.text);
  const [recheckDays, setRecheckDays] = useState(String(view.recheck.days));
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (field) => ["tolerance", "recheckDays"].includes(field));
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
      <h2 className="text-[17px] font-bold">Tolerance and checks</h2>
      <TextField
        label={view.tolerance.label}
        value={tolerance}
        onChange={setTolerance}
        className="max-w-40"
        why={`Usual: ${view.tolerance.usual}.`}
        fault={faultAt(fault, "tolerance")}
      />
      <TextField
        label="Check again after, days"
        value={recheckDays}
        onChange={setRecheckDays}
        className="max-w-40"
        why={`Usual: ${view.recheck.usualDays} days. ${view.recheck.why}`}
        fault={faultAt(fault, "recheckDays")}
      />
      <Faults of={elsewhere} />
      <div>
        <Button type="submit" disabled={busy || !changed}>
          Save changes
        </Button>
      </div>
    </form>
  );
}
