"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { beginCheck, beginTrial } from "../../server/actions/trial-actions";

export type Beginning = {
  machine: string;
  procedure: string;
  /** Key of the batch that it is begun on, where it is done stock by stock. */
  stock: string | null;
  /** A short check of what was proved, instead of a whole trial. */
  check: boolean;
};

/** Begins a trial or a check and opens its first page. */
export function useBegin() {
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  function begin({ check, ...what }: Beginning, refused: (message: string) => void = setFault): void {
    start(async () => {
      const result = await (check ? beginCheck : beginTrial)(what).catch(() => null);
      if (!result) refused("The server does not answer. Check that Ustrina is running.");
      else if (result.ok) router.push(`/trial/${result.value}/lay-out`);
      else refused(result.message);
    });
  }
  return { begin, busy, fault };
}
