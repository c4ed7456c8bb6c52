"use client";
import { lazy, Suspense, useState } from "react";
import type { JoinView } from "../../server/guard/join-view";
import { Button } from "../primitives/button";

// Seldom opened: the page comes without it.
const JoinSheet = lazy(async () => ({ default: (await import("./join-sheet")).JoinSheet }));

/** Opens the address and the code for a phone at the machine. Only on a bench that is open to the local network. */
export function JoinButton({ join }: { join: JoinView }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button weight="small" onClick={() => setOpen(true)}>
        On another device
      </Button>
      {isOpen && (
        <Suspense>
          <JoinSheet join={join} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
