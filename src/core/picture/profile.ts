/** Grey along one direction, gathered into narrow bins: mean place, mean grey and how many pixels each holds. */

export type Profile = { at: number[]; grey: number[]; count: number[] };

export class ProfileGathering {
  private readonly places: Float64Array;
  private readonly greys: Float64Array;
  private readonly counts: Uint32Array;

  /** @param from,to range of places, mm @param step width of a bin, mm */
  constructor(
    private readonly from: number,
    to: number,
    private readonly step: number,
  ) {
    const bins = Math.max(1, Math.ceil((to - from) / step));
    this.places = new Float64Array(bins);
    this.greys = new Float64Array(bins);
    this.counts = new Uint32Array(bins);
  }

  add(place: number, grey: number): void {
    const bin = Math.floor((place - this.from) / this.step);
    if (bin < 0 || bin >= this.counts.length) return;
    this.places[bin] = (this.places[bin] ?? Number.NaN) + place;
    this.greys[bin] = (this.greys[bin] ?? Number.NaN) + grey;
    this.counts[bin] = (this.counts[bin] ?? Number.NaN) + 1;
  }

  /** Bins that hold pixels. */
  profile(): Profile {
    const of: Profile = { at: [], grey: [], count: [] };
    this.counts.forEach((count, bin) => {
      if (count === 0) return;
      of.at.push((this.places[bin] ?? Number.NaN) / count);
      of.grey.push((this.greys[bin] ?? Number.NaN) / count);
      of.count.push(count);
    });
    return of;
  }
}
