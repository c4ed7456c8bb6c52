"use client";
import clsx from "clsx";
import { useMemo, useState } from "react";
import type { Draft } from "../../../core/trial/draft";
import type { EdgeCell } from "../../../core/trial/edges";
import type { FieldSpec, PlanContext, PlanIssue } from "../../../core/trial/plan-form";
import { Button } from "../../primitives/button";
import { PickField, TextField } from "../../primitives/fields";
import { Fault } from "../../primitives/notice";
import { ArrayCells } from "./array-cells";
import { EdgeHandle, ValueField } from "./edge-parts";
import { type AnyEdges, listText, movedTo, resized, respaced, valuesIn } from "./edge-values";

type Side = "across" | "up" | "blocks";

type Props = {
  edges: AnyEdges;
  fields: readonly FieldSpec[];
  draft: Draft;
  plan: unknown;
  context: PlanContext;
  faults: readonly PlanIssue[];
  onChange: (texts: Draft) => void;
};

/** The array with its settings on its edges: the values are typed there, and the edges are pulled for more cells. */
export function ArrayEditor({ edges, fields, draft, plan, context, faults, onChange }: Props) {
  const [at, setAt] = useState<string | null>(null);
  const cells = useMemo(() => cellsOf(edges, plan, context), [edges, plan, context]);
  const needs = useMemo(() => (cells.length > 0 ? edges.needs(plan, context) : ""), [cells, edges, plan, context]);
  const inHand = cells.find((c) => c.id === at) ?? cells[0];
  const edge = (side: Side) => edgeAt({ edges, fields, draft, onChange }, side);
  const [across, up] = [edge("across"), edge("up")];
  const own = [...Object.values(edges.keys), across.setting, up.setting, edge("blocks").setting];
  return (
    <div className="grid gap-3 p-5 max-sm:p-3">
      <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-2 max-sm:grid-cols-1">
        <div className="flex flex-col justify-center">
          <EdgeHead side="up" edge={up} />
        </div>
        <div className="grid gap-1">
          <EdgeHandle label="Back edge" count={up.values.length} axis="y" onCount={up.resize} />
          <div className="flex gap-1">
            <ArrayCells
              cells={cells}
              rows={up.values.length}
              before={(row) => up.input(row)}
              at={inHand?.id ?? null}
              onPoint={setAt}
            />
            <EdgeHandle label="Right edge" count={across.values.length} axis="x" onCount={across.resize} />
          </div>
          <div className="grid grid-cols-[64px_minmax(0,1fr)] items-center gap-2 pr-7">
            <span />
            <div
              className="grid gap-1"
              style={{ gridTemplateColumns: `repeat(${Math.max(1, across.values.length)}, minmax(0, 1fr))` }}
            >
              {across.values.map((_, i) => across.input(i))}
            </div>
          </div>
        </div>
        <EdgeHead side="blocks" edge={edge("blocks")} />
        <div className="pl-[72px] max-sm:pl-0">
          <EdgeHead side="across" edge={across} />
        </div>
      </div>
      {faults
        .filter((f) => own.includes(f.field))
        .map((f) => (
          <Fault key={f.field}>{f.message}</Fault>
        ))}
      {inHand && (
        <p className="num min-h-6 text-[14px]" aria-live="polite">
          <b className="font-semibold">Cell {inHand.name}</b>: {inHand.lines.join(" · ")}
        </p>
      )}
      <p className="text-[14px] text-ink2">{needs}</p>
    </div>
  );
}

/** Nothing can be drawn of some plans that are refused: the faults say what to change. */
function cellsOf(edges: AnyEdges, plan: unknown, context: PlanContext): EdgeCell[] {
  try {
    return edges.cells(plan, context);
  } catch {
    return [];
  }
}

/** One edge: its setting, its values, and what changes them. */
function edgeAt(
  { edges, fields, draft, onChange }: Pick<Props, "edges" | "fields" | "draft" | "onChange">,
  side: Side,
) {
  const key = edges.keys[side];
  const setting = draft[key] ?? "";
  const field = fields.find((f) => f.key === setting);
  const text = setting === edges.none ? "" : (draft[setting] ?? "");
  const values = setting === edges.none ? [] : valuesIn(field, text);
  const put = (next: readonly string[]) => onChange({ [setting]: listText(next) });
  return {
    setting,
    field,
    text,
    values,
    options: fields.find((f) => f.key === key),
    unit: edges.unitOf(setting),
    isNone: setting === edges.none,
    type: (next: string) => onChange({ [setting]: next }),
    choose: (next: string) => onChange(movedTo(edges, fields, draft, key, next, values.length)),
    resize: (count: number) => put(resized(edges, setting, values, count)),
    space: (by: "even" | "ratio") => put(respaced(edges, setting, values, values.length, by)),
    input: (i: number) => (
      <ValueField
        key={i}
        label={`${field?.label ?? setting}, value ${i + 1}`}
        field={field}
        value={values[i] ?? ""}
        onChange={(value) => put(values.map((v, k) => (k === i ? value : v)))}
      />
    ),
  };
}

const SIDE_WORDS: Record<Side, string> = {
  across: "From left to right",
  up: "From front to back",
  blocks: "From block to block",
};

/** The setting on an edge, and how its values are spaced. */
function EdgeHead({ side, edge }: { side: Side; edge: ReturnType<typeof edgeAt> }) {
  const { options, unit, values } = edge;
  if (options?.kind !== "choice") return null;
  return (
    <div className={clsx("flex flex-wrap items-end gap-2", side !== "across" && "max-w-38 flex-col !items-start")}>
      <PickField
        label={unit ? `${SIDE_WORDS[side]}, ${unit}` : SIDE_WORDS[side]}
        value={edge.setting}
        choices={options.options.map(({ value, label }) => ({ value, label }))}
        onChange={edge.choose}
      />
      {side === "blocks" && !edge.isNone && (
        <TextField label="Values of the blocks" value={edge.text} onChange={edge.type} />
      )}
      {values.length > 2 && (
        <span className="flex gap-2">
          <Button weight="small" onClick={() => edge.space("ratio")}>
            By ratio
          </Button>
          <Button weight="small" onClick={() => edge.space("even")}>
            Evenly
          </Button>
        </span>
      )}
    </div>
  );
}
