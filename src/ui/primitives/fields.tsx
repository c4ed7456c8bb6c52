"use client";
import clsx from "clsx";
import { type ReactNode, useId } from "react";
import { Fault } from "./notice";

type FieldProps = {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** What is usual, or what an empty field means. */
  why?: string;
  /** What is wrong with it; empty where nothing is. */
  fault?: string;
  className?: string;
};

/** One line to type in; numbers in the face of readings. */
export function TextField({
  value,
  onChange,
  fault,
  words,
  className,
  type = "text",
  ...rest
}: FieldProps & { words?: boolean; type?: "text" | "date" | "datetime-local" }) {
  return (
    <Labelled fault={fault} {...rest}>
      {(id) => (
        <input
          id={id}
          type={type}
          className={clsx("field w-full", !words && "num", className)}
          autoComplete="off"
          value={value}
          aria-invalid={Boolean(fault)}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
  );
}

/** Some lines to type in. */
export function LinesField({ value, onChange, fault, className, ...rest }: FieldProps) {
  return (
    <Labelled fault={fault} {...rest}>
      {(id) => (
        <textarea
          id={id}
          className={clsx("field num w-full", className)}
          rows={2}
          spellCheck={false}
          value={value}
          aria-invalid={Boolean(fault)}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
  );
}

export type Choice = { value: string; label: string };

/** One of some words. */
export function PickField({
  value,
  onChange,
  choices,
  disabled = false,
  className,
  ...rest
}: FieldProps & { choices: readonly Choice[]; disabled?: boolean }) {
  return (
    <Labelled {...rest}>
      {(id) => (
        <select
          id={id}
          className={clsx("field w-full", className)}
          value={value}
          disabled={disabled}
          onChange={(e) => onChange(e.target.value)}
        >
          {choices.map((c) => (
            <option key={c.value} value={c.value}>
              {c.label}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

/** Yes or no, said in the words beside it. */
export function CheckField({
  label,
  checked,
  onChange,
  disabled = false,
  className,
}: {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
  className?: string;
}) {
  return (
    <label className={clsx("flex min-h-9 cursor-pointer items-start gap-3 py-1", className)}>
      <input
        type="checkbox"
        className="mt-0.5 size-5 shrink-0"
        checked={checked}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
      />
      <span>{label}</span>
    </label>
  );
}

function Labelled({
  label,
  why,
  fault,
  children,
}: Pick<FieldProps, "label" | "why" | "fault"> & { children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-[14px] text-ink2">
        {label}
      </label>
      {children(id)}
      {why && <p className="text-[14px] text-ink2">{why}</p>}
      {fault && <Fault>{fault}</Fault>}
    </div>
  );
}
