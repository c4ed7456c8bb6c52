/** Closed outlines of a drawing, mm, Y up. */
export type Point = { x: number; y: number };
export type Contour = {
  points: readonly Point[];
  /** Layer or group that it is in. */
  layer: string;
};

/** Something that stands in the way, said so that it can be found in the drawing. */
export type Problem = {
  kind:
    | "open"
    | "self-crossing"
    | "overlapping"
    | "drawn twice"
    | "vanishes"
    | "falls apart"
    | "closes"
    | "grown together";
  text: string;
  /** Where, mm. */
  at: Point;
  /** The outline that it is about, as it was drawn. */
  points: readonly Point[];
};

/** Positive where it goes round anticlockwise, mm^2. */
export function signedArea(points: readonly Point[]): number {
  let sum = 0;
  for (let i = 0; i < points.length; i++) {
    const [a, b] = [points[i] as Point, points[(i + 1) % points.length] as Point];
    sum += a.x * b.y - b.x * a.y;
  }
  return sum / 2;
}

/** `X 12.3 Y 45.6 mm`, from the lower left corner of the sheet. */
export function placeText({ x, y }: Point): string {
  return `X ${x.toFixed(1)} Y ${y.toFixed(1)} mm`;
}
