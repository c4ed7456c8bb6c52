"use client";
import clsx from "clsx";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Draft } from "../../../core/trial/draft";
import type { EdgeCell, Edges } from "../../../core/trial/edges";
import type { FieldSpec, PlanContext, PlanIssue } from "../../../core/trial/plan-form";
import { Button } from "../../primitives/button";
import { PickField } from "../../primitives/fields";
import { Fault } from "../../primitives/notice";

type Side = "across" | "up" | "blocks";

type Props = {
  // biome-ignore lint/suspicious/noExplicitAny: the plan is the procedure's own business
  edges: Edges<any>;
  fields: readonly FieldSpec[];
  draft: Draft;
  plan: unknown;
  context: PlanContext;
  faults: readonly PlanIssue[];
  onChange: (texts: Draft) => void;
};

/** Values along an edge at most. */
const MOST = 20;
/** How far the handle of an edge is pulled for one more row of cells, pixels. */
const PULL_PX = 34;
/** A new edge goes from this share of its value to this. */
const REACH = { from: 0.5, to: 2, even: 2 };

/** The array with its settings on its edges: the values are typed there, and the edges are pulled for more cells. */
export function ArrayEditor({ edges, fields, draft, plan, context, faults, onChange }: Props) {
  const [at, setAt] = useState<string | null>(null);
  const setting = (side: Side) => draft[edges.keys[side]] ?? "";
  const values = (side: Side) => (setting(side) === edges.none ? [] : split(draft[setting(side)] ?? ""));
  const cells = cellsOf(edges, plan, context);
  const inHand = cells.find((c) => c.id === at) ?? cells[0];
  const columns = values("across");
  const rows = values("up");
  const put = (side: Side, next: readonly string[]) => onChange({ [setting(side)]: next.join(" ") });
  const choose = (side: Side, next: string) => onChange(movedTo(edges, draft, side, next, values(side).length));
  const edge = { edges, fields, draft, setting, values, put, choose };
  return (
    <div className="grid gap-3 p-5 max-sm:p-3">
      <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-2 max-sm:grid-cols-1">
        <div className="flex flex-col justify-center gap-2">
          <EdgeHead side="up" {...edge} />
        </div>
        <div className="grid gap-1">
          <Handle
            label="Back edge"
            count={rows.length}
            axis="y"
            onCount={(n) => put("up", resized(edges, setting("up"), rows, n))}
          />
          <div className="flex gap-1">
            <div className="grid min-w-0 flex-1 gap-1">
              {[...rows.keys()].reverse().map((row) => (
                <div key={row} className="grid grid-cols-[64px_minmax(0,1fr)] items-center gap-2">
                  <ValueField
                    label={`${labelOf(fields, setting("up"))}, value ${row + 1}`}
                    value={rows[row] ?? ""}
                    onChange={(text) => put("up", replaced(rows, row, text))}
                  />
                  <Row
                    cells={cells.filter((c) => c.row === row)}
                    columns={columns.length}
                    at={inHand?.id ?? null}
                    onPoint={setAt}
                  />
                </div>
              ))}
            </div>
            <Handle
              label="Right edge"
              count={columns.length}
              axis="x"
              onCount={(n) => put("across", resized(edges, setting("across"), columns, n))}
            />
          </div>
          <div className="grid grid-cols-[64px_minmax(0,1fr)] items-center gap-2 pr-6">
            <span />
            <div className="grid gap-1" style={{ gridTemplateColumns: `repeat(${columns.length}, minmax(0, 1fr))` }}>
              {columns.map((value, i) => (
                <ValueField
                  // biome-ignore lint/suspicious/noArrayIndexKey: a value is its place on the edge
                  key={i}
                  label={`${labelOf(fields, setting("across"))}, value ${i + 1}`}
                  value={value}
                  onChange={(text) => put("across", replaced(columns, i, text))}
                />
              ))}
            </div>
          </div>
        </div>
        <EdgeHead side="blocks" {...edge} />
        <div className="pl-[72px] max-sm:pl-0">
          <EdgeHead side="across" {...edge} />
        </div>
      </div>
      {faults
        .filter((f) =>
          [...Object.values(edges.keys), setting("across"), setting("up"), setting("blocks")].includes(f.field),
        )
        .map((f) => (
          <Fault key={f.field}>{f.message}</Fault>
        ))}
      {inHand && (
        <p className="num min-h-11 text-[14px]" aria-live="polite">
          <b className="font-semibold">Cell {inHand.name}</b>: {inHand.lines.join(" · ")}
        </p>
      )}
      <p className="text-[14px] text-ink2">{cells.length > 0 ? edges.needs(plan, context) : ""}</p>
    </div>
  );
}

