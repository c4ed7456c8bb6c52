import { parseReading } from "../../src/core/metrology/reading-text";
import { above, type Line } from "./line";

/** Parsing what technicians type. */
export function parsing(): Line[] {
  const texts = ["1.46", "12,5", "0.0035 in", "1 3/8 in", "350+6 mm", "1.46/2", "8 thou", "50 µm", "0.2x", "1-3/8"];
  const count = 200_000;
  let taken = 0;
  const began = performance.now();
  for (let i = 0; i < count; i++) if (parseReading(texts[i % texts.length] as string, "length").ok) taken++;
  const perSecond = (1000 * count) / (performance.now() - began);
  if (taken !== (count * 8) / texts.length) throw new Error(`parsing: ${taken} of ${count} taken`);
  return [{ what: "readings parsed a second, one in five refused", ...above(perSecond / 1000, 100, "thousand") }];
}
