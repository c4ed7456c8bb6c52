"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { Gauge } from "../../core/metrology/gauge";
import { foundWrong, takeBackFault } from "../../server/actions/workshop-actions";
import type { GaugeRow } from "../../server/gauges/gauges-view";
import { Ago, OnDay } from "../primitives/ago";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { Fault, Faults } from "../primitives/notice";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";

/** A gauge was found wrong: what was proved with it must be measured again. */
export function FoundWrong({ gauge, onDone }: { gauge: Gauge; onDone: () => void }) {
  const router = useRouter();
  const [note, setNote] = useState("");
  const [since, setSince] = useState("");
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (field) => ["note", "at"].includes(field));
  return (
    <form
      aria-label={`${gauge.name} found wrong`}
      className="card grid gap-3 p-5"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () => foundWrong({ gauge: gauge.id, note, since: since === "" ? null : new Date(since).getTime() }),
          () => {
            toast("Noted. What was proved with it is stale.");
            onDone();
            router.refresh();
          },
        );
      }}
    >
      <h2 className="text-[17px] font-bold">{gauge.name} found wrong?</h2>
      <p className="text-ink2">Every trial that was proved with its readings since then becomes stale.</p>
      <TextField label="What is wrong" words value={note} onChange={setNote} fault={faultAt(fault, "note")} />
      <TextField
        type="date"
        label="Last known to be right"
        value={since}
        onChange={setSince}
        why="If unknown, leave empty. All readings are then marked."
        className="max-w-48"
        fault={faultAt(fault, "at")}
      />
      <Faults of={elsewhere} />
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          Note it
        </Button>
        <Button onClick={onDone}>Back</Button>
      </div>
    </form>
  );
}

export function FaultLine({ fault, now }: { fault: GaugeRow["faults"][number]; now: number }) {
  const router = useRouter();
  const { busy, fault: refused, run } = useAction();
  return (
    <span className="block text-[14px] font-normal text-ember">
      found wrong <Ago at={fault.at} now={now} />: {fault.note}
      {fault.since !== null && (
        <>
          ; right until <OnDay at={fault.since} />
        </>
      )}{" "}
      <Button
        weight="quiet"
        disabled={busy}
        onClick={() =>
          run(
            () => takeBackFault({ id: fault.id }),
            () => router.refresh(),
          )
        }
      >
        Take back
      </Button>
      {refused.message && <Fault>{refused.message}</Fault>}
    </span>
  );
}
