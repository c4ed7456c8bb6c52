"use client";
import { TextField } from "./fields";

/** A day and time in the past; empty = now. The value is the text of the field. */
export function MomentField({
  label,
  value,
  onChange,
  fault,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  fault?: string;
}) {
  return (
    <TextField
      type="datetime-local"
      label={label}
      value={value}
      onChange={onChange}
      fault={fault}
      why="Empty: now."
      className="max-w-60"
    />
  );
}

/** Milliseconds; `null` = now. What cannot be read becomes NaN, which no step takes. */
export function momentOf(text: string): number | null {
  return text === "" ? null : new Date(text).getTime();
}
