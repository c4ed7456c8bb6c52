/** A key for one taking of a reading, by which it is taken once however often it is sent. Over the local network browsers make no UUIDs. */
export function newClientKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join("");
}
