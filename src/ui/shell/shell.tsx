"use client";
import { useRouter } from "next/navigation";
import { lazy, type ReactNode, Suspense, useCallback, useEffect, useState } from "react";
import type { Preferences } from "../../server/screens/preferences-view";
import { beginSending } from "../waiting/waiting-readings";
import { loadPalette, PaletteDoor } from "./palette-door";
import { steadyFetch } from "./steady-fetch";
import { ShellContext, type ShellState } from "./use-shell";
import { useShellKeys } from "./use-shell-keys";

const KeyHelp = lazy(async () => ({ default: (await import("./key-help")).KeyHelp }));

/** Ten years: a preference stays until it is changed. */
const KEPT_S = 315_360_000;

function remember(name: string, value: string): void {
  // biome-ignore lint/suspicious/noDocumentCookie: the one way that every browser has, and the server reads it before it draws
  document.cookie = `${name}=${value}; path=/; max-age=${KEPT_S}; samesite=strict`;
}

/** What is there on every page: the palette, the help on keys, and what this browser prefers. */
export function Shell({ preferences, children }: { preferences: Preferences; children: ReactNode }) {
  const router = useRouter();
  const [theme, changeTheme] = useState(preferences.theme);
  const [unit, changeUnit] = useState(preferences.unit);
  const [open, setOpen] = useState<"palette" | "keys" | null>(null);
  useShellKeys({ openPalette: () => setOpen("palette"), openKeys: () => setOpen("keys"), isOpen: open !== null });
  useEffect(beginSending, []);
  useEffect(steadyFetch, []);
  useEffect(() => {
    // Where it cannot come now it is asked for again when it is opened.
    loadPalette().catch(() => undefined);
  }, []);
  const close = useCallback(() => setOpen(null), []);
  const state: ShellState = {
    theme,
    unit,
    setTheme(next) {
      changeTheme(next);
      remember("theme", next);
      document.documentElement.dataset.theme = next;
    },
    setUnit(next) {
      changeUnit(next);
      remember("unit", next);
      router.refresh();
    },
    openPalette: () => setOpen("palette"),
    openKeys: () => setOpen("keys"),
  };
  return (
    <ShellContext value={state}>
      {children}
      {open === "palette" && <PaletteDoor onClose={close} onKeys={() => setOpen("keys")} />}
      {open === "keys" && (
        <Suspense>
          <KeyHelp onClose={close} />
        </Suspense>
      )}
    </ShellContext>
  );
}
