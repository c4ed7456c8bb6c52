/** Figures drawn with ECharts, in the inks of the page. */
import { CustomChart, LineChart, ScatterChart } from "echarts/charts";
import { GridComponent, MarkAreaComponent, MarkLineComponent } from "echarts/components";
import * as echarts from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import type { ControlChartFigure, Figure, HistoryFigure, XyFigure } from "../../core/drawing/figure";

echarts.use([LineChart, ScatterChart, CustomChart, GridComponent, MarkAreaComponent, MarkLineComponent, SVGRenderer]);

export function openChart(place: HTMLElement): { show: (figure: Figure) => void; dispose: () => void } {
  const chart = echarts.init(place, null, { renderer: "svg" });
  const resize = new ResizeObserver(() => chart.resize());
  resize.observe(place);
  return {
    show(figure) {
      chart.resize();
      if (figure.kind === "xy") chart.setOption(xyOption(figure, inks(place)), { notMerge: true });
      if (figure.kind === "history") chart.setOption(historyOption(figure, inks(place)), { notMerge: true });
      if (figure.kind === "control chart") chart.setOption(controlOption(figure, inks(place)), { notMerge: true });
    },
    dispose() {
      resize.disconnect();
      chart.dispose();
    },
  };
}

type Inks = Record<"ink" | "ink2" | "hair" | "line" | "steel" | "ember" | "sheet", string> & { mono: string };

function inks(place: HTMLElement): Inks {
  // As the theme resolves them, which only a real property tells.
  const probe = place.ownerDocument.createElement("span");
  place.append(probe);
  const of = (name: string) => {
    probe.style.color = `var(--color-${name})`;
    return getComputedStyle(probe).color;
  };
  const found = {
    ink: of("ink"),
    ink2: of("ink2"),
    hair: of("hair"),
    line: of("line"),
    steel: of("steel"),
    ember: of("ember"),
    sheet: of("sheet"),
    mono: getComputedStyle(place).getPropertyValue("--font-mono").trim(),
  };
  probe.remove();
  return found;
}

function xyOption(figure: XyFigure, ink: Inks): echarts.EChartsCoreOption {
  const label = { color: ink.ink2, fontFamily: ink.mono, fontSize: 13 };
  const good = figure.points.filter((p) => p.state !== "suspect");
  const suspect = figure.points.filter((p) => p.state === "suspect");
  return {
    animation: false,
    textStyle: { fontFamily: ink.mono },
    grid: { left: 56, right: 22, top: 26, bottom: 44 },
    xAxis: {
      type: "value",
      // Without 0 where that lies far from everything.
      scale: isFarFromZero(figure),
      name: figure.x.unit,
      nameLocation: "middle",
      nameGap: 26,
      nameTextStyle: label,
      axisLabel: label,
      splitLine: { show: false },
      axisLine: { lineStyle: { color: ink.line } },
    },
    yAxis: {
      type: "value",
      name: figure.y.unit,
      nameTextStyle: { ...label, align: "right" },
      axisLabel: label,
      splitLine: { lineStyle: { color: ink.hair } },
      splitNumber: 4,
    },
    series: [
      {
        type: "line",
        data: figure.line.map((p) => [p.x, p.low]),
        stack: "band",
        symbol: "none",
        lineStyle: { opacity: 0 },
        silent: true,
        stackStrategy: "all",
      },
      {
        type: "line",
        data: figure.line.map((p) => [p.x, p.high - p.low]),
        stack: "band",
        stackStrategy: "all",
        symbol: "none",
        lineStyle: { opacity: 0 },
        areaStyle: { color: ink.steel, opacity: 0.14 },
        silent: true,
      },
      {
        type: "line",
        data: figure.line.map((p) => [p.x, p.y]),
        symbol: "none",
        lineStyle: { color: ink.steel, width: 2 },
        silent: true,
        ...spanArea(figure, ink),
      },
      absentCrosses(figure, ink),
      whiskers(figure, ink),
      {
        type: "scatter",
        data: good.map((p) => [p.x, p.y]),
        symbolSize: 8,
        itemStyle: { color: ink.ink },
        silent: true,
      },
      {
        type: "scatter",
        data: suspect.map((p) => [p.x, p.y]),
        symbolSize: 11,
        itemStyle: { color: ink.sheet, borderColor: ink.ember, borderWidth: 2.5 },
        label: { show: true, formatter: "read again?", color: ink.ember, position: "top", fontSize: 13 },
        silent: true,
      },
    ],
  };
}

function isFarFromZero({ points, absent }: XyFigure): boolean {
  const xs = [...points.map((p) => p.x), ...(absent?.xs ?? [])];
  return Math.min(...xs) > Math.max(...xs) / 2;
}

/** A stretch of x as a pale upright band with its name. */
function spanArea({ span }: XyFigure, ink: Inks) {
  if (!span) return {};
  return {
    markArea: {
      silent: true,
      itemStyle: { color: ink.steel, opacity: 0.1 },
      label: { color: ink.ink2, fontSize: 13, position: "top" },
      data: [[{ name: span.label, xAxis: span.from }, { xAxis: span.to }]],
    },
  };
}

