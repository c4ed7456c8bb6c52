/** Run sheet pages as PDF at true scale, with its fonts in it; readers are asked not to scale it. [ISO 32000-1:2008, 12.2 ViewerPreferences] */
import { INKS, type Ink, ptOfMm, type SheetItem, type SheetPage } from "./sheet-page";
import { documentWithFonts, runsOf, textWidthMm } from "./typesetter";

/**
 * @param made when it says it was made
 * @returns the bytes of the file
 */
export function sheetPdf(pages: readonly SheetPage[], title: string, made: Date): Promise<Buffer> {
  const document = documentWithFonts({
    autoFirstPage: false,
    info: { Title: title, CreationDate: made, Producer: "Ustrina", Creator: "Ustrina" },
  });
  // The types do not know the root of a document, the format does.
  const { _root } = document as unknown as { _root: { data: Record<string, unknown> } };
  _root.data.ViewerPreferences = document.ref({ PrintScaling: "None", DisplayDocTitle: true });
  const done = collected(document);
  for (const page of pages) {
    document.addPage({ size: [ptOfMm(page.widthMm), ptOfMm(page.heightMm)], margin: 0 });
    for (const item of page.items) draw(document, item);
  }
  document.end();
  return done;
}

function collected(document: PDFKit.PDFDocument): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    document.on("data", (chunk: Buffer) => chunks.push(chunk));
    document.on("end", () => resolve(Buffer.concat(chunks)));
    document.on("error", reject);
  });
}

function draw(document: PDFKit.PDFDocument, item: SheetItem): void {
  switch (item.kind) {
    case "text":
      drawText(document, item);
      return;
    case "path": {
      const [first, ...rest] = item.points;
      if (!first) return;
      document.moveTo(ptOfMm(first.x), ptOfMm(first.y));
      for (const p of rest) document.lineTo(ptOfMm(p.x), ptOfMm(p.y));
      if (item.closed) document.closePath();
      finish(document, item);
      return;
    }
    case "circle":
      document.circle(ptOfMm(item.x), ptOfMm(item.y), ptOfMm(item.radiusMm));
      finish(document, { ...item, dashMm: [] });
      return;
    case "window":
      document.save();
      document.rect(ptOfMm(item.x), ptOfMm(item.y), ptOfMm(item.widthMm), ptOfMm(item.heightMm)).clip();
      for (const inner of item.items) draw(document, inner);
      document.restore();
  }
}

type Pen = { widthMm: number; dashMm: readonly number[]; ink: Ink; fill: Ink | "paper" | null };

function finish(document: PDFKit.PDFDocument, { widthMm, dashMm, ink, fill }: Pen): void {
  if (widthMm === 0) {
    document.fill(INKS[fill ?? ink]);
    return;
  }
  document.lineWidth(ptOfMm(widthMm));
  if (dashMm.length > 0) document.dash(dashMm.map(ptOfMm) as unknown as number, {});
  else document.undash();
  if (fill) document.fillAndStroke(INKS[fill], INKS[ink]);
  else document.stroke(INKS[ink]);
}

function drawText(document: PDFKit.PDFDocument, item: Extract<SheetItem, { kind: "text" }>): void {
  const width = textWidthMm(item.text, item.face, item.sizePt);
  const shift = item.anchor === "start" ? 0 : item.anchor === "middle" ? width / 2 : width;
  document.save();
  document.translate(ptOfMm(item.x), ptOfMm(item.y));
  if (item.turned) document.rotate(-90);
  let x = -ptOfMm(shift);
  document.fillColor(INKS[item.ink]).fontSize(item.sizePt);
  for (const run of runsOf(item.text, item.face)) {
    document.font(run.font);
    document.text(run.text, x, 0, { lineBreak: false, baseline: "alphabetic" });
    x += document.widthOfString(run.text);
  }
  document.restore();
}
