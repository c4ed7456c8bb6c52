/** Lines of a machine's own at the start and the end of its files: they must be readable here, and leave the beam alone. */
import type { GcodeDialect } from "../core/machine/gcode-dialect";
import { GcodeLine } from "./gcode-line";
import { parseGcode } from "./gcode-parser";

/** What is wrong with them, at which field; `null` where nothing is. */
export function ownLinesFault(dialect: GcodeDialect): { field: "start" | "end"; message: string } | null {
  for (const field of ["start", "end"] as const) {
    const message = faultOf(dialect, dialect[field]);
    if (message) return { field, message };
  }
  return null;
}

function faultOf(dialect: GcodeDialect, lines: readonly string[]): string | null {
  const read = parseGcode(["G21 G17 G90 G94 F1", ...lines, "M2"].join("\n"), { dialect });
  if (!read.ok) return `Line ${Math.min(Math.max(1, read.line - 1), lines.length)}: ${read.message}`;
  const on = Number(dialect.beamOn.slice(1));
  const words = new GcodeLine();
  const lit = lines.findIndex((line, i) => {
    words.read(line, 0, line.length, i + 1);
    return words.letters.some((letter, k) => letter === "M" && words.values[k] === on);
  });
  return lit < 0 ? null : `Line ${lit + 1}: it switches the beam on. Only marks do that.`;
}
