"use client";
import { createContext, useContext } from "react";
import type { LengthUnit } from "../../core/metrology/units";
import type { Preferences } from "../../server/screens/preferences-view";

export type ShellState = Preferences & {
  setTheme: (theme: Preferences["theme"]) => void;
  setUnit: (unit: LengthUnit) => void;
  openPalette: () => void;
  openKeys: () => void;
};

export const ShellContext = createContext<ShellState | null>(null);

/** @throws Error outside of the shell */
export function useShell(): ShellState {
  const state = useContext(ShellContext);
  if (!state) throw new Error("useShell: this is not inside the shell");
  return state;
}
