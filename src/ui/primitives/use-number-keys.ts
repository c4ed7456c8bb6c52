"use client";
import { useEffect, useRef } from "react";
import { takesText } from "./takes-text";

/**
 * Numbers choose wherever nothing is typed into.
 *
 * @param take on Enter, where nothing else would take it; left out where choosing is enough
 */
export function useNumberKeys(count: number, choose: (i: number) => void, take?: () => void): void {
  const latest = useRef({ choose, take });
  latest.current = { choose, take };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement | null;
      if (e.altKey || e.ctrlKey || e.metaKey || takesText(target) || document.querySelector("[role=dialog]")) return;
      const i = Number(e.key) - 1;
      if (e.key.length === 1 && i >= 0 && i < count) {
        e.preventDefault();
        latest.current.choose(i);
      } else if (
        e.key === "Enter" &&
        latest.current.take &&
        (target === document.body || target === document.documentElement)
      ) {
        e.preventDefault();
        latest.current.take();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [count]);
}
