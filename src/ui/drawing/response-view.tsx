"use client";
import { useState } from "react";
import type { ResponseFigure } from "../../core/drawing/figure";
import { Button } from "../primitives/button";
import { type ResponseCell, ResponseCells } from "./response-cells";

/** Of the drawing. */
const BOX = { left: 64, top: 8, width: 320, height: 320, below: 50, right: 8 };
const [PALE, DARK] = [0.03, 0.62];
/** Least and most size of a cell. */
const CELL = { least: 8, most: 26 };
/** Cells with their pictures are larger by this. */
const PICTURED = 1.35;
const STATES: Record<Exclude<ResponseCell["state"], "as good">, string> = {
  chosen: "chosen",
  read: "",
  odd: "contradicts the cells around it",
  "no good": "no good",
  "left out": "not burned",
};

type Props = { figure: ResponseFigure; pictureOf?: (burn: number) => string };

/** The expected score over both settings: darker is better. Over it the cells, lines of equal energy, and where the best lies. */
export function ResponseView({ figure, pictureOf }: Props) {
  const [at, setAt] = useState<number | null>(null);
  const [isPictured, setPictured] = useState(false);
  const { x, y, cells, best, energy } = figure;
  const size = cellSize(cells.length) * (isPictured ? PICTURED : 1);
  // The outermost cells lie whole inside the box.
  const room = size / 2 + 2;
  const px = (v: number) => BOX.left + room + ((v - x.low) / (x.high - x.low)) * (BOX.width - 2 * room);
  const py = (v: number) => BOX.top + BOX.height - room - ((v - y.low) / (y.high - y.low)) * (BOX.height - 2 * room);
  const chosen = cells.findIndex((c) => c.state === "chosen");
  const inHand = cells[at ?? chosen];
  const said = inHand?.state === "as good" ? figure.asGood : inHand && STATES[inHand.state];
  return (
    <figure aria-label={figure.title}>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <figcaption className="text-[14px] font-semibold">{figure.title}</figcaption>
        {pictureOf && cells.some((c) => c.picture) && (
          <Button weight="small" aria-pressed={isPictured} onClick={() => setPictured(!isPictured)}>
            {isPictured ? "Hide the scan" : "Show the scan"}
          </Button>
        )}
      </div>
      {/* biome-ignore lint/a11y/useSemanticElements: it is a drawing */}
      <svg
        className="mt-1 block h-auto w-full max-w-[460px]"
        viewBox={`0 0 ${BOX.left + BOX.width + BOX.right} ${BOX.top + BOX.height + BOX.below}`}
        role="group"
        aria-label={`${figure.title}. Arrow keys go from cell to cell.`}
      >
        <ResponseMap figure={figure} room={room} />
        {energy.map((line) => (
          <EnergyLine key={line.text} line={line} px={px} py={py} />
        ))}
        <rect
          x={px(best.x0) - 2}
          y={py(best.y1) - 2}
          width={Math.max(4, px(best.x1) - px(best.x0) + 4)}
          height={Math.max(4, py(best.y0) - py(best.y1) + 4)}
          fill="none"
          stroke="var(--color-verdigris)"
          strokeWidth={1.5}
          strokeDasharray="5 3"
        />
        <ResponseCells
          cells={cells}
          placeOf={(c) => ({ x: px(c.x), y: py(c.y) })}
          size={size}
          at={at ?? Math.max(0, chosen)}
          {...(isPictured && pictureOf ? { pictureOf } : {})}
          onPoint={setAt}
        />
        <Axes figure={figure} px={px} py={py} />
      </svg>
      {inHand && (
        <p className="num min-h-10 text-[14px]" aria-live="polite">
          <b className="font-semibold">Cell {inHand.label}</b>
          {said && `, ${said}`}: {inHand.lines.join(" · ")}
        </p>
      )}
      <p className="text-[13px] text-ink2">{figure.caption}</p>
    </figure>
  );
}

function cellSize(count: number): number {
  return Math.max(CELL.least, Math.min(CELL.most, (0.62 * BOX.width) / Math.sqrt(Math.max(1, count))));
}

function ResponseMap({ figure: { map }, room }: { figure: ResponseFigure; room: number }) {
  const [w, h] = [(BOX.width - 2 * room) / (map.columns - 1), (BOX.height - 2 * room) / (map.rows - 1)];
  const values = map.values.flatMap((v) => v ?? []);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return (
    <g className="fill-steel" shapeRendering="crispEdges">
      {map.values.map((value, i) => {
        const [column, row] = [i % map.columns, Math.floor(i / map.columns)];
        if (value === null) return null;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: a place of the map is its index
            key={i}
            x={BOX.left + room + (column - 0.5) * w}
            y={BOX.top + BOX.height - room - (row + 0.5) * h}
            width={w}
            height={h}
            fillOpacity={PALE + ((DARK - PALE) * (value - low)) / Math.max(1e-9, high - low)}
          />
        );
      })}
      <rect x={BOX.left} y={BOX.top} width={BOX.width} height={BOX.height} fill="none" stroke="var(--color-line)" />
    </g>
  );
}

type Place = (v: number) => number;

function EnergyLine({ line, px, py }: { line: ResponseFigure["energy"][number]; px: Place; py: Place }) {
  return (
    <path
      d={`M${line.points.map((p) => `${px(p.x).toFixed(1)} ${py(p.y).toFixed(1)}`).join("L")}`}
      stroke="var(--color-ink3)"
      strokeWidth={0.8}
      fill="none"
    >
      <title>{line.text}</title>
    </path>
  );
}

/** Values along the edges as they were burned. Where they stand too close, every second is left out. */
function Axes({ figure: { x, y }, px, py }: { figure: ResponseFigure; px: Place; py: Place }) {
  const bottom = BOX.top + BOX.height;
  return (
    <g className="num" fontSize={12} fill="var(--color-ink2)">
      {apart(x.ticks, px, 30).map((t) => (
        <text key={t.text} x={px(t.at)} y={bottom + 16} textAnchor="middle">
          {t.text}
        </text>
      ))}
      {apart(y.ticks, py, 15).map((t) => (
        <text key={t.text} x={BOX.left - 6} y={py(t.at) + 4} textAnchor="end">
          {t.text}
        </text>
      ))}
      <text x={BOX.left + BOX.width / 2} y={bottom + 38} textAnchor="middle" fontSize={13} fill="var(--color-ink)">
        {x.unit ? `${x.label}, ${x.unit}` : x.label}
      </text>
      <text
        transform={`translate(14 ${BOX.top + BOX.height / 2}) rotate(-90)`}
        textAnchor="middle"
        fontSize={13}
        fill="var(--color-ink)"
      >
        {y.unit ? `${y.label}, ${y.unit}` : y.label}
      </text>
    </g>
  );
}

function apart(ticks: ResponseFigure["x"]["ticks"], place: Place, least: number): ResponseFigure["x"]["ticks"] {
  const shown: ResponseFigure["x"]["ticks"] = [];
  for (const tick of ticks) {
    const last = shown.at(-1);
    if (!last || Math.abs(place(tick.at) - place(last.at)) >= least) shown.push(tick);
  }
  return shown;
}
