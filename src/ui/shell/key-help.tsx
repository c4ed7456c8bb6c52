"use client";
import { usePathname } from "next/navigation";
import { Dialog } from "radix-ui";
import { Button } from "../primitives/button";
import { Kbd } from "../primitives/kbd";
import { keysAt } from "./screen-keys";

/** The keys of this screen. */
export function KeyHelp({ onClose }: { onClose: () => void }) {
  const screens = keysAt(usePathname());
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="card fixed top-[12vh] left-1/2 z-30 max-h-[76vh] w-[min(30rem,calc(100vw-2rem))] -translate-x-1/2 overflow-y-auto p-6"
        >
          <div className="flex items-center justify-between gap-3">
            <Dialog.Title className="text-[19px] font-bold">Keys</Dialog.Title>
            <Button weight="small" onClick={onClose}>
              Close
            </Button>
          </div>
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
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
