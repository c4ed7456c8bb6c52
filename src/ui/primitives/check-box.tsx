"use client";
import clsx from "clsx";
import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import { type ReactNode, useId } from "react";

type Props = {
  label: ReactNode;
  /** Left out: the box keeps its own state. */
  checked?: boolean;
  onChange?: (checked: boolean) => void;
  disabled?: boolean;
  className?: string;
};

/** Yes or no, said in the words beside it. */
export function CheckBox({ label, checked, onChange, disabled, className }: Props) {
  const id = useId();
  return (
    <div className={clsx("flex items-start gap-3", className)}>
      <Checkbox.Root
        id={id}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(next) => onChange?.(next === true)}
        // Enter sends the form, as from any other field.
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.closest("form")?.requestSubmit()}
        className="mt-1.5 flex size-5 shrink-0 items-center justify-center rounded border border-border bg-sheet disabled:opacity-60 data-[state=checked]:border-verdigris data-[state=checked]:bg-verdigris"
      >
        <Checkbox.Indicator>
          <Check size={15} strokeWidth={3} aria-hidden="true" className="text-sheet" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="min-h-9 cursor-pointer py-1 max-sm:min-h-11">
        {label}
      </label>
    </div>
  );
}
