"use client";
import { useState, useTransition } from "react";

type Fault = { field: string; message: string };
/** The first fault, and those of the same form beside it. */
export type ActionFault = Fault & { more?: readonly Fault[] };
type Answer<T> = { ok: true; value: T } | ({ ok: false } & ActionFault);

const NONE: ActionFault = { field: "", message: "" };

/** What is wrong at a field; empty where nothing is. */
export function faultAt(fault: ActionFault, field: string): string {
  return [fault, ...(fault.more ?? [])].find((f) => f.field === field)?.message ?? "";
}

/** What is wrong at fields that are not shown, or at none. */
export function faultsElsewhere(fault: ActionFault, isShown: (field: string) => boolean): string[] {
  return [fault, ...(fault.more ?? [])].flatMap((f) => (f.message && !isShown(f.field) ? [f.message] : []));
}

/** The first of them; empty where there is none. */
export function faultElsewhere(fault: ActionFault, isShown: (field: string) => boolean): string {
  return faultsElsewhere(fault, isShown)[0] ?? "";
}

/** Asking the server for something: busy meanwhile, its refusal at a field, and words where it does not answer. */
export function useAction() {
  const [fault, setFault] = useState(NONE);
  const [busy, start] = useTransition();
  function run<T>(act: () => Promise<Answer<T>>, done: (value: T) => void): void {
    start(async () => {
      const result = await act().catch(() => null);
      if (!result?.ok)
        return setFault(result ?? { field: "", message: "The server does not answer. Nothing was changed." });
      setFault(NONE);
      done(result.value);
    });
  }
  return { busy, fault, setFault, run };
}
