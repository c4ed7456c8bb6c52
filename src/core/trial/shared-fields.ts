/** Fields that many plans have alike: how it is burned, and the stock with its place on the bed. */
import type { MachineSpec } from "../machine/machine-spec";
import { topSpeedReason } from "../machine/not-known";
import { plain } from "../metrology/quantity-text";
import { stockText } from "../stock/stock-at-hand";
import { field, type When } from "./plan-field";
import type { PlanContext } from "./plan-form";

type Paced = Pick<MachineSpec, "name" | "topSpeedMmPerS" | "assumed">;

/** As far as the machine goes. */
export function topSpeed(machine: Paced): readonly [number, string] {
  return [machine.topSpeedMmPerS, topSpeedReason(machine)];
}

const FULL_POWER = [100, "Full power is 100 %."] as const;

export function powerField(of: { label?: string; group?: string; why?: string; when?: When; usual: number }) {
  return field.number({ label: "Power, %", group: "Burn", max: FULL_POWER, ...of });
}

/** Thin lines, drawn slowly. */
export function lineFields(machine: Paced, when?: When) {
  return {
    speedMmPerS: field.speed({
      label: "Speed",
      group: "Burn",
      why: "Slow speeds give thin, even lines.",
      usual: Math.min(100, machine.topSpeedMmPerS / 4),
      max: topSpeed(machine),
      when,
    }),
    powerPct: powerField({ usual: 14, when }),
  };
}

/** How often each point is read. */
export function repeatsField(usual: number, why = "Set the jaws again each time.") {
  return field.count({ label: "Readings per point", group: "Reading", why, usual, max: 20 });
}

/** @param of.most no larger than this bed; left out where the place is asked for too */
export function stockSizeFields(of: {
  widthMm: number;
  heightMm: number;
  why?: string;
  most?: Pick<MachineSpec, "widthMm" | "depthMm">;
}) {
  const { most, why } = of;
  const within = (mm: number) => [mm, `The working area ends at ${plain(mm)} mm.`] as const;
  return {
    stockWidthMm: field.length({
      label: "Stock width",
      group: "Stock",
      why,
      usual: of.widthMm,
      max: most && within(most.widthMm),
    }),
    stockHeightMm: field.length({
      label: "Stock height",
      group: "Stock",
      usual: of.heightMm,
      max: most && within(most.depthMm),
    }),
  };
}

/** The batch that a result belongs to. @param of.noCard said where the workshop has no card */
export function stockField({ stocks = [] }: Pick<PlanContext, "stocks">, of: { why: string; noCard: string }) {
  const isEmpty = stocks.length === 0;
  return field.oneOfThese(
    stocks.map((s) => ({ value: s.key, label: stockText(s) })),
    {
      label: "Stock",
      group: "Stock",
      why: of.why,
      usual: stocks[0]?.key ?? "",
      refusal: isEmpty ? of.noCard : "Choose the stock.",
      elsewhere: { href: "/stock", label: isEmpty ? "Make a card of the stock first" : "Cards of the stock" },
    },
  );
}

/** Where the stock lies on the bed. */
export function placeFields({ xMm, yMm }: { xMm: number; yMm: number }, group = "Stock") {
  const inside = [0, "The stock must lie inside the working area."] as const;
  return {
    stockAtXMm: field.length({
      label: "Lies at X",
      group,
      why: "Distance of the lower left corner from the left edge.",
      usual: xMm,
      min: inside,
    }),
    stockAtYMm: field.length({
      label: "Lies at Y",
      group,
      why: "Distance of the lower left corner from the front edge.",
      usual: yMm,
      min: inside,
    }),
  };
}

/** In the middle of the bed, whole mm. */
export function middleOf(
  { widthMm, depthMm }: Pick<MachineSpec, "widthMm" | "depthMm">,
  stock: { widthMm: number; heightMm: number },
): { xMm: number; yMm: number } {
  return {
    xMm: Math.max(0, Math.floor((widthMm - stock.widthMm) / 2)),
    yMm: Math.max(0, Math.floor((depthMm - stock.heightMm) / 2)),
  };
}

/** Where the stock reaches over the bed. */
export function placeFaults(
  plan: { stockAtXMm: number; stockAtYMm: number },
  stock: { widthMm: number; heightMm: number },
  machine: Pick<MachineSpec, "widthMm" | "depthMm">,
) {
  return [
    ["stockAtXMm", overBed(plan.stockAtXMm + stock.widthMm, machine.widthMm)],
    ["stockAtYMm", overBed(plan.stockAtYMm + stock.heightMm, machine.depthMm)],
  ] as const;
}

function overBed(end: number, size: number): string | null {
  return end > size
    ? `The stock would reach to ${plain(end)} mm, outside the working area of ${plain(size)} mm. Move the stock or use a smaller piece.`
    : null;
}
