/** What is usual of the sources and lenses of a kind of laser, from which practice machines are drawn. (common practice, no source) */
/** The kinds of machine as the bench knows them. */
export type LaserKind = "CO2 gantry" | "diode gantry" | "galvo";

type Range = readonly [low: number, high: number];

export type LaserSource = {
  wavelengthMm: number;
  m2: Range;
  /** What the scale of the machine shows at focus, mm. */
  shownFocusMm: Range;
  /** Gap between lens and work where the scale shows 0, mm. */
  gapAtZeroMm: Range;
  wattsAtFull: Range;
  /** Whether the stock adds up what comes one after the other. */
  addsUp: boolean;
  /** How many times what marks at all reaches the stock, with the settings of a ladder. */
  strength: Range;
  usual: { powerShare: number; speedMmPerS: number; pulseHz: number | null };
};

const CO2_GANTRY: LaserSource = {
  wavelengthMm: 0.0106,
  m2: [1.1, 1.5],
  shownFocusMm: [6, 14],
  gapAtZeroMm: [36, 42],
  wattsAtFull: [30, 60],
  addsUp: true,
  strength: [1.7, 3],
  usual: { powerShare: 0.14, speedMmPerS: 60, pulseHz: null },
};

/** A bar of many modes, taken to a small spot by a short lens. */
const DIODE_GANTRY: LaserSource = {
  ...CO2_GANTRY,
  wavelengthMm: 0.000455,
  m2: [8, 20],
  wattsAtFull: [5, 20],
};

/** A flat-field lens on a column whose scale shows the working distance. */
const GALVO: LaserSource = {
  wavelengthMm: 0.001064,
  m2: [1.2, 1.8],
  shownFocusMm: [177, 185],
  gapAtZeroMm: [0, 0],
  wattsAtFull: [20, 50],
  addsUp: false,
  strength: [3, 9],
  usual: { powerShare: 0.4, speedMmPerS: 400, pulseHz: 30_000 },
};
/** Longer waves are taken up by card and wood, where energy adds up; shorter ones mark metal pulse by pulse. */
const LONG_WAVE_MM = 0.003;

/** @param topSpeedMmPerS a ladder is burned at a tenth of it */
export function laserSource(kind: LaserKind, wavelengthNm: number, topSpeedMmPerS: number): LaserSource {
  const source = kind === "galvo" ? GALVO : kind === "diode gantry" ? DIODE_GANTRY : CO2_GANTRY;
  const wavelengthMm = wavelengthNm * 1e-6;
  return {
    ...source,
    wavelengthMm,
    addsUp: kind !== "galvo" || wavelengthMm > LONG_WAVE_MM,
    usual: { ...source.usual, speedMmPerS: topSpeedMmPerS / 10 },
  };
}

/** What machines of before there were sources are drawn from. */
export const EARLIER_SOURCE: LaserSource = CO2_GANTRY;
