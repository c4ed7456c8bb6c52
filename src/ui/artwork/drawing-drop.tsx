"use client";
import { type DragEvent, type ReactNode, useState } from "react";
import { Fault } from "../primitives/notice";
import { tooLargeText } from "../primitives/too-large-text";

/** Takes a drawing that is dropped anywhere on it, whatever it shows. */
export function DrawingDrop({ onFile, children }: { onFile: (file: File) => void; children: ReactNode }) {
  const [over, setOver] = useState(false);
  const [fault, setFault] = useState("");
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    const file = e.dataTransfer.files[0];
    const tooLarge = file ? tooLargeText(file) : "That was no file: drop an SVG or DXF.";
    setFault(tooLarge);
    if (file && !tooLarge) onFile(file);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping is one more way; the file can be chosen by keyboard beside it
    <div
      className={`grid min-h-[380px] content-stretch gap-3 rounded-md border border-dashed p-4 ${over ? "border-steel bg-steel-tint" : "border-line"}`}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      {fault && <Fault>{fault}</Fault>}
      {children}
    </div>
  );
}
