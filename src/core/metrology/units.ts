/**
 * Units as typed and shown. Inside the core one unit a dimension: mm, mm/s, s, rad, 1/mm, counts.
 *
 * 1 in = 25.4 mm exactly (International yard and pound agreement, 1959; NIST SP 811, 2008 edition, appendix B).
 */
export type Dimension = "length" | "speed" | "time" | "angle" | "ratio" | "per length" | "count" | "switch";

export type Unit = {
  readonly symbol: string;
  readonly dimension: Dimension;
  /** How many internal units one of this unit is. */
  readonly factor: number;
  /** Other spellings accepted when typed, lower case. */
  readonly spellings: readonly string[];
};

export const MM_PER_INCH = 25.4;

export const UNITS = {
  mm: unit("mm", "length", 1, ["mm"]),
  in: unit("in", "length", MM_PER_INCH, ["in", "inch", "inches", '"', "″", "”"]),
  thou: unit("thou", "length", MM_PER_INCH / 1000, ["thou"]),
  cm: unit("cm", "length", 10, ["cm"]),
  ft: unit("ft", "length", 304.8, ["ft", "foot", "feet", "'", "′", "’"]),
  um: unit("µm", "length", 1e-3, ["um", "µm", "μm", "micron", "microns"]),
  mmPerS: unit("mm/s", "speed", 1, ["mm/s", "mm/sec"]),
  mmPerMin: unit("mm/min", "speed", 1 / 60, ["mm/min"]),
  inPerMin: unit("in/min", "speed", MM_PER_INCH / 60, ["in/min", "ipm"]),
  us: unit("µs", "time", 1e-6, ["us", "µs", "μs"]),
  ms: unit("ms", "time", 1e-3, ["ms"]),
  s: unit("s", "time", 1, ["s"]),
  deg: unit("°", "angle", Math.PI / 180, ["deg", "°"]),
  rad: unit("rad", "angle", 1, ["rad"]),
  percent: unit("%", "ratio", 0.01, ["%"]),
  /** Of colours: 100 from black to white. */
  colourDifference: unit("ΔE", "ratio", 0.01, []),
  mmPerM: unit("mm/m", "ratio", 0.001, ["mm/m"]),
  one: unit("", "ratio", 1, []),
  perMm: unit("per mm", "per length", 1, ["per mm", "/mm"]),
  perIn: unit("per in", "per length", 1 / MM_PER_INCH, ["per in", "/in"]),
  counts: unit("counts", "count", 1, ["counts", "count"]),
  steps: unit("steps", "count", 1, ["steps", "step"]),
  /** 1 = on, 0 = off: typed and shown in words. */
  onOff: unit("", "switch", 1, []),
} as const;

export type UnitId = keyof typeof UNITS;

function unit(symbol: string, dimension: Dimension, factor: number, spellings: readonly string[]): Unit {
  return { symbol, dimension, factor, spellings };
}

const BY_SPELLING: ReadonlyMap<string, UnitId> = new Map(
  (Object.keys(UNITS) as UnitId[]).flatMap((id) => UNITS[id].spellings.map((spelling) => [spelling, id] as const)),
);

/** Finds a unit by any accepted spelling; `undefined` when no unit is spelled so. */
export function unitBySpelling(text: string): UnitId | undefined {
  return BY_SPELLING.get(text.trim().toLowerCase());
}

/** Units in which lengths are read and shown, in the order in which one key goes through them. */
export const LENGTH_UNITS = ["mm", "in", "thou"] as const satisfies readonly UnitId[];
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** The words of a switch, by its value. */
export const SWITCH_WORDS = ["off", "on"] as const;

/** From a value in `from` to the internal unit of its dimension. */
export function toInternal(value: number, from: UnitId): number {
  return value * UNITS[from].factor;
}

/** From the internal unit to `to`. */
export function fromInternal(value: number, to: UnitId): number {
  return value / UNITS[to].factor;
}

/** The unit in which a dimension is read and shown when the person has chosen nothing else. */
export const DEFAULT_UNIT: Record<Dimension, UnitId> = {
  length: "mm",
  speed: "mmPerS",
  time: "us",
  angle: "deg",
  ratio: "percent",
  "per length": "perMm",
  count: "counts",
  switch: "onOff",
};
