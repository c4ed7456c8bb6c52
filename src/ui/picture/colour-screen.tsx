"use client";
import { useEffect, useMemo, useState } from "react";
import type { Lab } from "../../core/colour/lab";
import { hexOfLab } from "../../core/colour/lab";
import type { PlanePoint } from "../../core/fitting/plane-map";
import { countText } from "../../core/metrology/count-text";
import { plain } from "../../core/metrology/quantity-text";
import type { ColoursRead } from "../../core/picture/array/read-colours";
import { Button } from "../primitives/button";
import { Fault, Notice } from "../primitives/notice";
import { useSurviving } from "../primitives/use-surviving";
import { type CellLayout, cellLayout } from "../trial/read/ask/cell-layout";
import { ArrayOverlay } from "./array-overlay";
import { PictureRoom, type PictureScreenProps } from "./picture-room";
import { ReaderCard } from "./reader-card";
import { TakingLine } from "./taking-line";
import { useOpenPicture } from "./use-open-picture";
import { useTaking } from "./use-taking";

const CARD_NAMES = { white: "White card", grey: "Grey card" } as const;
type CardName = keyof typeof CARD_NAMES;
type Places = Partial<Record<CardName, PlanePoint>>;

const NOWHERE: Places = {};
const NONE: readonly number[] = [];

/** A colour scan of an array: both cards are selected, then every cell has its colour, saved as three readings. */
export function ColourScreen(screen: PictureScreenProps) {
  const { view, n, picture } = screen;
  const open = useOpenPicture(screen);
  const { reader, state, brighter, stopped, round } = open;
  const { readArray } = reader;
  const sites = open.sites.filter((s) => s.measurand.kind === "cell colour");
  const look = useMemo(() => {
    const measurand = open.sites.find((s) => s.measurand.kind === "cell colour")?.measurand;
    return measurand?.kind === "cell colour" ? { ...measurand, of: "darkness" as const } : null;
  }, [open.sites]);
  const names = sites[0]?.ask.kind === "scores" ? sites[0].ask.cells.map((c) => c.label) : [];
  const [cards, setCards] = useSurviving<Places>(`cards of picture ${picture.id}`, NOWHERE);
  const [leftOut, setLeftOut] = useSurviving<readonly number[]>(`cells of picture ${picture.id}`, NONE);
  const [selected, select] = useState<number | null>(null);
  const [placing, setPlacing] = useState<CardName | null>(null);
  const { read, fault } = useColours(`/api/trials/${view.id}/rounds/${n}/pictures/${picture.id}/colours`, cards);
  useEffect(() => {
    if (state.loaded && look && !stopped) readArray({ look, brighter });
  }, [state.loaded, look, brighter, stopped, readArray]);
  const wanted = placing ?? (!cards.white ? "white" : !cards.grey ? "grey" : null);
  const colours = read?.ok ? read.colours.map((c, i) => (leftOut.includes(i) ? null : c)) : null;
  return (
    <>
      <PictureRoom
        {...screen}
        heading={`Colours of coupon ${round?.couponCode} in a picture`}
        marks="Marks"
        open={open}
        look={null}
        onPress={(at) => {
          if (!wanted) return;
          setCards((before) => ({ ...before, [wanted]: at }));
          setPlacing(null);
        }}
        overlay={(zoom) => (
          <g>
            {state.array && (
              <ArrayOverlay
                read={state.array}
                names={names}
                leftOut={leftOut}
                selected={selected}
                onSelect={(i) => (wanted ? undefined : select(i))}
                zoom={zoom}
              />
            )}
            {(["white", "grey"] as const).map((card) => {
              const at = cards[card];
              return at && <CardMark key={card} at={at} name={CARD_NAMES[card]} zoom={zoom} />;
            })}
          </g>
        )}
      >
        <ReaderCard reading={{ ...open, state: { ...state, placement: null } }} />
        <section className="card p-5" aria-label="Cards">
          {wanted ? (
            <Notice tone="needs you" headline={`Select the middle of the ${CARD_NAMES[wanted].toLowerCase()}.`}>
              Press it in the picture.
            </Notice>
          ) : (
            <p className="text-verdigris">✓ Both cards are selected.</p>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            {(["white", "grey"] as const).map((card) =>
              cards[card] ? (
                <Button key={card} weight="small" onClick={() => setPlacing(card)}>
                  {CARD_NAMES[card]}: select again
                </Button>
              ) : null,
            )}
          </div>
          <CardPlace cards={cards} wanted={wanted} onPlace={(card, at) => setCards((c) => ({ ...c, [card]: at }))} />
          {read && !read.ok && <Fault>{read.why}</Fault>}
          {fault && <Fault>{fault}</Fault>}
        </section>
        {colours && (
          <Colours
            colours={colours}
            all={read?.ok ? read.colours : []}
            names={names}
            layout={sites[0] ? cellLayout(sites[0]) : null}
            leftOut={leftOut}
            selected={selected}
            onSelect={select}
            onToggle={(i) => setLeftOut((all) => (all.includes(i) ? all.filter((k) => k !== i) : [...all, i]))}
          />
        )}
      </PictureRoom>
      <TakeColours screen={screen} sites={sites.map((s) => s.id)} colours={colours} edited={leftOut.length > 0} />
    </>
  );
}

/** Asks the server as soon as both cards are selected, and again when one of them moves. */
function useColours(address: string, { white, grey }: Places): { read: ColoursRead | null; fault: string } {
  const [read, setRead] = useState<ColoursRead | null>(null);
  const [fault, setFault] = useState("");
  const asked =
    white && grey
      ? `${address}?white=${white.x.toFixed(1)},${white.y.toFixed(1)}&grey=${grey.x.toFixed(1)},${grey.y.toFixed(1)}`
      : null;
  useEffect(() => {
    if (!asked) return;
    const stop = new AbortController();
    fetch(asked, { signal: stop.signal })
      .then(async (response) => {
        if (response.ok) setRead((await response.json()) as ColoursRead);
        setFault(response.ok ? "" : await response.text());
      })
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setFault(error instanceof Error ? "The server does not answer. Try again." : "");
      });
    return () => stop.abort();
  }, [asked]);
  return { read: asked ? read : null, fault: asked ? fault : "" };
}

