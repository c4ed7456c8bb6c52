/** What a request must bring before it is answered: it comes from a page of this server, and says what it sends. */
import { LARGEST_FILE, LARGEST_PICTURE } from "../../formats/largest-file";

export type Turned = { status: number; message: string };

/** What the actions of the pages send, by React and Next. */
const ACTION_TYPES = ["text/plain", "multipart/form-data"];
/** The form on which the access code is typed. */
const FORM_TYPE = "application/x-www-form-urlencoded";
/** Pictures come as they are; a page elsewhere cannot send this kind without asking first. */
const PICTURE_TYPE = "application/octet-stream";
const PICTURE_PATH = /^\/api\/trials\/\d+\/rounds\/\d+\/pictures$/;
const READING = new Set(["GET", "HEAD"]);

/** What is taken in one request: the largest file that pages send, with room for its wrapping. */
export const LARGEST_BODY = LARGEST_FILE + 1024 * 1024;
/** What any request may bring. */
export const LARGEST_OF_ALL = LARGEST_PICTURE + 1024 * 1024;

/** A code, and where to go on to. */
export const LARGEST_FORM = 4000;

/** What is sent to: an action of a page, the form of the access code, or where pictures are taken. */
export type Door = "action" | "code form" | "picture";

const MOST: Readonly<Record<Door, number>> = {
  action: LARGEST_BODY,
  "code form": LARGEST_FORM,
  picture: LARGEST_PICTURE,
};

/** @param isCodeForm whether it goes to the page of the access code */
export function doorOf(pathname: string, isCodeForm: boolean): Door {
  if (isCodeForm) return "code form";
  return PICTURE_PATH.test(pathname) ? "picture" : "action";
}

/** Why a request is turned away; `null` = it may pass. */
export function turnedAway(method: string, headers: Headers, door: Door): Turned | null {
  if (READING.has(method))
    return isElsewhere(headers) && headers.get("sec-fetch-mode") !== "navigate"
      ? { status: 403, message: "Only the pages of this bench may read it." }
      : null;
  if (method !== "POST") return { status: 405, message: "This is not done here." };
  if (!isFromHere(headers))
    return { status: 403, message: "Only the pages of this bench may change it. Open the bench and do it there." };
  const type = (headers.get("content-type") ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  if (!isTaken(door, type, headers))
    return { status: 415, message: "What was sent is not of a kind that is taken here." };
  if (headers.has("content-encoding")) return { status: 415, message: "What was sent is packed. Send it as it is." };
  return isTooLarge(headers, door);
}

function isTaken(door: Door, type: string, headers: Headers): boolean {
  if (door === "code form") return type === FORM_TYPE;
  if (door === "picture") return type === PICTURE_TYPE;
  return headers.has("next-action") && ACTION_TYPES.includes(type);
}

/** Who is not in yet sends a code, and says how long it is; so does who sends a picture. */
function isTooLarge(headers: Headers, door: Door): Turned | null {
  const length = headers.get("content-length");
  if (length === null && door === "action") return null;
  if (Number(length ?? Number.NaN) <= MOST[door]) return null;
  const most = door === "picture" ? LARGEST_PICTURE : LARGEST_FILE;
  return { status: 413, message: `This is too large: at most ${most / 1024 / 1024} MB are taken at once.` };
}

/** The browser says that a page of another address asks. [Fetch Metadata Request Headers, W3C working draft] */
function isElsewhere(headers: Headers): boolean {
  const site = headers.get("sec-fetch-site");
  return site === "cross-site" || site === "same-site";
}

/** Every browser says where a request that changes something comes from; one that does not say is not from a page. */
function isFromHere(headers: Headers): boolean {
  if (isElsewhere(headers)) return false;
  try {
    const origin = new URL(headers.get("origin") ?? "");
    return /^https?:$/.test(origin.protocol) && origin.host === headers.get("host")?.toLowerCase();
  } catch {
    return false;
  }
}
