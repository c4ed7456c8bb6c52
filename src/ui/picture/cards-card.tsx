"use client";
import { useState } from "react";
import type { PlanePoint } from "../../core/fitting/plane-map";
import type { ColoursRead } from "../../core/picture/array/read-colours";
import { Button } from "../primitives/button";
import { Folded } from "../primitives/folded";
import { Fault, Notice } from "../primitives/notice";

export const CARDS = ["white", "grey"] as const;
export type CardName = (typeof CARDS)[number];
/** Pixels of the picture. */
export type CardPlaces = Partial<Record<CardName, PlanePoint>>;
/** Colours as the server reads them: `null` before both cards are selected, and while they are read. */
export type ColourReading = { read: ColoursRead | null; fault: string };

const CARD_NAMES: Record<CardName, string> = { white: "White card", grey: "Grey card" };

type Props = {
  cards: CardPlaces;
  /** The card that is to be selected; `null` = none. */
  wanted: CardName | null;
  reading: ColourReading;
  onAgain: (card: CardName) => void;
  onPlace: (card: CardName, at: PlanePoint) => void;
};

/** Which card to select next, why a card cannot be read, and both cards to be selected again. */
export function CardsCard({ cards, wanted, reading: { read, fault }, onAgain, onPlace }: Props) {
  const name = wanted && CARD_NAMES[wanted].toLowerCase();
  return (
    <section className="card p-5" aria-label="Cards">
      {name && read?.ok !== false && (
        <Notice tone="needs you" headline={`Select the middle of the ${name}.`}>
          Press it in the picture.
        </Notice>
      )}
      {read?.ok === false && (
        <Notice tone="needs you" headline="The colours are not read.">
          {read.why}
        </Notice>
      )}
      {!wanted && read && <p className="text-verdigris">✓ Both cards are read.</p>}
      {!wanted && !read && !fault && <p role="status">Reading the colours …</p>}
      <div className="mt-3 flex flex-wrap gap-2">
        {CARDS.map((card) =>
          cards[card] ? (
            <Button key={card} weight="small" onClick={() => onAgain(card)}>
              {CARD_NAMES[card]}: select again
            </Button>
          ) : null,
        )}
      </div>
      <CardPlace cards={cards} wanted={wanted} onPlace={onPlace} />
      {fault && <Fault>{fault}</Fault>}
    </section>
  );
}

/** The place of a card in the picture. */
export function CardMark({ at, card, zoom }: { at: PlanePoint; card: CardName; zoom: number }) {
  return (
    <g pointerEvents="none">
      <circle
        cx={at.x}
        cy={at.y}
        r={14 / zoom}
        fill="none"
        stroke="var(--color-ember)"
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
      <text
        x={at.x + 20 / zoom}
        y={at.y + 5 / zoom}
        fontSize={14 / zoom}
        fill="var(--color-ember)"
        stroke="var(--color-sheet)"
        strokeWidth={4 / zoom}
        paintOrder="stroke"
      >
        {CARD_NAMES[card]}
      </text>
    </g>
  );
}

type PlaceProps = { cards: CardPlaces; wanted: CardName | null; onPlace: (card: CardName, at: PlanePoint) => void };

/** The same by keyboard: places of both cards in pixels. */
function CardPlace({ cards, wanted, onPlace }: PlaceProps) {
  const [text, setText] = useState("");
  const card = wanted ?? "white";
  const at = /^\s*(\d+(?:\.\d+)?)[\s,;]+(\d+(?:\.\d+)?)\s*$/.exec(text);
  return (
    <Folded title="Enter the place of a card" className="mt-3">
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (!at) return;
          onPlace(card, { x: Number(at[1]), y: Number(at[2]) });
          setText("");
        }}
      >
        <label className="block flex-1 text-[14px] text-ink2">
          {CARD_NAMES[card]}, pixels from the left and from the top
          <input
            className="field num mt-1 w-full"
            value={text}
            placeholder={
              cards[card] ? `${Math.round(cards[card]?.x ?? 0)} ${Math.round(cards[card]?.y ?? 0)}` : "240 1180"
            }
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <Button type="submit" disabled={!at}>
          Place
        </Button>
      </form>
    </Folded>
  );
}
