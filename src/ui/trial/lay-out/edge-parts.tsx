"use client";
import clsx from "clsx";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { FieldSpec } from "../../../core/trial/plan-form";
import { shownValue, typedValue, VALUES } from "./edge-values";

/** How far the handle of an edge is pulled for one more row of cells, pixels. */
const PULL_PX = 34;

type ValueProps = {
  label: string;
  field: FieldSpec | undefined;
  value: string;
  onChange: (value: string) => void;
};

/** One value on its edge. While it is typed its text stays as it is, whatever has been read of it so far. */
export function ValueField({ label, field, value, onChange }: ValueProps) {
  const [typing, setTyping] = useState<string | null>(null);
  return (
    <input
      aria-label={label}
      aria-invalid={!Number.isFinite(Number(value))}
      className={clsx(
        "num w-full min-w-0 rounded border bg-transparent px-0.5 py-1 text-center text-[13px] hover:border-border focus:border-border",
        Number.isFinite(Number(value)) ? "border-transparent" : "border-ember",
      )}
      inputMode="decimal"
      autoComplete="off"
      value={typing ?? shownValue(value)}
      onChange={(e) => {
        setTyping(e.target.value);
        onChange(typedValue(field, e.target.value));
      }}
      onBlur={() => setTyping(null)}
    />
  );
}

type HandleProps = { label: string; count: number; axis: "x" | "y"; onCount: (count: number) => void };

const BY_KEY: Partial<Record<string, number>> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

/** An edge that is pulled for more cells, or pushed for fewer. By keys as well. */
export function EdgeHandle({ label, count, axis, onCount }: HandleProps) {
  const from = useRef<{ at: number; count: number } | null>(null);
  const place = (e: PointerEvent) => (axis === "x" ? e.clientX : -e.clientY);
  const within = (n: number) => Math.max(VALUES.least, Math.min(VALUES.most, n));
  const onKey = (e: KeyboardEvent) => {
    const by = BY_KEY[e.key];
    if (by === undefined) return;
    e.preventDefault();
    onCount(within(count + by));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${label}: pull for more cells`}
      aria-orientation={axis === "x" ? "horizontal" : "vertical"}
      aria-valuenow={count}
      aria-valuemin={VALUES.least}
      aria-valuemax={VALUES.most}
      aria-valuetext={`${count} values`}
      className={clsx(
        "grid touch-none place-items-center rounded bg-paper text-ink3 hover:bg-hair",
        axis === "x" ? "w-6 cursor-ew-resize self-stretch" : "mr-7 ml-[72px] h-6 cursor-ns-resize",
      )}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { at: place(e), count };
      }}
      onPointerMove={(e) => {
        if (!from.current) return;
        const next = within(from.current.count + Math.round((place(e) - from.current.at) / PULL_PX));
        if (next !== count) onCount(next);
      }}
      onPointerUp={() => {
        from.current = null;
      }}
    >
      <span aria-hidden="true" className="text-[13px]">
        {axis === "x" ? "↔" : "↕"}
      </span>
    </div>
  );
}
