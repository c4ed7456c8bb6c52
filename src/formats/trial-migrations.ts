/**
 * Older trial documents brought up to the present shape, a version at a time, before the schema looks at them. A step changes
 * only what its version changed, and leaves what it does not find: the schema says what is wrong with it.
 */
import { USUAL_DIALECT } from "../core/procedures/gcode-dialect";
import { UNKNOWN_AXES } from "../core/procedures/machine-spec";

type Raw = Record<string, unknown>;

/** The step at index i leads from version i + 1 to i + 2. */
const STEPS: readonly ((document: Raw) => Raw)[] = [gcodeDialect, axesAndHolds];

export const VERSION = STEPS.length + 1;

/** @param version of the document, 1 to `VERSION` */
export function broughtUpToDate(document: Raw, version: number): Raw {
  return STEPS.slice(version - 1).reduce((d, step, i) => ({ ...step(d), version: version + i + 1 }), document);
}

/** 1 to 2: the number at full power became part of how the machine takes G-code. */
function gcodeDialect(document: Raw): Raw {
  const { machine } = document;
  if (!isRecord(machine) || !("powerWordAtFull" in machine)) return document;
  const { powerWordAtFull, ...rest } = machine;
  return { ...document, machine: { ...rest, gcode: { ...USUAL_DIALECT, powerAtFull: powerWordAtFull } } };
}

/** 2 to 3: home and axes of the machine, and in which unit and range its controller takes a setting; all of it was mm and unknown. */
function axesAndHolds(document: Raw): Raw {
  const { machine } = document;
  if (!isRecord(machine)) return document;
  const held = isRecord(machine.held)
    ? Object.fromEntries(
        Object.entries(machine.held).map(([key, hold]) => [
          key,
          isRecord(hold) ? { ...hold, unit: "mm", range: null } : hold,
        ]),
      )
    : machine.held;
  return { ...document, machine: { ...machine, axes: UNKNOWN_AXES, held } };
}

function isRecord(value: unknown): value is Raw {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