/** Nothing can be drawn of some plans that are refused: the faults say what to change. */
function cellsOf(edges: Props["edges"], plan: unknown, context: PlanContext): EdgeCell[] {
  try {
    return edges.cells(plan, context);
  } catch {
    return [];
  }
}

function split(text: string): string[] {
  return text.split(/[\s;]+/).filter((t) => t !== "");
}

function replaced(values: readonly string[], at: number, text: string): string[] {
  return values.map((v, i) => (i === at ? text.replaceAll(/\s/g, "") : v));
}

function labelOf(fields: readonly FieldSpec[], key: string): string {
  return fields.find((f) => f.key === key)?.label ?? key;
}

/** More or fewer values between the same ends; a value that cannot be read keeps all as they are. */
function resized(edges: Props["edges"], setting: string, values: readonly string[], count: number): string[] {
  const [first, last] = [Number(values[0]), Number(values.at(-1))];
  if (!Number.isFinite(first) || !Number.isFinite(last) || count < 2 || count > MOST) return [...values];
  return edges.spaced(setting, first, last, count, first > 0 ? "ratio" : "even").map(String);
}

/** Another setting on an edge: it gets as many values as the one before, which keeps its middle one. */
function movedTo(edges: Props["edges"], draft: Draft, side: Side, next: string, count: number): Draft {
  const key = edges.keys[side];
  const before = draft[key] ?? "";
  const changes: Draft = { [key]: next };
  if (before !== edges.none && before !== next) {
    const values = split(draft[before] ?? "");
    changes[before] = values[Math.floor(values.length / 2)] ?? "";
  }
  if (next === edges.none) return changes;
  const values = split(draft[next] ?? "");
  const only = Number(values[0]);
  if (values.length === 1 && Number.isFinite(only)) {
    const [first, last] = only > 0 ? [only * REACH.from, only * REACH.to] : [-REACH.even, REACH.even];
    const many = side === "blocks" ? 2 : Math.max(2, count);
    changes[next] = edges.spaced(next, first, last, many, only > 0 ? "ratio" : "even").join(" ");
  }
  return changes;
}

type HeadProps = Pick<Props, "edges" | "fields" | "draft"> & {
  side: Side;
  setting: (side: Side) => string;
  values: (side: Side) => string[];
  put: (side: Side, next: readonly string[]) => void;
  choose: (side: Side, next: string) => void;
};

const SIDE_WORDS: Record<Side, string> = {
  across: "From left to right",
  up: "From front to back",
  blocks: "From block to block",
};

