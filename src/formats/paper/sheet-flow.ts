/** Text and tables one below the other over as many pages as they take. */
import { BODY_PT, box, line, MARGIN_MM, type SheetItem, type SheetPage, text } from "./sheet-page";
import { linesOf } from "./typesetter";

export const LINE_MM = 4.6;
/** Kept free for the last line of the page. */
const FOOT_MM = 8;

/** The same pages with the title and the number of the page on the last line. @param kind what the pages are: `run sheet` */
export function withFeet(pages: readonly SheetPage[], kind: string, title: string): SheetPage[] {
  return pages.map((page, i) => {
    const { widthMm, heightMm, items } = page;
    const y = heightMm - MARGIN_MM;
    const small = { sizePt: 9, ink: "second" } as const;
    return {
      ...page,
      items: [
        ...items,
        line(MARGIN_MM, y - 4.6, widthMm - MARGIN_MM, y - 4.6, 0.15, "faint"),
        text(MARGIN_MM, y - 0.6, `Ustrina ${kind} · ${title}`, small),
        text(widthMm - MARGIN_MM, y - 0.6, `page ${i + 1} of ${pages.length}`, { ...small, anchor: "end" }),
      ],
    };
  });
}

export class SheetFlow {
  readonly pages: SheetPage[] = [];
  private y = 0;

  constructor(
    private readonly paper: { widthMm: number; heightMm: number },
    private readonly title: string,
  ) {
    this.turn();
  }

  get widthMm(): number {
    return this.paper.widthMm - 2 * MARGIN_MM;
  }

  get at(): number {
    return this.y;
  }

  /** A new page. */
  turn(): void {
    this.pages.push({ ...this.paper, title: this.title, items: [] });
    this.y = MARGIN_MM;
  }

  /** Makes sure that so much fits here, on a new page if need be. @returns whether a page was begun */
  need(heightMm: number): boolean {
    if (this.y + heightMm <= this.paper.heightMm - MARGIN_MM - FOOT_MM) return false;
    this.turn();
    return true;
  }

  put(...items: SheetItem[]): void {
    this.pages.at(-1)?.items.push(...items);
  }

  down(mm: number): void {
    this.y += mm;
  }

  heading(words: string, roomAfterMm = 20): void {
    this.need(8 + roomAfterMm);
    this.down(7.5);
    this.put(text(MARGIN_MM, this.y, words, { face: "bold", sizePt: 12 }));
    this.down(2.2);
    this.put(line(MARGIN_MM, this.y, MARGIN_MM + this.widthMm, this.y, 0.3));
    this.down(1.2);
  }

  paragraph(words: string): void {
    for (const words_ of linesOf(words, "words", BODY_PT, this.widthMm)) {
      this.need(LINE_MM);
      this.down(LINE_MM);
      this.put(text(MARGIN_MM, this.y, words_));
    }
  }

  /** A line with a box to tick. */
  tick(words: string): void {
    const lines = linesOf(words, "words", BODY_PT, this.widthMm - 7);
    this.need(lines.length * LINE_MM + 2);
    this.down(1.4);
    this.put(box(MARGIN_MM, this.y + 0.9, 3.8, 3.8));
    for (const words_ of lines) {
      this.down(LINE_MM);
      this.put(text(MARGIN_MM + 7, this.y - 0.4, words_));
    }
    this.down(0.6);
  }
}
