"use client";
import { useRouter } from "next/navigation";
import type { Decided } from "../../../core/trial/decision";
import { decide } from "../../../server/actions/trial-actions";
import { useAction } from "../../primitives/use-action";

/** Saves decisions of a trial, all or none. */
export function useDecisions(trialId: number) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const keep = (decisions: readonly Decided[]) =>
    run(
      () => decide({ trialId, decisions }),
      () => router.refresh(),
    );
  return { busy, fault, keep };
}
