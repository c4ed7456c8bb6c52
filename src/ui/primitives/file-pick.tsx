"use client";

type Props = {
  label: string;
  /** Endings and types, as the browser takes them. */
  accept: string;
  disabled: boolean;
  onText: (text: string) => void;
};

/** A file chosen and read as text. The same file can be chosen again. */
export function FilePick({ label, accept, disabled, onText }: Props) {
  return (
    <label className="block text-ink2">
      {label}
      <input
        type="file"
        accept={accept}
        disabled={disabled}
        className="mt-1 block w-full file:mr-3 file:rounded-md file:border file:border-border file:bg-sheet file:px-3 file:py-1.5 max-sm:min-h-11 max-sm:file:py-2.5"
        onChange={async (e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onText(await file.text());
        }}
      />
    </label>
  );
}
