/** What is asked before a kerf is measured, field by field. */

import { knownLengthField } from "../../measuring/known-length";
import { gaugeFields } from "../../measuring/length-gauges";
import { stockText } from "../../stock/stock-at-hand";
import type { FieldSpec, PlanContext } from "../../trial/plan-form";
import { choice, LENGTH, SPEED } from "../../trial/plan-form";
import { FACES, GASES, MATE_WAYS, OFFSETS, WAYS, type Way } from "./plan-type";

const SQUARES: Way[] = ["part and hole", "part", "hole"];
const MATES: Way[] = [...MATE_WAYS];

export function fieldsFor(context: PlanContext): FieldSpec[] {
  const { stocks = [] } = context;
  const square = { field: "way", is: SQUARES };
  const comb = { field: "way", is: ["comb"] };
  const mates = { field: "way", is: MATES };
  const cutWays = { field: "way", is: [...SQUARES, "comb"] };
  return [
    {
      key: "stock",
      label: "Stock",
      group: "Stock",
      kind: "choice",
      why: "A kerf belongs to one batch of it.",
      options: stocks.map((s) => ({ value: s.key, label: stockText(s), why: "" })),
      elsewhere: {
        href: "/stock",
        label: stocks.length === 0 ? "Make a card of the stock first" : "Cards of the stock",
      },
    },
    {
      key: "way",
      label: "What is cut",
      group: "Cut",
      ...choice(WAYS),
      why: "Part and hole tell kerf and scale apart.",
    },
    {
      key: "sideMm",
      label: "Side of the square",
      group: "Cut",
      ...LENGTH,
      why: "As it is drawn.",
      when: square,
    },
    {
      key: "grownMm",
      label: "Grown on each side by",
      group: "Cut",
      ...LENGTH,
      why: "0 to measure; the offset per side to prove it. A hole alone is shrunk.",
      when: square,
    },
    {
      key: "scaleWithin",
      label: "Lengths are right within",
      group: "Cut",
      kind: "quantity",
      dimension: "ratio",
      unit: "percent",
      why: "What the scale may add to the kerf; 0.1 % is 0.04 mm in 40.",
      when: { field: "way", is: ["part", "hole"] },
    },
    {
      key: "faces",
      label: "Read on",
      group: "Cut",
      ...choice(FACES),
      why: "The bottom face tells the taper.",
      when: square,
    },
    {
      key: "cuts",
      label: "Cuts across",
      group: "Cut",
      kind: "count",
      why: "All of them, the frame counted in.",
      when: comb,
    },
    { key: "stripMm", label: "From cut to cut", group: "Cut", ...LENGTH, why: "", when: comb },
    {
      key: "jointMm",
      label: "Width of the joint",
      group: "Mates",
      ...LENGTH,
      why: "Drawn alike on both; of a plug its diameter.",
      when: { field: "way", is: ["tongue and slot", "plug and ring"] },
    },
    {
      key: "offsetOn",
      label: "The offset is on",
      group: "Mates",
      ...choice(OFFSETS),
      why: "On both it counts twice as much.",
      when: { field: "way", is: ["tongue and slot", "plug and ring"] },
    },
    {
      key: "firstMm",
      label: "First offset per side",
      group: "Mates",
      ...LENGTH,
      signed: true,
      why: "",
      when: mates,
    },
    { key: "stepMm", label: "Step", group: "Mates", ...LENGTH, why: "From mate to mate.", when: mates },
    {
      key: "mates",
      label: "Mates",
      group: "Mates",
      kind: "count",
      why: "From loose to will not go.",
      when: mates,
    },
    {
      key: "snugGapMm",
      label: "Snug is a gap of",
      group: "Mates",
      ...LENGTH,
      signed: true,
      why: "Across both sides. For the kerf alone: the snug offset supposes nothing.",
      when: mates,
    },
    { key: "snugWithinMm", label: "give or take", group: "Mates", ...LENGTH, why: "", when: mates },
    {
      key: "sheetWidthMm",
      label: "Piece of stock, along X",
      group: "Mates",
      ...LENGTH,
      why: "Mates are laid out on it.",
      when: mates,
    },
    { key: "sheetHeightMm", label: "along Y", group: "Mates", ...LENGTH, why: "", when: mates },
    { key: "speedMmPerS", label: "Cutting speed", group: "Settings", ...SPEED, why: "" },
    { key: "powerPct", label: "Power, %", group: "Settings", kind: "count", why: "" },
    { key: "passes", label: "Passes", group: "Settings", kind: "count", why: "" },
    { key: "gas", label: "Gas", group: "Settings", ...choice(GASES), why: "" },
    {
      key: "focusBelowMm",
      label: "Focus below the top face",
      group: "Settings",
      ...LENGTH,
      signed: true,
      why: "0 = on it.",
    },
    { key: "markSpeedMmPerS", label: "Speed of the letters", group: "Settings", ...SPEED, why: "" },
    { key: "markPowerPct", label: "Power of the letters, %", group: "Settings", kind: "count", why: "" },
    ...gaugeFields(context, "The side must be within it.").map((f) => (f.when ? f : { ...f, when: cutWays })),
    { key: "repeats", label: "Readings a site", group: "Reading", kind: "count", why: "Set anew each time." },
    knownLengthField(cutWays),
    { key: "stockAtXMm", label: "Lies at X", group: "Place", ...LENGTH, why: "Lower left corner of the stock." },
    { key: "stockAtYMm", label: "Lies at Y", group: "Place", ...LENGTH, why: "" },
  ];
}
