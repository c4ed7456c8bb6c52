"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { archiveMachine, bringBackMachine, removeMachine } from "../../server/actions/workshop-actions";
import type { MachineView } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** Off the bench and back; deleting only where nothing hangs on it. */
export function ArchiveCard({ view }: { view: MachineView }) {
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  const { busy, fault, run } = useAction();
  const { name } = view.spec;
  const bringBack = () =>
    run(
      () => bringBackMachine({ machine: view.slug }),
      () => router.refresh(),
    );
  const archive = () =>
    run(
      () => archiveMachine({ machine: view.slug }),
      () => {
        toast(`${name} is archived.`, { action: { label: "Bring back", onClick: bringBack } });
        router.push("/");
      },
    );
  const remove = () =>
    run(
      () => removeMachine({ machine: view.slug }),
      () => {
        toast(`${name} is deleted.`);
        router.push("/");
      },
    );
  if (view.archived)
    return (
      <section className="card p-5" aria-label="Archived">
        <p>
          <b className="font-semibold">{name} is archived.</b> Its history is here; nothing new is begun on it.
        </p>
        <Button className="mt-3" disabled={busy} onClick={bringBack}>
          Bring it back onto the bench
        </Button>
        {fault.message && <Fault>{fault.message}</Fault>}
      </section>
    );
  return (
    <section className="px-1" aria-label="Off the bench">
      {!asked ? (
        <Button weight="quiet" onClick={() => setAsked(true)}>
          Take {name} off the bench
        </Button>
      ) : (
        <div className="card grid gap-3 p-5">
          <p>
            {view.history
              ? `${name} has ${view.history}. Archived, it leaves the bench and keeps them; its optic is free for another machine.`
              : `Nothing was measured on ${name} and nothing written down: it can be deleted.`}
          </p>
          <div className="flex flex-wrap gap-2">
            <Button disabled={busy} onClick={archive}>
              Archive it
            </Button>
            <Button disabled={busy} onClick={remove}>
              Delete it
            </Button>
            <Button onClick={() => setAsked(false)}>Keep it</Button>
          </div>
          {fault.message && <Fault>{fault.message}</Fault>}
        </div>
      )}
    </section>
  );
}
