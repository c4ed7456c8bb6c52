/** What the texts on a page of paper take up, and which lie on another. */
import type { SheetItem } from "../formats/paper/sheet-page";
import { textWidthMm } from "../formats/paper/typesetter";

/** Also behind the windows of a drawing on several pages. */
export function wordsIn(item: SheetItem): string[] {
  if (item.kind === "window") return item.items.flatMap(wordsIn);
  return item.kind === "text" ? [item.text] : [];
}

type Box = { words: string; x0: number; x1: number; y0: number; y1: number };

/** What each text takes up: capitals and digits, without what hangs below the line. */
export function boxesOf(items: readonly SheetItem[]): Box[] {
  return items.flatMap((item): Box[] => {
    if (item.kind !== "text" || item.turned || item.text === "") return [];
    const width = textWidthMm(item.text, item.face, item.sizePt);
    const x0 = item.x - (item.anchor === "start" ? 0 : item.anchor === "middle" ? width / 2 : width);
    return [{ words: item.text, x0, x1: x0 + width, y0: item.y - item.sizePt * 0.24, y1: item.y }];
  });
}

export function overlaps(boxes: readonly Box[]): string[] {
  return boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter((b) => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1)
      .map((b) => `“${a.words}” on “${b.words}”`),
  );
}
