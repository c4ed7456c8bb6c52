"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useEffect, useState } from "react";
import type { Preferences } from "../../server/preferences-view";
import { beginSending } from "../trial/waiting-readings";
import { KeyHelp } from "./key-help";
import { Palette } from "./palette";
import { ShellContext, type ShellState } from "./use-shell";
import { useShellKeys } from "./use-shell-keys";

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
  const state: ShellState = {
    ...{ theme, unit },
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
      {open === "palette" && <Palette onClose={() => setOpen(null)} onKeys={() => setOpen("keys")} />}
      {open === "keys" && <KeyHelp onClose={() => setOpen(null)} />}
    </ShellContext>
  );
}
