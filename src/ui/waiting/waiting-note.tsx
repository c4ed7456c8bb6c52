"use client";
import { Button } from "../primitives/button";
import { Notice } from "../primitives/notice";
import { drop, type Refused, sendAgain } from "./waiting-readings";

/** How many wait, why, and which were refused. */
type Waiting = { waiting: number; why: string | null; refused: readonly Refused[] };

/** What is not on disk yet, and what was refused when it was sent later. */
export function WaitingNote({ store }: { store: Waiting }) {
  const { waiting, why, refused } = store;
  return (
    <>
      {waiting > 0 && (
        <div className="mb-3" role="status">
          <Notice
            tone="needs you"
            headline={`${waiting === 1 ? "1 reading is" : `${waiting} readings are`} not yet on disk.`}
          >
            {why ?? "The server does not answer."} They wait in this browser and are sent by themselves: go on reading.
            {why === null && (
              <span className="max-lg:hidden"> If it runs and this stays, load the page again; they stay here.</span>
            )}
          </Notice>
        </div>
      )}
      {refused.map((r) => (
        <div key={r.clientKey} className="mb-3" role="alert">
          <Notice tone="needs you" headline={`${r.raw} at ${r.site} was not taken.`}>
            {r.message}{" "}
            <Button weight="quiet" onClick={() => sendAgain(r)}>
              Send it again
            </Button>
            <Button weight="quiet" onClick={() => drop(r.clientKey)}>
              Leave it out
            </Button>
          </Notice>
        </div>
      ))}
    </>
  );
}