function CardMark({ at, name, zoom }: { at: PlanePoint; name: string; zoom: number }) {
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
      <text x={at.x + 20 / zoom} y={at.y + 5 / zoom} fontSize={14 / zoom} fill="var(--color-ember)">
        {name}
      </text>
    </g>
  );
}

type PlaceProps = { cards: Places; wanted: CardName | null; onPlace: (card: CardName, at: PlanePoint) => void };

/** The same by keyboard: places of both cards in pixels. */
function CardPlace({ cards, wanted, onPlace }: PlaceProps) {
  const [text, setText] = useState("");
  const card = wanted ?? "white";
  const at = /^\s*(\d+(?:\.\d+)?)[\s,;]+(\d+(?:\.\d+)?)\s*$/.exec(text);
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-[14px] text-ink2">Enter the place of a card</summary>
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
    </details>
  );
}

type ColoursProps = {
  colours: readonly (Lab | null)[];
  all: readonly (Lab | null)[];
  names: readonly string[];
  /** As the cells lie on the stock. */
  layout: CellLayout | null;
  leftOut: readonly number[];
  selected: number | null;
  onSelect: (cell: number) => void;
  onToggle: (cell: number) => void;
};

/** Every cell in its colour, and the cell in hand. */
function Colours({ colours, all, names, layout, leftOut, selected, onSelect, onToggle }: ColoursProps) {
  const read = colours.filter((c) => c !== null).length;
  const inHand = selected === null ? null : (all[selected] ?? null);
  return (
    <section className="card p-5" aria-label="What the picture shows">
      <h2 className="text-[17px] font-bold">
        {countText(read, "colour")} of {colours.length}
      </h2>
      <ul
        className="mt-2 grid gap-1"
        style={{ gridTemplateColumns: `repeat(${layout?.columns ?? 10}, minmax(0, 2.75rem))` }}
      >
        {all.map((colour, i) => (
          <li
            key={names[i]}
            style={layout ? { gridColumn: layout.places[i]?.column, gridRow: layout.places[i]?.row } : undefined}
          >
            <button
              type="button"
              aria-pressed={i === selected}
              aria-label={`Cell ${names[i]}${leftOut.includes(i) ? ", left out" : ""}`}
              className="block aspect-square w-full rounded-sm border border-line aria-pressed:outline-2 aria-pressed:outline-offset-1 aria-pressed:outline-ember"
              style={{
                backgroundColor: colour ? hexOfLab(colour) : "transparent",
                opacity: leftOut.includes(i) ? 0.3 : 1,
              }}
              onClick={() => onSelect(i)}
            />
          </li>
        ))}
      </ul>
      {selected !== null && (
        <div className="mt-2 flex flex-wrap items-center justify-between gap-3">
          <p className="num text-[14px]">
            Cell {names[selected]}
            {inHand ? `: L* ${plain(inHand.l, 1)}, a* ${plain(inHand.a, 1)}, b* ${plain(inHand.b, 1)}` : ": not read"}
          </p>
          <Button weight="small" onClick={() => onToggle(selected)}>
            {leftOut.includes(selected) ? "Use this cell" : "Leave this cell out"}
          </Button>
        </div>
      )}
    </section>
  );
}

type TakeProps = {
  screen: PictureScreenProps;
  /** Of L*, a* and b*. */
  sites: readonly string[];
  colours: readonly (Lab | null)[] | null;
  edited: boolean;
};

function TakeColours({ screen, sites, colours, edited }: TakeProps) {
  const { fault, isClosed, back, take } = useTaking(screen);
  const count = colours?.filter((c) => c !== null).length ?? 0;
  return (
    <TakingLine
      label="Taking the colours"
      status={count > 0 ? `${countText(count, "colour")} read.` : "No colours read yet."}
      action="Take these colours"
      disabled={isClosed || count === 0}
      fault={fault}
      back={back}
      onTake={() => {
        if (!colours) return;
        const parts = (["l", "a", "b"] as const).map((part) => colours.map((c) => c?.[part] ?? null));
        take(
          sites.map((site, i) => ({ site, scores: parts[i] ?? [], edited })),
          `Colours of ${countText(count, "cell")} taken from the picture.`,
        );
      }}
    />
  );
}
