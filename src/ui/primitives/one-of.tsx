"use client";
import clsx from "clsx";
import { RadioGroup } from "radix-ui";
import { type ReactNode, useId } from "react";

export type Option<V extends string = string> = { value: V; label: ReactNode; why?: ReactNode; aside?: ReactNode };

type Props<V extends string> = {
  /** Names the group to a person who hears the page. */
  label: string;
  /** Text under the label that belongs to the group. */
  describedBy?: string;
  /** Empty: none is chosen. */
  value: V | "";
  options: readonly Option<V>[];
  onChange: (value: V) => void;
  disabled?: boolean;
  /** A list, a row, or boxes that are filled when they are chosen. */
  look?: "list" | "row" | "boxes" | "words";
  className?: string;
};

/** The words of an option are as high as a finger needs. */
const LOOKS = {
  list: { group: "grid gap-1.5", option: "flex items-start gap-2.5", words: "max-sm:min-h-11" },
  row: {
    group: "flex flex-wrap gap-x-4 gap-y-1",
    option: "flex items-center gap-1.5",
    words: "flex min-h-9 items-center max-sm:min-h-11",
  },
  boxes: {
    group: "grid gap-2",
    option: "flex items-center gap-3 rounded-md border border-border bg-sheet px-3",
    words: "flex min-h-11 items-center",
  },
  words: { group: "flex flex-wrap gap-2", option: "", words: "" },
} as const;

/** One of some words that are all seen. One stop for Tab; arrow keys choose. */
export function OneOf<V extends string>({
  label,
  describedBy,
  value,
  options,
  onChange,
  disabled,
  look = "list",
  className,
}: Props<V>) {
  const id = useId();
  const { group, option, words } = LOOKS[look];
  return (
    <RadioGroup.Root
      aria-label={label}
      aria-describedby={describedBy}
      value={value}
      onValueChange={(next) => {
        const chosen = options.find((o) => o.value === next);
        if (chosen) onChange(chosen.value);
      }}
      // Enter sends the form, as from any other field.
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.closest("form")?.requestSubmit()}
      disabled={disabled}
      className={clsx(group, className)}
    >
      {options.map((o, i) =>
        look === "words" ? (
          <RadioGroup.Item
            key={o.value}
            value={o.value}
            className="flex min-h-11 items-center rounded-md border border-border bg-sheet px-3 hover:bg-paper data-[state=checked]:border-ink data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
          >
            {o.label}
          </RadioGroup.Item>
        ) : (
          <div key={o.value} className={option}>
            <Dot id={`${id}${i}`} value={o.value} low={o.why !== undefined} />
            <label htmlFor={`${id}${i}`} className={clsx("min-w-0 flex-1 cursor-pointer", words)}>
              {o.label}
              {o.why !== undefined && <span className="block text-[13px] text-ink2">{o.why}</span>}
            </label>
            {o.aside}
          </div>
        ),
      )}
    </RadioGroup.Root>
  );
}

function Dot({ id, value, low }: { id: string; value: string; low: boolean }) {
  return (
    <RadioGroup.Item
      id={id}
      value={value}
      className={clsx(
        "flex size-[18px] shrink-0 items-center justify-center rounded-full border border-border bg-sheet data-[state=checked]:border-verdigris",
        low && "mt-0.5",
      )}
    >
      <RadioGroup.Indicator className="size-2.5 rounded-full bg-verdigris" />
    </RadioGroup.Item>
  );
}
