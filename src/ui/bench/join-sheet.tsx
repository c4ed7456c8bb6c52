"use client";
import type { JoinView } from "../../server/guard/join-view";
import { Button } from "../primitives/button";
import { SheetDialog } from "../primitives/sheet-dialog";

/** The address and the code, to be typed or scanned. */
export function JoinSheet({ join, onClose }: { join: JoinView; onClose: () => void }) {
  return (
    <SheetDialog title="On another device" onClose={onClose} className="w-[min(92vw,420px)] p-5">
      {join.ways.length === 0 && <p className="mt-2">This computer is on no network now.</p>}
      {join.ways.map((way) => (
        <div key={way.address} className="mt-3">
          <ScanSymbol modules={way.qr} address={way.address} />
          <p className="num mt-2 text-center text-[17px] break-all">{way.address}</p>
        </div>
      ))}
      <p className="mt-3 text-center">
        Access code <b className="num text-[22px] font-semibold">{join.code}</b>
      </p>
      <p className="mt-3 text-[14px] text-ink2">
        Scan it, or open the address and type the code. Whoever has the code can read and change this bench from this
        network, and it is sent as it is: use it only where you know everybody.
      </p>
      <Button className="mt-4 w-full" onClick={onClose}>
        Close
      </Button>
    </SheetDialog>
  );
}

/** Always dark on light: not every reader takes the inverse. */
function ScanSymbol({ modules, address }: { modules: boolean[][]; address: string }) {
  const path = modules.flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : ""))).join("");
  return (
    <svg
      role="img"
      aria-label={`Code to scan, for ${address}`}
      viewBox={`0 0 ${modules.length} ${modules.length}`}
      shapeRendering="crispEdges"
      className="mx-auto block w-60 rounded-md"
    >
      <rect width="100%" height="100%" fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}
