import { labOfHex } from "../../core/colour/lab";

type Props = {
  id: string;
  label: string;
  value: string;
  describedBy?: string | undefined;
  isWrong?: boolean;
  onChange: (hex: string) => void;
};

/** A colour: chosen, or typed as `#3b5fa3`. */
export function ColourField({ id, label, value, describedBy, isWrong = false, onChange }: Props) {
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[14px] text-ink2">
        {label}
      </label>
      <div className="flex gap-2">
        <input
          type="color"
          aria-label={`${label}, chosen`}
          className="h-11 w-14 rounded-md border border-border bg-sheet p-1"
          value={labOfHex(value) ? value : "#808080"}
          onChange={(e) => onChange(e.target.value)}
        />
        <input
          id={id}
          className="field num w-full"
          value={value}
          autoComplete="off"
          aria-invalid={isWrong}
          aria-describedby={describedBy}
          onChange={(e) => onChange(e.target.value)}
        />
      </div>
    </div>
  );
}
