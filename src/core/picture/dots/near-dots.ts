/** Dots by the cell they lie in: those near a place are found without looking at all of them. */
import { median } from "../../fitting/median";
import type { Dot } from "./find-dots";

export type Vector = { x: number; y: number };

export class NearDots {
  /** Usual distance from a dot to its nearest neighbour. */
  readonly pitchPx: number;
  private readonly cells: number[][];
  private readonly cellPx: number;
  private readonly left: number;
  private readonly top: number;
  private readonly columns: number;
  private readonly rows: number;

  constructor(private readonly dots: readonly Dot[]) {
    const [xs, ys] = [dots.map((d) => d.x), dots.map((d) => d.y)];
    this.left = Math.min(...xs);
    this.top = Math.min(...ys);
    const [width, height] = [Math.max(...xs) - this.left, Math.max(...ys) - this.top];
    this.cellPx = Math.max(1, Math.sqrt((width * height) / dots.length));
    this.columns = 1 + Math.floor(width / this.cellPx);
    this.rows = 1 + Math.floor(height / this.cellPx);
    this.cells = Array.from({ length: this.columns * this.rows }, () => []);
    dots.forEach((d, i) => {
      this.cells[this.columns * this.down(d.y) + this.across(d.x)]?.push(i);
    });
    this.pitchPx = median(dots.map((d, i) => this.within(d, 4 * this.cellPx, i)[0]?.far ?? this.cellPx));
  }

  private across(x: number): number {
    return Math.floor((x - this.left) / this.cellPx);
  }

  private down(y: number): number {
    return Math.floor((y - this.top) / this.cellPx);
  }

  /** Dots within a distance of a place, nearest first. @param except index of the dot itself */
  within(at: Vector, reach: number, except = -1): { index: number; far: number }[] {
    const found: { index: number; far: number }[] = [];
    const lastRow = Math.min(this.rows - 1, this.down(at.y + reach));
    const lastColumn = Math.min(this.columns - 1, this.across(at.x + reach));
    for (let row = Math.max(0, this.down(at.y - reach)); row <= lastRow; row++)
      for (let column = Math.max(0, this.across(at.x - reach)); column <= lastColumn; column++)
        for (const index of this.cells[this.columns * row + column] ?? []) {
          const dot = this.dots[index];
          if (!dot || index === except) continue;
          const far = Math.hypot(dot.x - at.x, dot.y - at.y);
          if (far <= reach) found.push({ index, far });
        }
    return found.sort((a, b) => a.far - b.far);
  }
}
