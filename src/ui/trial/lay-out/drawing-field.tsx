"use client";
import { useState } from "react";
import { type Contour, contoursIn } from "../../../core/coupon/own-drawing";
import type { FieldSpec } from "../../../core/trial/plan-form";
import { FilePick } from "../../primitives/file-pick";

type Props = { field: FieldSpec; text: string; fault: string | null; onChange: (text: string) => void };

/** A drawing of one's own from an SVG file, shown as it is burned. */
export function DrawingField({ field, text, fault, onChange }: Props) {
  const [unread, setUnread] = useState("");
  const contours = contoursIn(text);
  const take = async (svg: string) => {
    // The reader of drawings is large, and few layouts need it.
    const { ownDrawing } = await import("../../../artwork/own-drawing-file");
    const read = ownDrawing(svg);
    setUnread(read.ok ? "" : read.message);
    if (read.ok) onChange(read.value);
  };
  return (
    <div className="col-span-2">
      <FilePick
        label={contours ? `${field.label}: choose another SVG file` : `${field.label}, as an SVG file`}
        accept=".svg,image/svg+xml"
        disabled={false}
        fault={unread || (fault ?? "")}
        onText={(svg) => void take(svg)}
      />
      {contours && (
        <svg
          viewBox="-0.03 -0.03 1.06 1.06"
          className="mt-2 size-24 rounded-md border border-line bg-paper"
          role="img"
          aria-label="The drawing of each cell"
        >
          <path d={pathOf(contours)} fill="none" stroke="currentColor" strokeWidth={0.012} />
        </svg>
      )}
    </div>
  );
}

function pathOf(contours: readonly Contour[]): string {
  return contours
    .map(({ points, closed }) => {
      const way = points.map((p, i) => `${i === 0 ? "M" : "L"}${p.x} ${1 - p.y}`).join("");
      return closed ? `${way}Z` : way;
    })
    .join("");
}
