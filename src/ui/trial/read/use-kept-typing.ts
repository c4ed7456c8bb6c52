"use client";
import { type RefObject, useEffect, useRef } from "react";
import type { AskHandle } from "./ask/ask-props";

type Typed = { site: string; text: string; words: "positive" | "negative" | null };

const PREFIX = "ustrina typed ";

/**
 * What is typed at a site and not taken yet, kept in this tab: a reload begins at that site, with it in the field.
 *
 * @param name of the round in this tab
 */
export function useKeptTyping(
  name: string,
  site: string,
  goTo: (site: string) => void,
  handle: RefObject<AskHandle | null>,
): { keep: (text: string, words: Typed["words"]) => void; forget: () => void } {
  const latest = useRef(goTo);
  latest.current = goTo;
  const left = useRef<Typed | null>(null);

  useEffect(() => {
    left.current = read(PREFIX + name);
    if (left.current) latest.current(left.current.site);
  }, [name]);

  // The field of that site is there after the page is drawn with it.
  useEffect(() => {
    const typed = left.current;
    if (typed?.site !== site) return;
    left.current = null;
    handle.current?.type(typed.text, false, typed.words ?? undefined);
  });

  return {
    keep: (text, words) => store(PREFIX + name, text === "" ? null : { site, text, words }),
    forget: () => store(PREFIX + name, null),
  };
}

function read(key: string): Typed | null {
  try {
    return JSON.parse(sessionStorage.getItem(key) ?? "null") as Typed | null;
  } catch {
    return null;
  }
}

function store(key: string, typed: Typed | null): void {
  try {
    if (typed) sessionStorage.setItem(key, JSON.stringify(typed));
    else sessionStorage.removeItem(key);
  } catch {
    return;
  }
}
