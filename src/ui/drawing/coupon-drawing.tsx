import type { Piece } from "../../core/coupon/piece";
import type { Site } from "../../core/coupon/site";
import type { Detail, Primitive } from "../../core/drawing/scene";
import { DetailView } from "./detail-view";
import { PieceView } from "./piece-view";
import { PrimitiveView, type View } from "./primitive-view";

const WIDTH = 780;
const HEIGHT = 600;
const MARGIN = { left: 58, top: 40, bottom: 46 };
/** Room for the coupon when a detail stands beside it. */
const COUPON_WIDTH = 330;
/** Room for it alone: the title block stands beside it. */
const LONE_COUPON_WIDTH = 365;
const DETAIL = { cx: 596, cy: 214, r: 166 };

type Props = {
  piece: Piece;
  overlay: readonly Primitive[];
  site: Site | null;
  detail: Detail | null;
  titleBlock: readonly string[];
};

/** The coupon on its stock as an engineering drawing, with the close-up of the site in hand. */
export function CouponDrawing({ piece, overlay, site, detail, titleBlock }: Props) {
  const room = detail ? COUPON_WIDTH : LONE_COUPON_WIDTH;
  const scale = Math.min(room / piece.widthMm, (HEIGHT - MARGIN.top - MARGIN.bottom) / piece.heightMm);
  const view: View = {
    scale,
    x: (mm) => MARGIN.left + mm * scale,
    y: (mm) => MARGIN.top + (piece.heightMm - mm) * scale,
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full"
      role="img"
      aria-label={`Drawing of ${piece.label}`}
    >
      <StockOutline piece={piece} view={view} />
      <PieceView piece={piece} view={view} />
      {overlay.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: primitives have no other identity
        <PrimitiveView key={i} primitive={p} view={view} />
      ))}
      {detail && site?.place && <Leader site={site} view={view} />}
      {detail && <DetailView detail={detail} cx={DETAIL.cx} cy={DETAIL.cy} r={DETAIL.r} />}
      <TitleBlock lines={titleBlock} />
    </svg>
  );
}

function StockOutline({ piece, view }: { piece: Piece; view: View }) {
  const [x0, x1, y0, y1] = [view.x(0), view.x(piece.widthMm), view.y(piece.heightMm), view.y(0)];
  return (
    <g>
      <text x={x0} y={y0 - 12} fontSize={16} fill="var(--color-ink3)">
        {piece.stock}
      </text>
      <rect
        x={x0}
        y={y0}
        width={x1 - x0}
        height={y1 - y0}
        fill="var(--color-paper)"
        fillOpacity={0.45}
        stroke="var(--color-ink3)"
        strokeWidth={1.25}
        strokeDasharray="9 5"
      />
      <g stroke="var(--color-ink)" strokeWidth={1} fill="none">
        <path d={`M${x0 - 16} ${y1 + 16}h46m-6 -3l6 3l-6 3`} />
        <path d={`M${x0 - 16} ${y1 + 16}v-46m-3 6l3 -6l3 6`} />
      </g>
      <text x={x0 + 36} y={y1 + 20.5} fontSize={16} fill="var(--color-ink)">
        X
      </text>
      <text x={x0 - 20.5} y={y1 - 37} fontSize={16} fill="var(--color-ink)">
        Y
      </text>
    </g>
  );
}

function Leader({ site, view }: { site: Site; view: View }) {
  if (!site.place) return null;
  const r = Math.max(14, site.place.radiusMm * view.scale);
  const [x, y] = [view.x(site.place.at.x), view.y(site.place.at.y)];
  const [dx, dy] = [DETAIL.cx - x, DETAIL.cy - y];
  const length = Math.hypot(dx, dy);
  const [ux, uy] = [dx / length, dy / length];
  return (
    <g stroke="var(--color-ember)" fill="none" strokeWidth={1.75}>
      <circle cx={x} cy={y} r={r} />
      <path
        d={`M${x + ux * r} ${y + uy * r}L${DETAIL.cx - ux * DETAIL.r} ${DETAIL.cy - uy * DETAIL.r}`}
        strokeWidth={1.1}
      />
    </g>
  );
}

/** As on any engineering drawing: what it is, lower right. */
function TitleBlock({ lines }: { lines: readonly string[] }) {
  const [x, width, row] = [432, 336, 28];
  const top = HEIGHT - 12 - row * lines.length;
  return (
    <g>
      <rect
        x={x}
        y={top}
        width={width}
        height={row * lines.length}
        fill="var(--color-sheet)"
        stroke="var(--color-line)"
      />
      {lines.map((line, i) => (
        <g key={line}>
          {i > 0 && <path d={`M${x} ${top + i * row}h${width}`} stroke="var(--color-line)" />}
          <text
            x={x + 10}
            y={top + i * row + 19.5}
            fontSize={16}
            fill={i === 0 ? "var(--color-ink)" : "var(--color-ink2)"}
          >
            {line}
          </text>
        </g>
      ))}
    </g>
  );
}
