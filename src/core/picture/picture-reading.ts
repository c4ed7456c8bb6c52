/** What a page found in a picture at one site, as it is sent to be kept. */
export type PictureReading =
  | { site: string; mm: number; uMm: number; degreesOfFreedom: number; edited: boolean }
  /** Dots of a grid, mm from the lower left corner of the picture; `null` where none was seen. */
  | {
      site: string;
      points: readonly ({ x: number; y: number } | null)[];
      uMm: number;
      degreesOfFreedom: number;
      edited: boolean;
    }
  /** Scores of the cells of an array, in their order; `null` where a cell could not be read. */
  | { site: string; scores: readonly (number | null)[]; edited: boolean }
  /** Nothing is marked there. */
  | { site: string; blank: true };
