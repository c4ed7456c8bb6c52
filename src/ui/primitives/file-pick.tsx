"use client";
import { useState } from "react";
import { Fault } from "./notice";
import { tooLargeText } from "./too-large-text";

type Props = {
  label: string;
  /** Endings and types, as the browser takes them. */
  accept: string;
  disabled: boolean;
  /** What was wrong with the last one. */
  fault?: string;
} & ({ onText: (text: string) => void } | { onFile: (file: File) => void });

/** A file chosen, and read as text where text is wanted. The same file can be chosen again; one too large is not sent at all. */
export function FilePick({ label, accept, disabled, fault = "", ...taker }: Props) {
  const [tooLarge, setTooLarge] = useState("");
  const take = async (file: File) => {
    const fault = tooLargeText(file);
    setTooLarge(fault);
    if (fault) return;
    if ("onFile" in taker) taker.onFile(file);
    else taker.onText(await file.text());
  };
  return (
    <div>
      <label className="block text-ink2">
        {label}
        <input
          type="file"
          accept={accept}
          disabled={disabled}
          className="mt-1 block w-full file:mr-3 file:rounded-md file:border file:border-border file:bg-sheet file:px-3 file:py-1.5 max-sm:min-h-11 max-sm:file:py-2.5"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) void take(file);
          }}
        />
      </label>
      {(tooLarge || fault) && <Fault>{tooLarge || fault}</Fault>}
    </div>
  );
}
