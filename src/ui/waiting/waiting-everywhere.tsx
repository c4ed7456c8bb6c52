"use client";
import { useSyncExternalStore } from "react";
import { WaitingNote } from "./waiting-note";
import { nothingWaits, subscribe, waitingState } from "./waiting-readings";

/** What waits in this browser or was refused, of any trial: also of one that is no longer on this bench. */
export function WaitingEverywhere() {
  const { waiting, why, refused } = useSyncExternalStore(subscribe, waitingState, nothingWaits);
  return <WaitingNote store={{ waiting: waiting.length, why, refused }} />;
}
