/**
 * How many dots to an inch a picture says it has, X and Y apart.
 *
 * PNG: pHYs, pixels per metre [W3C PNG (Third Edition), 11.3.4.3]. JPEG: the JFIF header [ITU-T T.871, 10.1], or its Exif part
 * [JEITA CP-3451, 4.6.4]. TIFF: XResolution, YResolution, ResolutionUnit [TIFF 6.0, section 8]. WebP: its EXIF part.
 */
const METRES_PER_INCH = 0.0254;
const CM_PER_INCH = 2.54;

export type Dpi = { x: number; y: number };

/** @returns `null` where it says nothing, or nothing that can be */
export function dpiOf(file: Uint8Array): Dpi | null {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  try {
    return plausible(pngDpi(view) ?? jpegDpi(view) ?? webpDpi(view) ?? tiffDpi(view, 0));
  } catch (error) {
    // It points beyond its own end: it says nothing.
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** Programs write 25.4, 72 or 96 out of habit; a scan says more, up to a strong microscope. */
function plausible(dpi: Dpi | null): Dpi | null {
  const isMeant = (value: number) => Number.isFinite(value) && value >= 100 && value <= 200_000;
  return dpi && isMeant(dpi.x) && isMeant(dpi.y) ? dpi : null;
}

function isText(view: DataView, at: number, text: string): boolean {
  return [...text].every((c, i) => at + i < view.byteLength && view.getUint8(at + i) === c.charCodeAt(0));
}

function pngDpi(view: DataView): Dpi | null {
  if (!isText(view, 1, "PNG")) return null;
  for (let at = 8; at + 12 <= view.byteLength; at += 12 + view.getUint32(at)) {
    if (isText(view, at + 4, "IDAT")) return null;
    if (!isText(view, at + 4, "pHYs")) continue;
    // 1 = per metre; without a unit it only says how tall a pixel is.
    if (view.getUint8(at + 16) !== 1) return null;
    return { x: view.getUint32(at + 8) * METRES_PER_INCH, y: view.getUint32(at + 12) * METRES_PER_INCH };
  }
  return null;
}

function jpegDpi(view: DataView): Dpi | null {
  if (view.byteLength < 4 || view.getUint16(0) !== 0xffd8) return null;
  let header: Dpi | null = null;
  for (let at = 2; at + 4 <= view.byteLength; at += 2 + view.getUint16(at + 2)) {
    const marker = view.getUint16(at);
    if ((marker & 0xff00) !== 0xff00 || marker === 0xffda) break;
    if (marker === 0xffe0 && isText(view, at + 4, "JFIF\0")) {
      const [unit, x, y] = [view.getUint8(at + 11), view.getUint16(at + 12), view.getUint16(at + 14)];
      if (unit === 1) header = { x, y };
      if (unit === 2) header = { x: x * CM_PER_INCH, y: y * CM_PER_INCH };
    }
    if (marker === 0xffe1 && isText(view, at + 4, "Exif\0\0")) return tiffDpi(view, at + 10) ?? header;
  }
  return header;
}

function webpDpi(view: DataView): Dpi | null {
  if (!isText(view, 0, "RIFF") || !isText(view, 8, "WEBP")) return null;
  for (let at = 12; at + 8 <= view.byteLength; ) {
    const length = view.getUint32(at + 4, true);
    if (isText(view, at, "EXIF")) return tiffDpi(view, isText(view, at + 8, "Exif\0\0") ? at + 14 : at + 8);
    at += 8 + length + (length % 2);
  }
  return null;
}

const [X_RESOLUTION, Y_RESOLUTION, RESOLUTION_UNIT] = [282, 283, 296];
const [INCH, CM] = [2, 3];

/** @param start where its header stands: all of its places count from there */
function tiffDpi(view: DataView, start: number): Dpi | null {
  const little = isText(view, start, "II");
  if (!little && !isText(view, start, "MM")) return null;
  if (view.getUint16(start + 2, little) !== 42) return null;
  const directory = start + view.getUint32(start + 4, little);
  const count = view.getUint16(directory, little);
  const found = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const entry = directory + 2 + 12 * i;
    const tag = view.getUint16(entry, little);
    if (tag === RESOLUTION_UNIT) found.set(tag, view.getUint16(entry + 8, little));
    if (tag !== X_RESOLUTION && tag !== Y_RESOLUTION) continue;
    const at = start + view.getUint32(entry + 8, little);
    found.set(tag, view.getUint32(at, little) / view.getUint32(at + 4, little));
  }
  const [x, y] = [found.get(X_RESOLUTION), found.get(Y_RESOLUTION)];
  const unit = found.get(RESOLUTION_UNIT) ?? INCH;
  if (x === undefined || y === undefined || (unit !== INCH && unit !== CM)) return null;
  const perInch = unit === CM ? CM_PER_INCH : 1;
  return { x: x * perInch, y: y * perInch };
}
