import { type Face, INKS, mmOfPt, type SheetItem, type SheetPage } from "../../formats/paper/sheet-page";

const FACES: Record<Face, { family: string; weight: number }> = {
  words: { family: "var(--font-sans)", weight: 400 },
  bold: { family: "var(--font-sans)", weight: 700 },
  figures: { family: "var(--font-mono)", weight: 400 },
};

/** A page of paper at its true size when it is printed; on a screen as wide as there is room. */
export function SheetPageView({ page, n }: { page: SheetPage; n: number }) {
  const wide = page.widthMm > page.heightMm;
  return (
    <svg
      className="sheet-page"
      data-wide={wide || undefined}
      viewBox={`0 0 ${page.widthMm} ${page.heightMm}`}
      style={{ width: `${page.widthMm}mm`, aspectRatio: `${page.widthMm} / ${page.heightMm}` }}
      role="img"
      aria-label={`Page ${n}: ${page.title}`}
    >
      <rect width={page.widthMm} height={page.heightMm} fill={INKS.paper} />
      <Items items={page.items} id={`window-${n}`} />
    </svg>
  );
}

function Items({ items, id }: { items: readonly SheetItem[]; id: string }) {
  // biome-ignore lint/suspicious/noArrayIndexKey: items have no other identity and never change order
  return items.map((item, i) => <Item key={i} item={item} id={`${id}-${i}`} />);
}

function Item({ item, id }: { item: SheetItem; id: string }) {
  switch (item.kind) {
    case "text":
      return <Words item={item} />;
    case "path":
      return (
        <path
          d={`M${item.points.map((p) => `${round(p.x)} ${round(p.y)}`).join("L")}${item.closed ? "Z" : ""}`}
          fill={item.fill ? INKS[item.fill] : "none"}
          stroke={item.widthMm > 0 ? INKS[item.ink] : "none"}
          strokeWidth={item.widthMm}
          strokeDasharray={item.dashMm.join(" ") || undefined}
        />
      );
    case "circle":
      return (
        <circle
          cx={round(item.x)}
          cy={round(item.y)}
          r={item.radiusMm}
          fill={item.fill ? INKS[item.fill] : "none"}
          stroke={INKS[item.ink]}
          strokeWidth={item.widthMm}
        />
      );
    case "window":
      return (
        <>
          <clipPath id={id}>
            <rect x={item.x} y={item.y} width={item.widthMm} height={item.heightMm} />
          </clipPath>
          <g clipPath={`url(#${id})`}>
            <Items items={item.items} id={id} />
          </g>
        </>
      );
  }
}

function Words({ item }: { item: Extract<SheetItem, { kind: "text" }> }) {
  const { family, weight } = FACES[item.face];
  const [x, y] = [round(item.x), round(item.y)];
  return (
    <text
      {...(item.turned ? { transform: `translate(${x} ${y}) rotate(-90)` } : { x, y })}
      style={{ fontFamily: family, fontWeight: weight }}
      fontSize={round(mmOfPt(item.sizePt))}
      textAnchor={item.anchor}
      fill={INKS[item.ink]}
    >
      {item.text}
    </text>
  );
}

/** A micrometre is enough on paper. */
function round(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}
