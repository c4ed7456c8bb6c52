"use client";
import { type ReactNode, useEffect } from "react";
import { Folded } from "./folded";
import { useSurviving } from "./use-surviving";

type Props = {
  /** An address that ends in `#id` opens the section. */
  id?: string;
  name: string;
  /** The most important fact, visible while the section is folded. */
  fact?: ReactNode;
  isOpen?: boolean;
  /** The browser tab stores under this name whether the section is open. After a reload, text that was typed inside is visible again. */
  keptAs: string;
  children: ReactNode;
};

/** One section of a page. Folded, it shows its name and one fact. */
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