/** Crosses on the axis where there was nothing to read; the first is named, away from the curve. */
function absentCrosses({ absent }: XyFigure, ink: Inks) {
  const xs = absent?.xs ?? [];
  return {
    type: "scatter",
    symbol: "path://M0,0L10,10M0,10L10,0",
    symbolSize: 8,
    itemStyle: { color: "transparent", borderColor: ink.ink2, borderWidth: 1.5 },
    data: xs.map((x, i) => ({
      value: [x, 0],
      label: {
        show: i === 0,
        formatter: absent?.label ?? "",
        position: "top",
        color: ink.ink2,
        fontSize: 13,
        distance: 6,
      },
    })),
    silent: true,
  };
}

/** The 95 % interval of each point as an upright line. */
function whiskers(figure: XyFigure, ink: Inks) {
  return {
    type: "custom",
    silent: true,
    data: figure.points.map((p) => [p.x, p.y - p.expanded, p.y + p.expanded]),
    // Both ends count for the range of the axis.
    encode: { x: 0, y: [1, 2] },
    renderItem: (_: unknown, api: { value: (i: number) => number; coord: (p: number[]) => number[] }) => {
      const [x = 0, y0 = 0] = api.coord([api.value(0), api.value(1)]);
      const [, y1 = 0] = api.coord([api.value(0), api.value(2)]);
      return { type: "line", shape: { x1: x, y1: y0, x2: x, y2: y1 }, style: { stroke: ink.ink, lineWidth: 1.25 } };
    },
  };
}

/** Each number as steps over time; dashes and end labels tell them apart. */
function historyOption(figure: HistoryFigure, ink: Inks): echarts.EChartsCoreOption {
  const label = { color: ink.ink2, fontFamily: ink.mono, fontSize: 13 };
  const dashes = ["solid", "dashed", "dotted"] as const;
  return {
    animation: false,
    textStyle: { fontFamily: ink.mono },
    grid: { left: 64, right: 110, top: 26, bottom: 32 },
    xAxis: { type: "time", axisLabel: { ...label, hideOverlap: true }, axisLine: { lineStyle: { color: ink.line } } },
    yAxis: {
      type: "value",
      scale: true,
      name: figure.unit,
      nameTextStyle: { ...label, align: "right" },
      axisLabel: label,
      splitLine: { lineStyle: { color: ink.hair } },
      splitNumber: 4,
    },
    series: figure.series.map((s, i) => ({
      type: "line",
      step: "end",
      data: s.points.map((p) => [p.at, p.value]),
      symbol: "circle",
      symbolSize: 6,
      itemStyle: { color: ink.ink },
      lineStyle: { color: i % 2 === 0 ? ink.steel : ink.ink2, width: 1.5, type: dashes[i % dashes.length] },
      endLabel: { show: true, formatter: s.label, color: ink.ink2, fontFamily: ink.mono, fontSize: 13 },
      labelLayout: { moveOverlap: "shiftY" },
      silent: true,
    })),
  };
}

/** Points in the order of their checks, their mean, and the limits: a point beyond them is a ring. */
function controlOption(figure: ControlChartFigure, ink: Inks): echarts.EChartsCoreOption {
  const label = { color: ink.ink2, fontFamily: ink.mono, fontSize: 13 };
  const room = (figure.high - figure.low) / 8;
  const isBeyond = (value: number) => value < figure.low || value > figure.high;
  const limit = (name: string, y: number, type: "solid" | "dashed") => ({
    name,
    yAxis: y,
    lineStyle: { color: ink.steel, type, width: 1.5 },
    label: { formatter: name, position: "insideEndTop", color: ink.steel, fontSize: 13 },
  });
  return {
    animation: false,
    textStyle: { fontFamily: ink.mono },
    grid: { left: 64, right: 22, top: 28, bottom: 32 },
    xAxis: {
      type: "category",
      data: figure.points.map((p) => p.label),
      axisLabel: label,
      axisLine: { lineStyle: { color: ink.line } },
    },
    yAxis: {
      type: "value",
      scale: true,
      min: (extent: { min: number }) => Math.min(extent.min, figure.low) - (figure.low === 0 ? 0 : room),
      max: (extent: { max: number }) => Math.max(extent.max, figure.high) + room,
      name: figure.unit,
      nameTextStyle: { ...label, align: "right" },
      axisLabel: {
        ...label,
        showMinLabel: figure.low === 0,
        showMaxLabel: false,
        formatter: (y: number) => String(Number(y.toPrecision(2))),
      },
      splitLine: { show: false },
    },
    series: [
      {
        type: "line",
        data: figure.points.map((p) => ({
          value: p.value,
          symbolSize: isBeyond(p.value) ? 13 : 8,
          itemStyle: isBeyond(p.value)
            ? { color: ink.sheet, borderColor: ink.ember, borderWidth: 2.5 }
            : { color: ink.ink },
        })),
        symbol: "circle",
        lineStyle: { color: ink.ink2, width: 1 },
        silent: true,
        markLine: {
          silent: true,
          symbol: "none",
          precision: 12,
          data: [
            limit("mean", figure.centre, "solid"),
            limit("limit", figure.high, "dashed"),
            ...(figure.low === 0 ? [] : [limit("limit", figure.low, "dashed")]),
          ],
        },
      },
    ],
  };
}
