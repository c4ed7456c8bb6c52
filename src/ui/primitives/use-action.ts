"use client";
import { useState, useTransition } from "react";

type Answer<T> = { ok: true; value: T } | { ok: false; field: string; message: string };
export type ActionFault = { field: string; message: string };

const NONE: ActionFault = { field: "", message: "" };

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
