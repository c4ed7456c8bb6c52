"use client";
import { useState } from "react";
import type { JoinView } from "../../server/guard/join-view";
import { Button } from "../primitives/button";
import { SheetDialog } from "../primitives/sheet-dialog";

/** Opens the address and the code for a phone at the machine. Only on a bench that is open to the local network. */
export function JoinButton({ join }: { join: JoinView }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button weight="small" onClick={() => setOpen(true)}>
        On another device
      </Button>
      {isOpen && (
        <SheetDialog title="On another device" onClose={() => setOpen(false)} className="w-[min(92vw,420px)] p-5">
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
            Scan it, or open the address and type the code. Whoever has the code can read and change this bench from
            this network, and it is sent as it is: use it only where you know everybody.
          </p>
          <Button className="mt-4 w-full" onClick={() => setOpen(false)}>
            Close
          </Button>
        </SheetDialog>
      )}
    </>
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
