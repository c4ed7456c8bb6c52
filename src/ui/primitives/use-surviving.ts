"use client";
import { type Dispatch, type SetStateAction, useCallback, useEffect, useState } from "react";

const PREFIX = "ustrina ";

/**
 * What is typed and not sent yet, kept in this tab over a reload or a way to another page and back. It comes back only where the form
 * begins with what it began with then: what was changed elsewhere meanwhile is not overwritten by older words.
 *
 * @param key names the field or form in this tab
 * @returns value, setter, and what forgets it once it is sent
 */
export function useSurviving<T>(key: string, initial: T): [T, Dispatch<SetStateAction<T>>, () => void] {
  const [value, setValue] = useState(initial);
  const from = JSON.stringify(initial);
  useEffect(() => {
    const kept = read<T>(key);
    if (kept?.from === from) setValue(kept.value);
  }, [key, from]);
  const set: typeof setValue = useCallback(
    (next) =>
      setValue((old) => {
        const made = typeof next === "function" ? (next as (old: T) => T)(old) : next;
        write(key, { from, value: made });
        return made;
      }),
    [key, from],
  );
  const forget = useCallback(() => {
    write(key, undefined);
    setValue(JSON.parse(from) as T);
  }, [key, from]);
  return [value, set, forget];
}

type Kept<T> = { from: string; value: T };

function read<T>(key: string): Kept<T> | undefined {
  try {
    return JSON.parse(sessionStorage.getItem(PREFIX + key) ?? "null") ?? undefined;
  } catch {
    return undefined;
  }
}

/** A browser that keeps nothing for pages loses it with the page, as without this. */
function write(key: string, value: unknown): void {
  try {
    if (value === undefined) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, JSON.stringify(value));
  } catch {
    return;
  }
}
