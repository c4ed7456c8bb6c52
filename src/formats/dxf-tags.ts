/** The pairs of a DXF file: a group code on one line, its value on the next. [Autodesk DXF Reference, ASCII files] */
import { FormatFault, refuseLarge } from "./parsed";

const MOST_CHARACTERS = 5_000_000;

export type Tag = { code: number; value: string; line: number };

export function tagsOf(text: string): Tag[] {
  refuseLarge(text, MOST_CHARACTERS);
  if (text.startsWith("AutoCAD Binary DXF"))
    throw new FormatFault(1, 1, "Binary DXF is not understood: save it as text.");
  const lines = text.split(/\r\n|\n|\r/);
  const tags: Tag[] = [];
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = (lines[i] as string).trim();
    if (!/^-?\d{1,4}$/.test(code)) {
      if (lines.slice(i).every((l) => l.trim() === "")) break;
      throw new FormatFault(i + 1, 1, `“${code.slice(0, 20)}” is no group code: a whole number is expected here.`);
    }
    tags.push({ code: Number(code), value: (lines[i + 1] as string).trim(), line: i + 2 });
  }
  const last = tags.at(-1);
  if (last?.code !== 0 || last.value !== "EOF")
    throw new FormatFault(lines.length, 1, "The file is cut short: EOF is missing at its end.");
  return tags;
}

/** A number of a group; `fallback` where the group is missing. */
export function numberIn(tags: readonly Tag[], code: number, fallback?: number): number {
  const tag = tags.find((t) => t.code === code);
  if (!tag) {
    if (fallback !== undefined) return fallback;
    throw new FormatFault(tags[0]?.line ?? 1, 1, `A group ${code} is missing here.`);
  }
  return toNumber(tag);
}

export function toNumber(tag: Tag): number {
  if (!/^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/.test(tag.value))
    throw new FormatFault(tag.line, 1, `“${tag.value.slice(0, 20)}” is no number.`);
  return Number(tag.value);
}

export function textIn(tags: readonly Tag[], code: number): string {
  return tags.find((t) => t.code === code)?.value ?? "";
}
