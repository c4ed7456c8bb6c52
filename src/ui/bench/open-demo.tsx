"use client";
import { useRouter } from "next/navigation";
import { openDemoBench } from "../../server/actions/practice-actions";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** Opens the demo bench, on an empty bench or beside other machines. */
export function OpenDemo({ weight, label }: { weight: "primary" | "quiet"; label: string }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  return (
    <>
      <Button
        weight={weight}
        disabled={busy}
        onClick={() =>
          run(
            () => openDemoBench(),
            () => router.refresh(),
          )
        }
      >
        {busy ? "Running its trials…" : label}
      </Button>
      {fault.message && <Fault>{fault.message}</Fault>}
    </>
  );
}
