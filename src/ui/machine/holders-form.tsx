"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { addCopy, bringBackHolder, nameHolder, removeHolder } from "../../server/actions/workshop-actions";
import type { MachineView } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { Folded } from "../primitives/folded";
import { Fault } from "../primitives/notice";
import { OneLineForm } from "../primitives/one-line-form";
import { useAction } from "../primitives/use-action";

const ROLE_WORDS = {
  controller: "acts on burns",
  ustrina: "acts in files that Ustrina writes",
  copy: "a copy, kept in step by hand",
} as const;

/** The places that hold its settings. */
export function HoldersForm({ view }: { view: MachineView }) {
  const router = useRouter();
  const done = () => router.refresh();
  const inUse = view.holders.filter((h) => !h.away).length;
  return (
    <Folded
      title={`Where they are kept: ${inUse === 1 ? "one place" : `${inUse} places`}`}
      className="border-t border-hair pt-2"
    >
      <ul className="mt-1">
        {view.holders.map((holder) => (
          <HolderLine key={holder.id} machine={view.slug} holder={holder} onDone={done} />
        ))}
      </ul>
      <div className="mt-2">
        <OneLineForm
          name="Another holder"
          label="Another place that keeps a copy"
          button="Add it"
          keptAs={`holder ${view.slug}`}
          send={(name) => addCopy({ machine: view.slug, name })}
          onSent={done}
        />
      </div>
    </Folded>
  );
}

type LineProps = { machine: string; holder: MachineView["holders"][number]; onDone: () => void };

function HolderLine({ machine, holder, onDone }: LineProps) {
  const [name, setName] = useState<string | null>(null);
  const { busy, fault, run } = useAction();
  const target = { machine, holderId: holder.id };
  const remove = () =>
    run(
      () => removeHolder(target),
      (how) => {
        toast(how === "deleted" ? `${holder.name} is gone.` : `${holder.name} is put away; what it held stays.`);
        onDone();
      },
    );
  if (name !== null)
    return (
      <li className="py-1.5">
        <form
          aria-label={`Name of ${holder.name}`}
          className="flex items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            run(
              () => nameHolder({ ...target, name }),
              () => {
                setName(null);
                onDone();
              },
            );
          }}
        >
          <div className="min-w-0 flex-1">
            <TextField label="Name" words value={name} onChange={setName} fault={fault.message} />
          </div>
          <Button type="submit" disabled={busy}>
            Keep
          </Button>
          <Button onClick={() => setName(null)}>Back</Button>
        </form>
      </li>
    );
  return (
    <li className="flex flex-wrap items-start justify-between gap-x-3 border-t border-hair py-1.5 first:border-0">
      <span>
        {holder.name}
        <span className="block text-[14px] text-ink2">{holder.away ? "put away" : ROLE_WORDS[holder.role]}</span>
        {fault.message && <Fault>{fault.message}</Fault>}
      </span>
      <span className="flex gap-1">
        {holder.away ? (
          <Button weight="quiet" disabled={busy} onClick={() => run(() => bringBackHolder(target), onDone)}>
            Bring back<span className="sr-only"> {holder.name}</span>
          </Button>
        ) : (
          <>
            <Button weight="quiet" onClick={() => setName(holder.name)}>
              Rename<span className="sr-only"> {holder.name}</span>
            </Button>
            {holder.role === "copy" && (
              <Button weight="quiet" disabled={busy} onClick={remove}>
                Remove<span className="sr-only"> {holder.name}</span>
              </Button>
            )}
          </>
        )}
      </span>
    </li>
  );
}
