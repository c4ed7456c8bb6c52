"use client";
import { useState } from "react";
import { toast } from "sonner";

/**
 * A part of the page that seldom opens: the page comes without it.
 *
 * @param load the same function each time
 * @returns the part once it was asked for and is there; `prepare` loads it without showing it
 */
export function useOnDemand<T>(load: () => Promise<T>): { part: T | null; ask: () => void; prepare: () => void } {
  const [loaded, setLoaded] = useState<{ part: T } | null>(null);
  return {
    part: loaded?.part ?? null,
    ask() {
      load()
        .then((part) => setLoaded({ part }))
        .catch(() => toast("The server does not answer. Check that Ustrina is running, then try again."));
    },
    prepare() {
      // What does not come now is asked for again.
      load().catch(() => undefined);
    },
  };
}
