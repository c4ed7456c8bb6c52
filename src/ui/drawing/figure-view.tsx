"use client";
import { useEffect, useRef } from "react";
import type { Figure } from "../../core/drawing/figure";
import { HeatView } from "./heat-view";
import { ResponseView } from "./response-view";
import { VectorsView } from "./vectors-view";

type Props = {
  figure: Figure;
  height?: number;
  /** Address of the picture of all cells of a burn. Left out: cells have no pictures here. */
  pictureOf?: (burn: number) => string;
};

/** A chart, or a map of arrows or of values. */
export function FigureView({ figure, height = 220, pictureOf }: Props) {
  if (figure.kind === "response") return <ResponseView figure={figure} {...(pictureOf ? { pictureOf } : {})} />;
  if (figure.kind === "vectors") return <VectorsView figure={figure} />;
  return figure.kind === "heat" ? <HeatView figure={figure} /> : <ChartView figure={figure} height={height} />;
}

/** Its library is loaded only where a chart shows. */
function ChartView({ figure, height }: { figure: Figure; height: number }) {
  const place = useRef<HTMLDivElement>(null);
  const chart = useRef<{ show: (figure: Figure) => void; dispose: () => void } | null>(null);
  const latest = useRef(figure);
  latest.current = figure;

  useEffect(() => {
    let gone = false;
    import("./chart").then(({ openChart }) => {
      if (gone || !place.current) return;
      chart.current = openChart(place.current);
      chart.current.show(latest.current);
    });
    return () => {
      gone = true;
      chart.current?.dispose();
      chart.current = null;
    };
  }, []);

  useEffect(() => chart.current?.show(figure), [figure]);

  // Its inks are those of the theme.
  useEffect(() => {
    const again = () => chart.current?.show(latest.current);
    const chosen = new MutationObserver(again);
    chosen.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    // And on paper those of paper, as wide as there is room.
    const media = ["(prefers-color-scheme: dark)", "print"].map((query) => matchMedia(query));
    for (const query of media) query.addEventListener("change", again);
    return () => {
      chosen.disconnect();
      for (const query of media) query.removeEventListener("change", again);
    };
  }, []);

  return (
    <figure>
      <figcaption className="text-[14px] font-semibold">{figure.title}</figcaption>
      <div ref={place} style={{ height }} role="img" aria-label={summaryOf(figure)} />
    </figure>
  );
}

function summaryOf(figure: Figure): string {
  if (figure.kind === "control chart") {
    const at = (y: number) => y.toPrecision(3);
    const points = figure.points.map((p) => `${p.label} ${at(p.value)}`).join("; ");
    return `${figure.title}, ${figure.unit}. Mean ${at(figure.centre)}, limits ${at(figure.low)} and ${at(figure.high)}. ${points}`;
  }
  if (figure.kind === "history")
    return `${figure.title}, ${figure.unit}. ${figure.series.map((s) => `${s.label}: ${s.points.map((p) => p.value ?? "none").join(", ")}`).join("; ")}`;
  if (figure.kind !== "xy") return figure.title;
  const points = figure.points.map((p) => `${p.x} ${figure.x.unit}: ${p.y.toFixed(3)} ${figure.y.unit}`);
  return `${figure.title}. ${points.join("; ")}`;
}
