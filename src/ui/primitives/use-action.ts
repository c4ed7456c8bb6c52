"use client";
import { useState, useTransition } from "react";

type Fault = { field: string; message: string };
/** The first fault of a form, and the other ones in `more`. */
export type ActionFault = Fault & { more?: readonly Fault[] };
type Answer<T> = { ok: true; value: T } | ({ ok: false } & ActionFault);

const NONE: ActionFault = { field: "", message: "" };

/** Message for a field; empty if the field has no fault. */
export function faultAt(fault: ActionFault, field: string): string {
  return [fault, ...(fault.more ?? [])].find((f) => f.field === field)?.message ?? "";
}

/** Messages for fields that the form does not show, and for no field. */
export function faultsElsewhere(fault: ActionFault, isShown: (field: string) => boolean): string[] {
  return [fault, ...(fault.more ?? [])].flatMap((f) => (f.message && !isShown(f.field) ? [f.message] : []));
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
