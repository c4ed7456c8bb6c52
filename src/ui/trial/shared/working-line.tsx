"use client";
import { useEffect, useState } from "react";

/** A shorter calculation is not announced. */
const SOON_MS = 300;

/** Progress of a calculation. */
export function WorkingLine({ share }: { share: number | null }) {
  const isWorking = share !== null;
  const [isShown, show] = useState(false);
  useEffect(() => {
    if (!isWorking) return show(false);
    const timer = setTimeout(() => show(true), SOON_MS);
    return () => clearTimeout(timer);
  }, [isWorking]);
  if (!isWorking || !isShown) return null;
  return (
    <div className="card flex flex-wrap items-center gap-3 px-4 py-3" role="status">
      <p className="text-[14px]">Calculating the newest scores.</p>
      <progress
        className="h-2 flex-1 accent-verdigris"
        value={share}
        max={1}
        aria-label="Finished share of the calculation"
      />
    </div>
  );
}
