"use client";
import { useEffect, useRef } from "react";
import { takesText } from "../../primitives/takes-text";

type Keys = {
  active: boolean;
  type: (characters: string) => void;
  submit: () => void;
  /** Alt with a key, by its physical place: letters stay free for typing units. */
  actions: ReadonlyMap<string, () => unknown>;
};

/** Keys of the Read stage; digits that arrive with no field to type in focused go to the reading. */
export function useReadKeys(keys: Keys): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const { active, type, submit, actions } = latest.current;
      if (!active || e.ctrlKey || e.metaKey) return;
      const action = e.altKey ? actions.get(e.code) : undefined;
      if (action) {
        e.preventDefault();
        action();
        return;
      }
      const target = e.target as HTMLElement | null;
      if (e.altKey || takesText(target)) return;
      if (/^[0-9.,+]$/.test(e.key)) {
        e.preventDefault();
        // So that the Enter of a gauge that types presses no button.
        target?.blur();
        type(e.key);
      } else if (e.key === "Enter" && (target === document.body || target === document.documentElement)) {
        e.preventDefault();
        submit();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
