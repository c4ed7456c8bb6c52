"use client";
import { type ComponentType, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { PaletteProps } from "./palette";

type DoorProps = Omit<PaletteProps, "early">;

let loaded: ComponentType<PaletteProps> | null = null;

/** After the page is there, so that no page waits for it. */
export async function loadPalette(): Promise<ComponentType<PaletteProps>> {
  loaded ??= (await import("./palette")).Palette;
  return loaded;
}

/** The palette, once it is loaded; what is typed before that is given to it. */
export function PaletteDoor(props: DoorProps) {
  const [palette, setPalette] = useState(() => loaded);
  const early = useEarlyTyping(palette === null);
  const { onClose } = props;
  useEffect(() => {
    if (palette) return;
    loadPalette()
      .then((come) => setPalette(() => come))
      .catch(() => {
        toast("The server does not answer: the palette cannot be shown now.");
        onClose();
      });
  }, [palette, onClose]);
  const Palette = palette;
  return Palette && <Palette {...props} early={early.current} />;
}

/** Characters and Enter that come while nothing is there to take them. */
function useEarlyTyping(active: boolean) {
  const early = useRef({ text: "", enter: false });
  useEffect(() => {
    if (!active) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const { current } = early;
      if (e.key.length === 1) current.text += e.key;
      else if (e.key === "Backspace") current.text = current.text.slice(0, -1);
      else if (e.key === "Enter") current.enter = true;
      else return;
      e.preventDefault();
      e.stopImmediatePropagation();
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [active]);
  return early;
}
