"use client";
import { usePathname } from "next/navigation";
import { Button } from "../primitives/button";
import { Kbd } from "../primitives/kbd";
import { SheetDialog } from "../primitives/sheet-dialog";
import { keysAt } from "./screen-keys";

/** The keys of this screen. */
export function KeyHelp({ onClose }: { onClose: () => void }) {
  const screens = keysAt(usePathname());
  return (
    <SheetDialog
      title="Keys"
      onClose={onClose}
      className="max-h-[76vh] w-[min(30rem,calc(100vw-2rem))] overflow-y-auto p-6"
    >
      {screens.map((screen) => (
        <section key={screen.title} className="mt-3">
          <h3 className="font-semibold">{screen.title}</h3>
          <dl>
            {screen.rows.map((row) => (
              <div key={row.keys} className="flex items-baseline gap-4 border-t border-hair py-1.5">
                <dt className="w-36 shrink-0">
                  <Kbd>{row.keys}</Kbd>
                </dt>
                <dd>{row.does}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <Button className="mt-4" onClick={onClose}>
        Close
      </Button>
    </SheetDialog>
  );
}
