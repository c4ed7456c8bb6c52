import type { Axes } from "../../core/machine/machine-spec";

const [W, H, IN] = [150, 96, 16];

/** The bed from above, the operator below: where the head goes home, and which way its axes count up. */
export function AxesDrawing({ axes }: { axes: Axes }) {
  const home = homeAt(axes.home);
  const [left, right, top, bottom] = [IN, W - IN, IN, H - IN];
  const y = axes.y === "not known" ? null : axes.y === "away" ? [bottom - 8, top + 14] : [top + 8, bottom - 14];
  const x = axes.x === "not known" ? null : axes.x === "to the right" ? [left + 8, right - 14] : [right - 8, left + 14];
  const [midX, midY] = [W / 2, H / 2];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="w-full max-w-64"
      role="img"
      aria-label={`Seen from above: ${axesText(axes)}`}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth="1.2"
    >
      <rect x={left} y={top} width={right - left} height={bottom - top} stroke="var(--color-line)" />
      {x && <Arrow x0={x[0] ?? 0} y0={midY} x1={x[1] ?? 0} y1={midY} label="X" />}
      {y && <Arrow x0={midX} y0={y[0] ?? 0} x1={midX} y1={y[1] ?? 0} label="Y" />}
      {home && (
        <>
          <circle cx={home.x} cy={home.y} r="5" stroke="var(--color-ember)" strokeWidth="2" />
          <path d={`M${home.x - 9} ${home.y}h18M${home.x} ${home.y - 9}v18`} stroke="var(--color-ember)" />
        </>
      )}
      <text x={midX} y={IN - 5} textAnchor="middle" fontSize="10" fill="var(--color-ink2)" stroke="none">
        from above
      </text>
      {!home && !x && !y && (
        <text x={midX} y={midY + 4} textAnchor="middle" fontSize="10" fill="var(--color-ink2)" stroke="none">
          not known
        </text>
      )}
      <text x={midX} y={H - 3} textAnchor="middle" fontSize="10" fill="var(--color-ink2)" stroke="none">
        you
      </text>
    </svg>
  );
}

function Arrow({ x0, y0, x1, y1, label }: { x0: number; y0: number; x1: number; y1: number; label: string }) {
  const [dx, dy] = [Math.sign(x1 - x0), Math.sign(y1 - y0)];
  return (
    <>
      <path d={`M${x0} ${y0}L${x1} ${y1}`} />
      <path
        d={`M${x1 + 7 * dx} ${y1 + 7 * dy}L${x1 - 3 * dy} ${y1 + 3 * dx}L${x1 + 3 * dy} ${y1 - 3 * dx}z`}
        fill="var(--color-ink)"
        stroke="none"
      />
      <text
        x={x1 - 2 * dx + 6 * Math.abs(dy)}
        y={y1 + 3 - 7 * Math.abs(dx)}
        fontSize="11"
        fill="var(--color-ink)"
        stroke="none"
      >
        {label}
      </text>
    </>
  );
}

function homeAt(home: Axes["home"]): { x: number; y: number } | null {
  if (home === "not known") return null;
  return { x: home.endsWith("left") ? IN : W - IN, y: home.startsWith("front") ? H - IN : IN };
}

export function axesText({ home, x, y }: Axes): string {
  return `home ${home}; X counts up ${x}, Y ${y}`;
}
