/** How another device comes to this bench, where it is open to the local network: an address and its code, also to be scanned. */
import { encode } from "uqr";
import { ACCESS_PATH, accessKeys } from "./access";
import { codeWords } from "./access-code";
import { addresses } from "./allowed-hosts";

export type JoinView = {
  code: string;
  /** `qr` = the modules of the symbol, row by row, true where dark; quiet zone included. */
  ways: { address: string; qr: boolean[][] }[];
};

/** @param host the Host header of the page that shows it; its port is the port of all */
export function joinView(host: string | null): JoinView | null {
  const keys = accessKeys();
  if (!keys) return null;
  const port = /:(\d+)$/.exec(host ?? "")?.[1];
  const ways = addresses().map((ip) => {
    const address = `http://${ip}${port ? `:${port}` : ""}`;
    // Behind the # the code stays in the browser: it is in no request and no log.
    return { address, qr: encode(`${address}${ACCESS_PATH}#${keys.code}`, { border: 4 }).data };
  });
  return { code: codeWords(keys.code), ways };
}