/** The setting on an edge, and how its values are spaced. */
function EdgeHead({ side, edges, fields, draft, setting, values, put, choose }: HeadProps) {
  const field = fields.find((f) => f.key === edges.keys[side]);
  if (field?.kind !== "choice") return null;
  const all = values(side);
  const space = (by: "even" | "ratio") =>
    put(side, edges.spaced(setting(side), Number(all[0]), Number(all.at(-1)), all.length, by).map(String));
  const unit = edges.unitOf(setting(side));
  return (
    <div className={clsx("flex flex-wrap items-end gap-2", side !== "across" && "max-w-38 flex-col !items-start")}>
      <PickField
        label={unit ? `${SIDE_WORDS[side]}, ${unit}` : SIDE_WORDS[side]}
        value={setting(side)}
        choices={field.options.map(({ value, label }) => ({ value, label }))}
        onChange={(next) => choose(side, next)}
      />
      {side === "blocks" && setting("blocks") !== edges.none && (
        <label className="text-[14px] text-ink2">
          Values
          <input
            className="field num w-full"
            value={draft[setting("blocks")] ?? ""}
            onChange={(e) => put("blocks", [e.target.value])}
          />
        </label>
      )}
      {all.length > 2 && (
        <span className="flex gap-2">
          <Button weight="small" onClick={() => space("ratio")}>
            By ratio
          </Button>
          <Button weight="small" onClick={() => space("even")}>
            Evenly
          </Button>
        </span>
      )}
    </div>
  );
}

function ValueField({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) {
  return (
    <input
      aria-label={label}
      className="num w-full min-w-0 rounded border border-transparent bg-transparent px-0.5 py-1 text-center text-[13px] hover:border-border focus:border-border"
      inputMode="decimal"
      autoComplete="off"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}

type RowProps = { cells: readonly EdgeCell[]; columns: number; at: string | null; onPoint: (id: string) => void };

/** The cells of a row, of all blocks. Arrow keys go from cell to cell. */
function Row({ cells, columns, at, onPoint }: RowProps) {
  const inOrder = [...cells].sort((a, b) => a.block - b.block || a.column - b.column);
  const onKey = (e: KeyboardEvent<HTMLButtonElement>) => {
    const beside = { ArrowRight: "nextElementSibling", ArrowLeft: "previousElementSibling" } as const;
    const way = e.key === "ArrowRight" || e.key === "ArrowLeft" ? beside[e.key] : null;
    const next = way ? e.currentTarget[way] : null;
    if (!(next instanceof HTMLElement)) return;
    e.preventDefault();
    next.focus();
  };
  return (
    <div
      className="grid gap-1"
      style={{ gridTemplateColumns: `repeat(${Math.max(columns, inOrder.length)}, minmax(0, 1fr))` }}
    >
      {inOrder.map((cell) => (
        <button
          key={cell.id}
          type="button"
          aria-label={`Cell ${cell.name}: ${cell.lines.join(", ")}`}
          className={clsx(
            "h-10 w-full border max-sm:h-7",
            cell.state === "left out"
              ? "border-dashed border-ink3"
              : cell.state === "apart"
                ? "border-dotted border-ember"
                : "border-ink3",
            cell.id === at && "outline-2 outline-ember",
          )}
          style={
            cell.state === "left out"
              ? undefined
              : {
                  backgroundColor: `color-mix(in srgb, var(--color-ink) ${Math.round(8 + 72 * cell.strength)}%, transparent)`,
                }
          }
          onPointerEnter={() => onPoint(cell.id)}
          onFocus={() => onPoint(cell.id)}
          onKeyDown={onKey}
        />
      ))}
    </div>
  );
}

type HandleProps = { label: string; count: number; axis: "x" | "y"; onCount: (count: number) => void };

/** An edge that is pulled for more cells, or pushed for fewer. By keys as well. */
function Handle({ label, count, axis, onCount }: HandleProps) {
  const from = useRef<{ at: number; count: number } | null>(null);
  const place = (e: PointerEvent) => (axis === "x" ? e.clientX : -e.clientY);
  const within = (n: number) => Math.max(2, Math.min(MOST, n));
  const onKey = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
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
      aria-valuemin={2}
      aria-valuemax={MOST}
      aria-valuetext={`${count} values`}
      className={clsx(
        "grid touch-none place-items-center rounded bg-paper text-ink3 hover:bg-hair",
        axis === "x" ? "w-6 cursor-ew-resize self-stretch" : "ml-[72px] mr-7 h-6 cursor-ns-resize",
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
