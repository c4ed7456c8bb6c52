"use client";
import { type Dispatch, type SetStateAction, useCallback, useEffect, useState } from "react";

const PREFIX = "ustrina ";

/**
 * What is typed and not sent yet, kept in this tab over a reload or a way to another page and back.
 *
 * @param key names the field or form in this tab
 * @returns value, setter, and what forgets it once it is sent
 */
export function useSurviving<T>(key: string, initial: T): [T, Dispatch<SetStateAction<T>>, () => void] {
  const [value, setValue] = useState(initial);
  useEffect(() => {
    const kept = read<T>(key);
    if (kept !== undefined) setValue(kept);
  }, [key]);
  const set: typeof setValue = useCallback(
    (next) =>
      setValue((old) => {
        const made = typeof next === "function" ? (next as (old: T) => T)(old) : next;
        write(key, made);
        return made;
      }),
    [key],
  );
  const forget = useCallback(() => {
    write(key, undefined);
    setValue(initial);
  }, [key, initial]);
  return [value, set, forget];
}

function read<T>(key: string): T | undefined {
  try {
    const text = sessionStorage.getItem(PREFIX + key);
    return text === null ? undefined : (JSON.parse(text) as T);
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
