import { ChevronDown } from "lucide-react";
import type { ReactNode } from "react";

export type Choice<V extends string = string> = { value: V; label: string };

export type PickProps<V extends string> = {
  id?: string;
  value: V;
  choices: readonly Choice<V>[];
  onChange: (value: V) => void;
  disabled?: boolean;
  /** A whole phrase, where no label is beside it. */
  label?: string;
  describedBy?: string;
  isWrong?: boolean;
  className?: string;
};

export const CLOSED_PICK =
  "field inline-flex items-center justify-between gap-2 text-left disabled:cursor-not-allowed disabled:opacity-60";

/** The chosen words, and that a list opens. */
export function ClosedText({ children }: { children: ReactNode }) {
  return (
    <>
      <span className="min-w-0 truncate">{children}</span>
      <ChevronDown size={16} aria-hidden="true" className="shrink-0 text-ink2" />
    </>
  );
}
