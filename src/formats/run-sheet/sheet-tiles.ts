/** A drawing at true scale on as many pages as it takes, each with a line to check the printer by. */

import {
  box,
  dashed,
  line,
  MARGIN_MM,
  type SheetItem,
  type SheetPage,
  type SheetPath,
  text,
} from "../paper/sheet-page";
import type { SheetDrawing } from "./sheet-drawing";

export const CONTROL_LINE_MM = 100;
const HEAD_MM = 9;
/** For the control line and the last line of the page. */
const FOOT_MM = 26;
/** Neighbouring parts share so much. */
const OVERLAP_MM = 10;

type Paper = { widthMm: number; heightMm: number };

/** @param title what is drawn */
export function drawingPages(drawing: SheetDrawing, paper: Paper, title: string): SheetPage[] {
  const upright = [paper, { widthMm: paper.heightMm, heightMm: paper.widthMm }];
  const whole = upright.find((p) => drawing.widthMm <= roomOf(p).widthMm && drawing.heightMm <= roomOf(p).heightMm);
  if (whole) return [wholePage(drawing, whole, title)];
  const tiles = upright.map((p) => tilesOf(drawing, p));
  const [first, second] = tiles as [Tiles, Tiles];
  return tiledPages(drawing, first.columns * first.rows <= second.columns * second.rows ? first : second, title);
}

function roomOf(paper: Paper): Paper {
  return { widthMm: paper.widthMm - 2 * MARGIN_MM, heightMm: paper.heightMm - 2 * MARGIN_MM - HEAD_MM - FOOT_MM };
}

function wholePage(drawing: SheetDrawing, paper: Paper, title: string): SheetPage {
  const name = `${title}, true scale 1 : 1`;
  const items = moved(drawing.items, (paper.widthMm - drawing.widthMm) / 2, MARGIN_MM + HEAD_MM, 1);
  return { ...paper, title: name, items: [head(name), ...items, ...controlLine(paper)] };
}

type Tiles = { paper: Paper; room: Paper; columns: number; rows: number };

function tilesOf(drawing: SheetDrawing, paper: Paper): Tiles {
  const room = roomOf(paper);
  const count = (size: number, window: number) => Math.max(1, Math.ceil((size - OVERLAP_MM) / (window - OVERLAP_MM)));
  return {
    paper,
    room,
    columns: count(drawing.widthMm, room.widthMm),
    rows: count(drawing.heightMm, room.heightMm),
  };
}

function tiledPages(drawing: SheetDrawing, tiles: Tiles, title: string): SheetPage[] {
  const pages: SheetPage[] = [overview(drawing, tiles, title)];
  for (let row = 0; row < tiles.rows; row++)
    for (let column = 0; column < tiles.columns; column++) pages.push(tile(drawing, tiles, title, column, row));
  return pages;
}

function corner({ room }: Tiles, column: number, row: number) {
  return { x: column * (room.widthMm - OVERLAP_MM), y: row * (room.heightMm - OVERLAP_MM) };
}

function tile(drawing: SheetDrawing, tiles: Tiles, title: string, column: number, row: number): SheetPage {
  const { paper, room, columns, rows } = tiles;
  const [x0, y0] = [MARGIN_MM, MARGIN_MM + HEAD_MM];
  const from = corner(tiles, column, row);
  const name = `${title}, true scale 1 : 1, part ${row * columns + column + 1} of ${columns * rows}`;
  const seams: SheetItem[] = [];
  const seam = (a: SheetPath) => seams.push(dashed(a, [1, 1.5]));
  if (column > 0) seam(line(x0 + OVERLAP_MM, y0, x0 + OVERLAP_MM, y0 + room.heightMm, 0.15, "faint"));
  if (column < columns - 1)
    seam(line(x0 + room.widthMm - OVERLAP_MM, y0, x0 + room.widthMm - OVERLAP_MM, y0 + room.heightMm, 0.15, "faint"));
  if (row > 0) seam(line(x0, y0 + OVERLAP_MM, x0 + room.widthMm, y0 + OVERLAP_MM, 0.15, "faint"));
  if (row < rows - 1)
    seam(line(x0, y0 + room.heightMm - OVERLAP_MM, x0 + room.widthMm, y0 + room.heightMm - OVERLAP_MM, 0.15, "faint"));
  return {
    ...paper,
    title: name,
    items: [
      head(name),
      {
        kind: "window",
        x: x0,
        y: y0,
        widthMm: room.widthMm,
        heightMm: room.heightMm,
        items: moved(drawing.items, x0 - from.x, y0 - from.y, 1),
      },
      ...seams,
      ...controlLine(paper),
    ],
  };
}

function overview(drawing: SheetDrawing, tiles: Tiles, title: string): SheetPage {
  const { paper, room, columns, rows } = tiles;
  const scale = Math.min(room.widthMm / drawing.widthMm, room.heightMm / drawing.heightMm);
  const [x0, y0] = [MARGIN_MM, MARGIN_MM + HEAD_MM];
  const frames: SheetItem[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const at = corner(tiles, column, row);
      const size = {
        x: Math.min(room.widthMm, drawing.widthMm - at.x),
        y: Math.min(room.heightMm, drawing.heightMm - at.y),
      };
      const [x, y] = [x0 + at.x * scale, y0 + at.y * scale];
      frames.push(
        dashed(box(x, y, size.x * scale, size.y * scale, 0.3), [2, 1.2]),
        text(x + 2, y + 5, String(row * columns + column + 1), { face: "figures", sizePt: 12, ink: "second" }),
      );
    }
  const name = `${title}, overview 1 : ${(1 / scale).toFixed(1)}, not to measure`;
  const drawn = drawing.items.filter((item) => item.kind === "path");
  return { ...paper, title: name, items: [head(name), ...moved(drawn, x0, y0, scale), ...frames] };
}

function head(words: string): SheetItem {
  return text(MARGIN_MM, MARGIN_MM + 4.4, words, { face: "bold", sizePt: 12 });
}

/** Measured with a rule on the printed page, it tells whether the printer kept the scale. */
function controlLine({ widthMm, heightMm }: Paper): SheetItem[] {
  const x0 = (widthMm - CONTROL_LINE_MM) / 2;
  const y = heightMm - MARGIN_MM - 17;
  const ticks = Array.from({ length: 11 }, (_, i) => {
    const x = x0 + (i * CONTROL_LINE_MM) / 10;
    const long = i % 10 === 0 ? 3 : i % 5 === 0 ? 2 : 1.2;
    return line(x, y - long, x, y + (i % 10 === 0 ? 3 : 0), 0.2);
  });
  return [
    line(x0, y, x0 + CONTROL_LINE_MM, y, 0.2),
    ...ticks,
    text(
      widthMm / 2,
      y + 5.4,
      "This line is 100 mm long. If it is not, print again at 100 %, without fitting to the page.",
      {
        anchor: "middle",
        sizePt: 9,
        ink: "second",
      },
    ),
  ];
}

/** The same items elsewhere, and larger or smaller; letters and pens keep their size. */
function moved(items: readonly SheetItem[], dx: number, dy: number, scale: number): SheetItem[] {
  const at = <P extends { x: number; y: number }>(p: P): P => ({ ...p, x: p.x * scale + dx, y: p.y * scale + dy });
  return items.map((item): SheetItem => {
    switch (item.kind) {
      case "path":
        return { ...item, points: item.points.map(at) };
      case "window":
        return { ...at(item), items: moved(item.items, dx, dy, scale) };
      default:
        return at(item);
    }
  });
}
