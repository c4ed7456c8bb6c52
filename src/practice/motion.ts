/**
 * A straight move in time: from rest to speed, along, and back to rest, as a motor does it.
 *
 * `place(t)` and `time(s)` are one another's inverse.
 */
export type StraightMove = {
  lengthMm: number;
  /** mm from the start at time t, s. */
  place(t: number): number;
  /** Time at which s mm are passed. */
  time(s: number): number;
};

/** Trapezoid in speed, or a triangle where the way is too short to reach it. */
export function straightMove(lengthMm: number, speedMmPerS: number, accelerationMmPerS2: number): StraightMove {
  const a = accelerationMmPerS2;
  const peak = Math.min(speedMmPerS, Math.sqrt(lengthMm * a));
  const rampTime = peak / a;
  const rampWay = (peak * rampTime) / 2;
  const cruiseWay = lengthMm - 2 * rampWay;
  const cruiseTime = cruiseWay / peak;
  const total = 2 * rampTime + cruiseTime;
  return {
    lengthMm,
    place(t) {
      if (t <= 0) return 0;
      if (t >= total) return lengthMm;
      if (t < rampTime) return (a * t * t) / 2;
      if (t < rampTime + cruiseTime) return rampWay + peak * (t - rampTime);
      return lengthMm - (a * (total - t) ** 2) / 2;
    },
    time(s) {
      if (s <= 0) return 0;
      if (s >= lengthMm) return total;
      if (s < rampWay) return Math.sqrt((2 * s) / a);
      if (s < rampWay + cruiseWay) return rampTime + (s - rampWay) / peak;
      return total - Math.sqrt((2 * (lengthMm - s)) / a);
    },
  };
}
