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
        const button = goesOn();
        if (!button) return;
        e.preventDefault();
        button.click();
      } else if ((e.ctrlKey || e.metaKey) && e.key === "Enter" && e.target instanceof Element) {
        // Also from a field or a box in which Enter alone does something else, or nothing.
        const form = e.target.closest("form");
        if (!form) return;
        e.preventDefault();
        form.requestSubmit();
      } else if (e.key === "?" && !e.ctrlKey && !e.metaKey && !e.altKey && !takesText(e.target)) {
        e.preventDefault();
        openKeys();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

/** The button that goes on: that of the verdict line, else the only one on the page; where there are several none is meant. */
function goesOn(): HTMLElement | undefined {
  const seen = (within: ParentNode) =>
    [...within.querySelectorAll<HTMLElement>(".goes-on:not(:disabled)")].filter((b) => b.offsetParent !== null);
  const line = document.querySelector("[data-verdict-line]");
  const ways = line ? seen(line) : seen(document);
  return ways.length === 1 ? ways[0] : undefined;
}
