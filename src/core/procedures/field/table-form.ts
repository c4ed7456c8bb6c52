/** The form in which a controller takes a table of nodes: asked and drawn, never assumed. */
import { at, box, FAINT, ring, words } from "../../drawing/close-up";
import type { Detail } from "../../drawing/scene";
import type { MachineSpec } from "../../machine/machine-spec";
import { plain } from "../../metrology/quantity-text";
import { parseReading } from "../../metrology/reading-text";
import type { FieldTable } from "../../settings/field-table";
import { type Decisions, oneOf, typed } from "../../trial/decision";
import type { History } from "../../trial/history";
import type { Wish } from "../../trial/outcome";
import type { FieldPlan } from "./plan";
import { reachOf } from "./table";

/** Nodes along each side. */
export const TABLE_SIZES = ["65", "129", "257"] as const;
/** Value at a node. */
export const TABLE_VALUES = {
  add: "Shift that the controller adds to the drawn point",
  command: "Point to which the controller sends the mirrors",
  "take off": "Error that the controller subtracts from the drawn point",
} as const;
export const TABLE_ORDERS = {
  "front, x": "From the front left, along X first",
  "front, y": "From the front left, along Y first",
  "back, x": "From the back left, along X first",
  "back, y": "From the back left, along Y first",
} as const;

type ValueKind = keyof typeof TABLE_VALUES;
type Order = keyof typeof TABLE_ORDERS;

export const SIZE = oneOf("table nodes", TABLE_SIZES);
export const VALUES = oneOf("table values", ["add", "command", "take off"]);
export const ORDER = oneOf("table order", ["front, x", "front, y", "back, x", "back, y"]);
export const COUNTS = typed("table counts");

export type TableForm = {
  across: number;
  values: ValueKind;
  order: Order;
  /** Counts of the controller per mm; `null` = mm. */
  countsPerMm: number | null;
};

const USUAL: TableForm = { across: 65, values: "add", order: "front, x", countsPerMm: null };

export type ReadForm = { ok: true; form: TableForm } | { ok: false; message: string };

/** The form that the user chose in a trial. */
export function tableFormOf(decisions: Decisions): ReadForm {
  const text = COUNTS.of(decisions).trim();
  const counts = text === "" ? null : parseReading(text, "count", "counts");
  if (counts && !counts.ok) return { ok: false, message: `Counts per mm: ${counts.message}` };
  if (counts && !(counts.value > 0))
    return { ok: false, message: "Enter more than 0 counts per mm, or nothing for mm." };
  return {
    ok: true,
    form: {
      across: Number(SIZE.of(decisions) ?? USUAL.across),
      values: VALUES.of(decisions) ?? USUAL.values,
      order: ORDER.of(decisions) ?? USUAL.order,
      countsPerMm: counts?.value ?? null,
    },
  };
}

/** The form of the table, and its files. */
export function tableWish(
  { decisions, machine }: Pick<History, "decisions" | "machine">,
  plan: FieldPlan,
  table: FieldTable,
): Wish {
  const side = tableSideMm(machine);
  const read = tableFormOf(decisions);
  const form = read.ok ? read.form : USUAL;
  const options = (labels: Readonly<Record<string, string>>) =>
    Object.entries(labels).map(([value, label]) => ({ value, label }));
  const reach = reachOf(table) ?? plan.fieldMm / 2;
  return {
    id: "table",
    title: "Files of the table",
    why: "Choose the form from the manual of the controller.",
    fields: [{ decision: COUNTS.key, label: "Counts per mm (empty for mm)", text: COUNTS.of(decisions) }],
    checks: [],
    choices: [
      {
        decision: SIZE.key,
        label: "Nodes",
        chosen: String(form.across),
        options: TABLE_SIZES.map((n) => ({ value: n, label: `${n} × ${n}` })),
      },
      {
        decision: VALUES.key,
        label: "Value at a node",
        chosen: form.values,
        options: options(TABLE_VALUES),
      },
      {
        decision: ORDER.key,
        label: "Order of the nodes",
        chosen: form.order,
        options: options(TABLE_ORDERS),
      },
    ],
    drawing: formDrawing(form),
    lines: read.ok
      ? [
          `${form.across} × ${form.across} nodes over ${plain(side)} mm, ${plain(side / (form.across - 1), 4)} mm apart, ${form.countsPerMm === null ? "in mm" : `in counts, ${plain(form.countsPerMm)} per mm`}`,
          `measured within ±${plain(reach, 2)} mm; the file says which nodes are measured`,
        ]
      : [],
    fault: read.ok ? null : read.message,
    files: read.ok
      ? [
          { file: "field-table.csv", of: "table", label: "CSV" },
          { file: "field-table.json", of: "table", label: "JSON" },
        ]
      : [],
  };
}

/** A table is of the whole field that the controller knows. */
export function tableSideMm({ widthMm, depthMm }: Pick<MachineSpec, "widthMm" | "depthMm">): number {
  return Math.max(widthMm, depthMm);
}

const SIDE = 3;

/** A field of three by three nodes in the order of the file, and what a value means. */
function formDrawing({ order, values }: TableForm): Detail {
  const [from, first] = order.split(", ");
  const nodes = Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [slow, fast] = [Math.floor(i / SIDE), i % SIDE];
    const [column, step] = first === "x" ? [fast, slow] : [slow, fast];
    const row = from === "front" ? step : SIDE - 1 - step;
    return { number: i + 1, x: 4 * column - 4, y: 4 * row - 4 };
  });
  return {
    title: "Order of the nodes",
    note: SENSES[values],
    radius: 9,
    strip: { low: -6.6, high: 6.2 },
    primitives: [
      box(-5.6, -5.6, 5.6, 5.6, FAINT),
      ...nodes.flatMap(({ number, x, y }) => [
        ring(at(x, y), 0.35),
        words(at(x + 1, y + 0.4), String(number), { tone: "ink" }),
      ]),
      { kind: "arrow", from: at(-8, -5.6), to: at(-8, -2.6), text: "Y", tone: "ink" },
      { kind: "arrow", from: at(-8, -5.6), to: at(-5.9, -5.6), text: "X", tone: "ink" },
    ],
  };
}

const SENSES: Readonly<Record<ValueKind, string>> = {
  add: "a mark is wanted 1 mm farther right: value +1",
  command: "a mark is wanted 1 mm farther right: value X + 1",
  "take off": "a mark is wanted 1 mm farther right: value −1",
};
