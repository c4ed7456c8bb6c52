"use client";
import { useRouter } from "next/navigation";
import { AlertDialog } from "radix-ui";
import { useState, useTransition } from "react";
import { giveUp } from "../../server/actions/trial-actions";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";

/** Ends a trial without a proof, after asking. Nothing that was read or recorded is lost. */
export function EndTrial({ trialId, code }: { trialId: number; code: string }) {
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const end = () =>
    start(async () => {
      const result = await giveUp({ trialId }).catch(() => null);
      if (result?.ok) router.push("/");
      else setFault(result?.message ?? "The server does not answer. The trial is still open.");
    });
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <Button weight="quiet">End without a proof</Button>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-ink/40" />
        <AlertDialog.Content className="card fixed top-1/2 left-1/2 z-30 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 p-6">
          <AlertDialog.Title className="text-lg font-bold">End trial {code} without a proof?</AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-ink2">
            Its readings, and what was recorded in the ledger, stay as they are. It can be looked at, but not gone on
            with.
          </AlertDialog.Description>
          {fault && <Fault>{fault}</Fault>}
          <div className="mt-5 flex flex-wrap gap-3">
            <Button weight="primary" onClick={end} disabled={busy}>
              End it
            </Button>
            <AlertDialog.Cancel asChild>
              <Button>Go on with it</Button>
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
