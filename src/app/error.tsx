"use client";
import { Button } from "../ui/primitives/button";

export default function Failed({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="text-2xl font-bold">This page could not be shown.</h1>
      <p className="mt-2 text-ink2">
        Everything that was taken is on disk. Try again; if it stays, the terminal in which Ustrina runs says why.
      </p>
      <Button weight="primary" className="mt-6" onClick={reset}>
        Try again
      </Button>
    </main>
  );
}
