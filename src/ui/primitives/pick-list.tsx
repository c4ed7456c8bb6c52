"use client";
import clsx from "clsx";
import { Check } from "lucide-react";
import { Select } from "radix-ui";
import { CLOSED_PICK, ClosedText, type PickProps } from "./closed-pick";

/** An empty text means "nothing chosen" to the primitive; here it is a choice like any other. */
const code = (value: string) => `=${value}`;

/** The list of a pick, open from the start: it is loaded when it is asked for. */
export function PickList<V extends string>({
  id,
  value,
  choices,
  onChange,
  disabled,
  label,
  describedBy,
  isWrong = false,
  className,
}: PickProps<V>) {
  const choose = (coded: string) => {
    const chosen = choices.find((c) => code(c.value) === coded);
    if (chosen) onChange(chosen.value);
  };
  return (
    <Select.Root defaultOpen value={code(value)} onValueChange={choose} disabled={disabled}>
      <Select.Trigger
        id={id}
        aria-label={label}
        aria-describedby={describedBy}
        aria-invalid={isWrong}
        className={clsx(CLOSED_PICK, className)}
      >
        <ClosedText>
          <Select.Value>{choices.find((c) => c.value === value)?.label ?? ""}</Select.Value>
        </ClosedText>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="list-sheet z-40 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) overflow-auto"
        >
          <Select.Viewport className="p-1">
            {choices.map((c) => (
              <Select.Item key={c.value} value={code(c.value)} className="list-line gap-2">
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
