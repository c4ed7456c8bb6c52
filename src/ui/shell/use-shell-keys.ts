"use client";
import { useEffect, useRef } from "react";
import { takesText } from "../primitives/takes-text";

type Keys = { openPalette: () => void; openKeys: () => void; isOpen: boolean };

/** Keys of every page: none of them is a character that a unit or a number is typed with. */
export function useShellKeys(keys: Keys): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const { openPalette, openKeys, isOpen } = latest.current;
      if (isOpen) return;
      if ((e.ctrlKey || e.metaKey) && !e.altKey && e.key.toLowerCase() === "k") {
        e.preventDefault();
        openPalette();
      } else if (e.altKey && !e.ctrlKey && !e.metaKey && e.key === "Enter") {
        const button = goesOn(e.target);
        if (!button) return;
        e.preventDefault();
        button.click();
      } else if (e.key === "?" && !e.ctrlKey && !e.metaKey && !e.altKey && !takesText(e.target)) {
        e.preventDefault();
        openKeys();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

/** The button that goes on: of the form in hand, else the last one on the page. */
function goesOn(target: EventTarget | null): HTMLElement | undefined {
  const visible = (within: ParentNode) =>
    [...within.querySelectorAll<HTMLElement>(".goes-on:not(:disabled)")].filter((b) => b.offsetParent !== null);
  const form = target instanceof Element ? target.closest("form") : null;
  return (form ? visible(form).at(-1) : undefined) ?? visible(document).at(-1);
}
