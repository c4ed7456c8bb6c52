/** Shapes that the fields of many layouts have. */
import { z } from "zod";
import type { MachineSpec } from "./machine-spec";
import { topSpeedText } from "./not-known";

/** A choice between words, the key of each with its label. */
export const choice = (of: Record<string, string>) => ({
  kind: "choice" as const,
  options: Object.entries(of).map(([value, label]) => ({ value, label, why: "" })),
});
export const oneOf = <K extends string>(of: Record<K, string>) => z.enum(Object.keys(of) as [K, ...K[]]);

export const LENGTH = { kind: "quantity", dimension: "length", unit: "mm" } as const;
export const SPEED = { kind: "quantity", dimension: "speed", unit: "mmPerS" } as const;

/** @param what is to be given, for example `the side, for example 40 mm` */
export function positive(what: string) {
  return z.number({ error: `Give ${what}.` }).positive("It must be larger than 0.");
}

/** @param what is to be given */
export function wholeNumber(what: string, least: number, most: number) {
  return z
    .number({ error: `Give ${what}.` })
    .int("A whole number.")
    .min(least, `At least ${least}.`)
    .max(most, `${most} at most.`);
}

export function speedShape(machine: Pick<MachineSpec, "name" | "topSpeedMmPerS" | "assumed">, what: string) {
  return positive(what).max(machine.topSpeedMmPerS, topSpeedText(machine));
}

export const POWER_SHAPE = positive("the power").max(100, "Power goes up to 100 %.");

/** How often each site is read. */
export const REPEATS_SHAPE = wholeNumber("how often each site is read", 1, 20);
