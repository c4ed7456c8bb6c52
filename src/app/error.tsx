"use client";
import { useEffect, useState } from "react";
import { Button, buttonClass } from "../ui/primitives/button";
import { Link } from "../ui/primitives/link";
import { TopBar } from "../ui/shell/top-bar";

const UNKNOWN = "What was read stays where it is. Try again; if it stays, the terminal in which Ustrina runs says why.";

export default function Failed({ reset }: { error: Error; reset: () => void }) {
  const [words, setWords] = useState<string | null>(null);
  useEffect(() => {
    const asked = fetch("/api/trouble").then((answer) => answer.json() as Promise<{ data: string | null }>);
    asked
      .then(({ data }) => setWords(data ?? UNKNOWN))
      .catch(() => setWords("The server does not answer. Start it again."));
  }, []);
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }]} />
      <main className="mx-auto max-w-xl px-6 py-16">
        <h1 className="text-2xl font-bold">This page could not be shown.</h1>
        <p className="mt-2 min-h-12 text-ink2" role="alert">
          {words}
        </p>
        <div className="mt-6 flex flex-wrap gap-3">
          <Button weight="primary" onClick={reset}>
            Try again
          </Button>
          <Link href="/backup" className={buttonClass()}>
            Backups
          </Link>
        </div>
      </main>
    </>
  );
}
