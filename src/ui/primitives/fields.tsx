"use client";
import clsx from "clsx";
import { type ReactNode, useId } from "react";
import type { PickProps } from "./closed-pick";
import { Fault } from "./notice";
import { PickBox } from "./pick-box";

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

/** One of some words. */
export function PickField<V extends string>({
  value,
  onChange,
  choices,
  disabled = false,
  className,
  ...rest
}: LabelProps & PickProps<V>) {
  return (
    <Labelled {...rest}>
      {(id) => (
        <PickBox
          id={id}
          className={clsx("w-full", className)}
          value={value}
          disabled={disabled}
          choices={choices}
          isWrong={Boolean(rest.fault)}
          onChange={onChange}
        />
      )}
    </Labelled>
  );
}

type LabelProps = Pick<FieldProps, "label" | "why" | "fault">;

function Labelled({ label, why, fault, children }: LabelProps & { children: (id: string) => ReactNode }) {
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
