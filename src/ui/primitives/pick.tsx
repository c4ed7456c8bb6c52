"use client";
import clsx from "clsx";
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";

export type Choice<V extends string = string> = { value: V; label: string };

type Props<V extends string> = {
  id?: string;
  value: V;
  choices: readonly Choice<V>[];
  onChange: (value: V) => void;
  disabled?: boolean;
  /** A whole phrase, where no label is beside it. */
  label?: string;
  describedBy?: string;
  className?: string;
};

/** An empty text means "nothing chosen" to the primitive; here it is a choice like any other. */
const code = (value: string) => `=${value}`;

/** One of some words, from a list that opens. */
export function Pick<V extends string>({
  id,
  value,
  choices,
  onChange,
  disabled,
  label,
  describedBy,
  className,
}: Props<V>) {
  const choose = (coded: string) => {
    const chosen = choices.find((c) => code(c.value) === coded);
    if (chosen) onChange(chosen.value);
  };
  return (
    <Select.Root value={code(value)} onValueChange={choose} disabled={disabled}>
      <Select.Trigger
        id={id}
        aria-label={label}
        aria-describedby={describedBy}
        className={clsx(
          "field inline-flex items-center justify-between gap-2 text-left disabled:cursor-not-allowed disabled:opacity-60",
          className,
        )}
      >
        <span className="min-w-0 truncate">
          <Select.Value>{choices.find((c) => c.value === value)?.label ?? ""}</Select.Value>
        </span>
        <ChevronDown size={16} aria-hidden="true" className="shrink-0 text-ink2" />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="card z-40 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) overflow-auto shadow-md"
        >
          <Select.Viewport className="p-1">
            {choices.map((c) => (
              <Select.Item
                key={c.value}
                value={code(c.value)}
                className="flex min-h-9 cursor-pointer items-center gap-2 rounded py-1 pr-3 pl-2 outline-none data-highlighted:bg-paper max-sm:min-h-11"
              >
                <span className="w-4 shrink-0">
                  <Select.ItemIndicator>
                    <Check size={16} aria-hidden="true" />
                  </Select.ItemIndicator>
                </span>
                <Select.ItemText>{c.label}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
