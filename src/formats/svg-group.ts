/** Marking settings as data attributes of a group of a drawing, written and read. */
import { z } from "zod";
import { type MarkingSettings, markingSettingsSchema } from "../core/coupon/piece";
import { plain } from "../core/metrology/quantity-text";

const DECIMALS = 6;

/** Numbers of every group, and those that not every group has. */
const ALWAYS = [
  ["data-speed-mm-per-s", "speedMmPerS"],
  ["data-power-percent", "powerPct"],
  ["data-run-up-mm", "runUpMm"],
] as const satisfies readonly (readonly [string, keyof MarkingSettings])[];
const SOMETIMES = [
  ["data-pulses-khz", "pulseKHz"],
  ["data-pulse-ns", "pulseNs"],
  ["data-dwell-ms", "dwellMs"],
  ["data-above-focus-mm", "aboveFocusMm"],
  ["data-passes", "passes"],
] as const satisfies readonly (readonly [string, keyof MarkingSettings])[];
const [USE, PITCH, DIRECTION] = ["data-use", "data-row-pitch-mm", "data-direction"];

/** A number as drawings hold it: six decimals are half a nanometre of rounding. */
export function svgNumber(value: number): string {
  return plain(value, DECIMALS).replace("−", "-");
}

/** How a group is marked; without its id and label. */
export function groupAttributes(settings: MarkingSettings): string {
  const numbers = [...ALWAYS, ...SOMETIMES].flatMap(([name, key]) => {
    const value = settings[key];
    return value === undefined ? [] : [[name, svgNumber(value)]];
  });
  const scan = settings.scan
    ? [
        [PITCH, svgNumber(settings.scan.rowPitchMm)],
        [DIRECTION, settings.scan.direction],
      ]
    : [];
  return [[USE, settings.use], ...numbers, ...scan].map(([name, value]) => ` ${name}="${value}"`).join("");
}

export function isMarkedGroup(attributes: Readonly<Record<string, string>>): boolean {
  return attributes[USE] !== undefined;
}

/** @returns the settings, or why they cannot be read */
export function groupSettings(attributes: Readonly<Record<string, string>>): MarkingSettings | { why: string } {
  const numbers = [...ALWAYS, ...SOMETIMES].flatMap(([name, key]) =>
    attributes[name] === undefined ? [] : [[key, toNumber(attributes[name])]],
  );
  const read = markingSettingsSchema.safeParse({
    id: attributes.id,
    label: attributes["data-label"],
    use: attributes[USE],
    ...Object.fromEntries(numbers),
    scan: attributes[PITCH] ? { rowPitchMm: toNumber(attributes[PITCH]), direction: attributes[DIRECTION] } : null,
  });
  return read.success ? read.data : { why: z.prettifyError(read.error) };
}

function toNumber(text: string): number | undefined {
  return /^-?\d+(\.\d+)?(e-?\d+)?$/i.test(text) ? Number(text) : undefined;
}
