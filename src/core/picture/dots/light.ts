/** How bright the paper is from place to place, and from which contrast on a pixel is mark. */
import type { GreyPicture } from "../grey-picture";

export type Light = {
  /** 1 where marks are darker than the paper, -1 where they are brighter: greys times this are compared. */
  sign: 1 | -1;
  columns: number;
  rows: number;
  /** Grey times sign of the paper in the middle of each tile. */
  levels: Float32Array;
  /** Half the contrast of what is marked, grey levels; `null` where nothing stands out. */
  threshold: number | null;
};

const TILE_PX = 64;
/** So large a share of the darkest pixels is taken for mark in full. */
const DARKEST = 0.0005;
/** What stands out less than this is grain, grey levels and standard deviations of the grain. */
const LEAST = { grey: 16, grain: 6 };

export function lightOf(picture: GreyPicture, brighter: boolean): Light {
  const { width, height } = picture;
  const sign = brighter ? -1 : 1;
  const columns = Math.max(1, Math.round(width / TILE_PX));
  const rows = Math.max(1, Math.round(height / TILE_PX));
  const levels = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      levels[row * columns + column] = tileLevel(picture, sign, {
        x0: Math.floor((column * width) / columns),
        x1: Math.floor(((column + 1) * width) / columns),
        y0: Math.floor((row * height) / rows),
        y1: Math.floor(((row + 1) * height) / rows),
      });
  const light: Light = {
    sign,
    columns,
    rows,
    levels: smoothed(levels, columns, rows),
    threshold: null,
  };
  return { ...light, threshold: thresholdOf(picture, light) };
}

type Tile = { x0: number; x1: number; y0: number; y1: number };

/** Median over every second pixel of a tile. */
function tileLevel({ width, grey }: GreyPicture, sign: 1 | -1, { x0, x1, y0, y1 }: Tile): number {
  const counts = new Uint32Array(256);
  let all = 0;
  for (let y = y0; y < y1; y += 2)
    for (let x = x0; x < x1; x += 2) {
      const v = grey[y * width + x] ?? 0;
      counts[v] = (counts[v] ?? 0) + 1;
      all++;
    }
  let below = 0;
  for (let v = 0; v < 256; v++) {
    below += counts[v] ?? 0;
    if (2 * below >= all) return sign * v;
  }
  return sign * 255;
}

/** A tile that is covered by a mark goes by its neighbours: median of nine. */
function smoothed(levels: Float32Array, columns: number, rows: number): Float32Array {
  return levels.map((_, i) => {
    const [row, column] = [Math.floor(i / columns), i % columns];
    const near: number[] = [];
    for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++)
      for (let c = Math.max(0, column - 1); c <= Math.min(columns - 1, column + 1); c++)
        near.push(levels[r * columns + c] ?? 0);
    near.sort((a, b) => a - b);
    return near[near.length >> 1] ?? 0;
  });
}

/** Rows that share the grey levels of the paper. The light changes slowly. */
const ROWS_ALIKE = 4;

/** Levels of the paper along the rows of a picture, by straight lines between the middles of tiles. */
export class PaperLevels {
  private readonly line: Float32Array;
  private readonly atTiles: Float32Array;
  private present = -1;

  constructor(
    private readonly light: Pick<Light, "columns" | "rows" | "levels">,
    private readonly picture: Pick<GreyPicture, "width" | "height">,
  ) {
    this.line = new Float32Array(picture.width);
    this.atTiles = new Float32Array(light.columns);
  }

  /** The same array each time, until it is asked for another row. */
  along(row: number): Float32Array {
    const band = Math.floor(row / ROWS_ALIKE);
    if (band === this.present) return this.line;
    this.present = band;
    const { columns, rows, levels } = this.light;
    const { width, height } = this.picture;
    const { line, atTiles } = this;
    const at = ((ROWS_ALIKE * band + ROWS_ALIKE / 2) * rows) / height - 0.5;
    const upper = Math.min(rows - 1, Math.max(0, Math.floor(at)));
    const lower = Math.min(rows - 1, upper + 1);
    const down = Math.min(1, Math.max(0, at - upper));
    for (let c = 0; c < columns; c++)
      atTiles[c] = (1 - down) * (levels[upper * columns + c] ?? 0) + down * (levels[lower * columns + c] ?? 0);
    const step = columns / width;
    for (let c = -1; c < columns; c++) {
      // From the middle of one tile to that of the next; half a tile at either end is level.
      const from = Math.max(0, Math.ceil((c + 0.5) / step - 0.5));
      const to = Math.min(width, Math.ceil((c + 1.5) / step - 0.5));
      const [left, right] = [atTiles[Math.max(0, c)] ?? 0, atTiles[Math.min(columns - 1, c + 1)] ?? 0];
      const slope = (right - left) * step;
      let value = left + slope * (from + 0.5 - (c + 0.5) / step);
      for (let x = from; x < to; x++) {
        line[x] = value;
        value += slope;
      }
    }
    return line;
  }
}

function thresholdOf(picture: GreyPicture, light: Light): number | null {
  const { width, height, grey } = picture;
  const { sign } = light;
  const counts = new Uint32Array(512);
  const paper = new PaperLevels(light, picture);
  let all = 0;
  for (let y = 1; y < height; y += 2) {
    const line = paper.along(y);
    const row = y * width;
    for (let x = y % 4 === 1 ? 0 : 1; x < width; x += 2) {
      const below = ((line[x] ?? 0) - sign * (grey[row + x] ?? 0) + 256.5) | 0;
      const bin = Math.max(0, Math.min(below, 511));
      counts[bin] = (counts[bin] ?? 0) + 1;
      all++;
    }
  }
  const atShare = (share: number) => {
    let below = 0;
    for (let v = 511; v >= 0; v--) {
      below += counts[v] ?? 0;
      if (below >= share * all) return v - 256;
    }
    return -256;
  };
  const grain = (atShare(0.16) - atShare(0.84)) / 2;
  const darkest = atShare(DARKEST);
  return darkest < Math.max(LEAST.grey, LEAST.grain * grain) ? null : darkest / 2;
}
