import type { Primitive, Tone } from "../../core/drawing/scene";

/** From drawing mm to the pixels of the SVG; Y turns over. */
export type View = { x: (mm: number) => number; y: (mm: number) => number; scale: number };

export const INK: Record<Tone, string> = {
  ink: "var(--color-ink)",
  faint: "var(--color-ink3)",
  "needs you": "var(--color-ember)",
  proved: "var(--color-verdigris)",
  data: "var(--color-steel)",
};

const PEN = { hair: 0.75, thin: 1.25, heavy: 2 } as const;
const TEXT_PX = 16;

/** One primitive of a scene as SVG. */
export function PrimitiveView({ primitive: p, view }: { primitive: Primitive; view: View }) {
  const ink = INK[p.tone];
  switch (p.kind) {
    case "stroke":
      return (
        <path
          d={pathOf(p.points, p.closed, view)}
          fill="none"
          stroke={ink}
          strokeWidth={p.weight === "mark" ? Math.max(1, p.widthMm * view.scale) : PEN[p.weight]}
          strokeDasharray={p.dashed ? "7 5" : undefined}
          strokeLinecap={p.weight === "mark" ? "round" : "butt"}
        />
      );
    case "text":
      return (
        <text x={view.x(p.at.x)} y={view.y(p.at.y)} textAnchor={p.anchor} fontSize={TEXT_PX * p.size} fill={ink}>
          {p.text}
        </text>
      );
    case "dimension":
      return <Dimension from={p.from} to={p.to} text={p.text} ink={ink} view={view} along={p.along} at={p.at} />;
    case "arrow":
      return (
        <g stroke={ink} fill={ink}>
          <Arrow x0={view.x(p.from.x)} y0={view.y(p.from.y)} x1={view.x(p.to.x)} y1={view.y(p.to.y)} />
          <text stroke="none" x={view.x(p.to.x) + 6} y={view.y(p.to.y) + 4} fontSize={TEXT_PX}>
            {p.text}
          </text>
        </g>
      );
    case "cell":
      return (
        <g>
          <rect
            x={view.x(p.x0)}
            y={view.y(p.y1)}
            width={(p.x1 - p.x0) * view.scale}
            height={(p.y1 - p.y0) * view.scale}
            fill="none"
            stroke={ink}
          />
          <text
            x={view.x((p.x0 + p.x1) / 2)}
            y={view.y((p.y0 + p.y1) / 2) + 4}
            textAnchor="middle"
            fontSize={TEXT_PX}
            fill={ink}
          >
            {p.label}
          </text>
        </g>
      );
    case "highlight":
      return p.sign === "tick" ? (
        <path
          d={`M${view.x(p.at.x) - 5} ${view.y(p.at.y)}l4 4.5l7 -9`}
          fill="none"
          stroke={ink}
          strokeWidth={2}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ) : (
        <circle
          cx={view.x(p.at.x)}
          cy={view.y(p.at.y)}
          r={p.radiusMm * view.scale}
          fill="none"
          stroke={ink}
          strokeWidth={1.75}
        />
      );
  }
}

export function pathOf(points: readonly { x: number; y: number }[], closed: boolean, view: View): string {
  return `M${points.map((p) => `${view.x(p.x).toFixed(2)} ${view.y(p.y).toFixed(2)}`).join("L")}${closed ? "Z" : ""}`;
}

function Dimension({
  from,
  to,
  text,
  ink,
  view,
  along,
  at,
}: {
  from: { x: number; y: number };
  to: { x: number; y: number };
  text: string;
  ink: string;
  view: View;
  along: "x" | "y";
  at: number;
}) {
  const REACH = 34;
  if (along === "y") {
    const x = view.x(at);
    const [y0, y1] = [view.y(from.y), view.y(to.y)];
    return (
      <g stroke={ink} fill={ink}>
        <Arrow x0={x} y0={(y0 + y1) / 2} x1={x} y1={y0} />
        <Arrow x0={x} y0={(y0 + y1) / 2} x1={x} y1={y1} />
        <text
          stroke="none"
          fontSize={TEXT_PX}
          textAnchor="middle"
          transform={`translate(${x - 6} ${(y0 + y1) / 2}) rotate(-90)`}
        >
          {text}
        </text>
      </g>
    );
  }
  const [x0, x1] = [view.x(from.x), view.x(to.x)];
  const y = view.y(at);
  const inside = Math.abs(x1 - x0) > 90;
  const width = text.length * 10 + 16;
  const middle = (x0 + x1) / 2;
  return (
    <g stroke={ink} fill={ink}>
      {inside ? (
        <>
          <Arrow x0={middle} y0={y} x1={x0} y1={y} />
          <Arrow x0={middle} y0={y} x1={x1} y1={y} />
        </>
      ) : (
        <>
          <Arrow x0={x0 - REACH} y0={y} x1={x0} y1={y} />
          <Arrow x0={x1 + REACH} y0={y} x1={x1} y1={y} />
        </>
      )}
      <rect
        x={middle - width / 2}
        y={y + 11}
        width={width}
        height={24}
        rx={4}
        fill="var(--color-sheet)"
        stroke="none"
      />
      <rect
        x={middle - width / 2}
        y={y + 11}
        width={width}
        height={24}
        rx={4}
        fill={ink}
        fillOpacity={0.1}
        stroke="none"
      />
      <text stroke="none" className="num" x={middle} y={y + 28.5} textAnchor="middle" fontSize={16}>
        {text}
      </text>
    </g>
  );
}

function Arrow({ x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number }) {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length < 1) return null;
  const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length];
  const head = `M${x1} ${y1}L${x1 - 8 * ux + 3 * uy} ${y1 - 8 * uy - 3 * ux}L${x1 - 8 * ux - 3 * uy} ${y1 - 8 * uy + 3 * ux}Z`;
  return (
    <>
      <path d={`M${x0} ${y0}L${x1} ${y1}`} fill="none" strokeWidth={1.25} />
      <path d={head} stroke="none" />
    </>
  );
}
