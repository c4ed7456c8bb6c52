/** Holds a picture and reads it: the page only says what it wants to see. */
import { readArray } from "../core/picture/array/read-array";
import { readGrid } from "../core/picture/dots/read-grid";
import type { GreyPicture } from "../core/picture/grey-picture";
import { checkedPicture } from "../core/picture/grey-picture";
import { placeCoupon, placementOf } from "../core/picture/place-coupon";
import { type PartRead, readPart } from "../core/picture/read-part";
import { readSites } from "../core/picture/read-picture";
import type { FromReader, ReadOrder, ToReader } from "./picture-messages";
import { drawnPart } from "./shown-part";

let picture: GreyPicture | null = null;

const say = (message: FromReader, moved: Transferable[] = []) => postMessage(message, { transfer: moved });

addEventListener("message", ({ data }: MessageEvent<ToReader>) => {
  act(data).catch((error: unknown) => {
    console.error(error);
    say({ kind: "failed", why: "This picture could not be read to its end.", scaleTimes: null });
  });
});

async function act(message: ToReader): Promise<void> {
  if (message.kind === "load") return load(message);
  if (!picture) return;
  if (message.kind === "show") {
    const { width, height } = message.part;
    const pixels = new ImageData(drawnPart(picture, message.part), width, height);
    return say({ kind: "shown", part: message.part, pixels }, [pixels.data.buffer]);
  }
  const began = performance.now();
  if (message.kind === "read grid") {
    const read = readGrid(picture, message.across, message.brighter, message.dirt, message.isPart);
    if (read.ok) return say({ kind: "grid", read, ms: performance.now() - began });
    return say({ kind: "failed", why: read.why, scaleTimes: null });
  }
  if (message.kind === "read array") {
    const read = readArray(picture, message.look, message.brighter);
    if (read.ok) return say({ kind: "array", read, ms: performance.now() - began });
    return say({ kind: "failed", why: read.why, scaleTimes: null });
  }
  const found = message.parts.length > 0 ? readParts(picture, message) : readWhole(picture, message);
  if (found) say({ kind: "read", found, ms: performance.now() - began });
}

/** @returns `null` where the coupon is not there, which is said */
function readWhole(of: GreyPicture, { piece, sites, scale, brighter }: ReadOrder): PartRead[] | null {
  const placed = placeCoupon(of, piece, scale, brighter);
  if (!placed.ok) {
    say({ kind: "failed", why: placed.why, scaleTimes: placed.scaleTimes });
    return null;
  }
  say({ kind: "placed", placement: placementOf(placed, piece) });
  return readSites(of, placed, sites, scale).map((read) => ({ read, pose: placed.pose }));
}

function readParts(of: GreyPicture, { piece, sites, scale, brighter, parts }: ReadOrder): PartRead[] {
  return parts.flatMap(({ site: id, box }) => {
    const site = sites.find((s) => s.id === id);
    return site ? [readPart(of, piece, site, box, scale, brighter)] : [];
  });
}

async function load({ url, width, height }: Extract<ToReader, { kind: "load" }>): Promise<void> {
  const answer = await fetch(url).catch(() => null);
  if (!answer?.ok || !answer.body)
    return say({ kind: "failed", why: "The server does not give this picture.", scaleTimes: null });
  picture = checkedPicture({ width, height, grey: await unpacked(answer.body, width * height) });
  say({ kind: "loaded" });
}

/** Straight into the one place that holds it, so that it is never there twice. */
async function unpacked(packed: ReadableStream<Uint8Array<ArrayBuffer>>, size: number): Promise<Uint8Array> {
  const grey = new Uint8Array(size);
  const reader = packed.pipeThrough(new DecompressionStream("deflate")).getReader();
  let at = 0;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    grey.set(part.value, at);
    at += part.value.length;
  }
  if (at !== size) throw new RangeError(`${at} of ${size} pixels came`);
  return grey;
}
