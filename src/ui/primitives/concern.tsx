"use client";
import { type ReactNode, useEffect } from "react";
import { Folded } from "./folded";
import { useSurviving } from "./use-surviving";

type Props = {
  /** Where an address leads to it, it is opened. */
  id?: string;
  name: string;
  /** What matters most of it, seen while it is folded. */
  fact?: ReactNode;
  isOpen?: boolean;
  /** Under this name the browser remembers that it was opened, so that what is typed inside is seen again after the page is loaded anew. */
  keptAs: string;
  children: ReactNode;
};

/** One concern of a page: its name and one fact, the rest when it is opened. */
export function Concern({ id, name, fact, isOpen = false, keptAs, children }: Props) {
  const [isKeptOpen, keepOpen] = useSurviving<boolean>(`open ${keptAs}`, isOpen);
  useEffect(() => {
    if (id && window.location.hash === `#${id}`) keepOpen(() => true);
  }, [id, keepOpen]);
  return (
    <section id={id} className="card scroll-mt-16" aria-label={name}>
      <Folded
        isHeading
        isOpen={isKeptOpen}
        onChange={(next) => keepOpen(() => next)}
        titleClass="w-full px-4 py-2.5 hover:bg-paper"
        title={
          <span className="flex flex-wrap items-baseline gap-x-3">
            <span className="font-bold">{name}</span>
            {fact && <span className="min-w-0 text-[14px] font-normal text-ink2">{fact}</span>}
          </span>
        }
      >
        <div className="px-5 pb-5">{children}</div>
      </Folded>
    </section>
  );
}
