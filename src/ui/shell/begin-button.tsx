"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useState, useTransition } from "react";
import { beginCheck, beginTrial } from "../../server/actions/trial-actions";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";

export function BeginButton({
  machine,
  procedure,
  weight,
  check = false,
  label = check ? "Begin check" : "Begin trial",
  stock = null,
}: {
  machine: string;
  procedure: string;
  weight: "primary" | "plain" | "small" | "quiet";
  /** A short check of what was proved, instead of a whole trial. */
  check?: boolean;
  label?: ReactNode;
  /** Key of the batch that it is begun on, where it is done stock by stock. */
  stock?: string | null;
}) {
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const begin = () =>
    start(async () => {
      const result = await (check ? beginCheck : beginTrial)({ machine, procedure, stock }).catch(() => null);
      if (!result) setFault("The server does not answer. Is it still running?");
      else if (result.ok) router.push(`/trial/${result.value}/lay-out`);
      else setFault(result.message);
    });
  return (
    <span>
      <Button weight={weight} onClick={begin} disabled={busy} className={weight === "quiet" ? "-ml-1" : ""}>
        {busy ? "Beginning…" : label}
      </Button>
      {fault && <Fault>{fault}</Fault>}
    </span>
  );
}
