"use client";
import { useEffect, useMemo, useState } from "react";
import { hexOfLab, LAB_KEYS, type Lab } from "../../core/colour/lab";
import type { Site } from "../../core/coupon/site";
import type { PlanePoint } from "../../core/fitting/plane-map";
import { countText } from "../../core/metrology/count-text";
import { plain } from "../../core/metrology/quantity-text";
import type { ColoursRead } from "../../core/picture/array/read-colours";
import type { PictureReading } from "../../core/picture/picture-reading";
import { Button } from "../primitives/button";
import { useSurviving } from "../primitives/use-surviving";
import { type CellLayout, cellLayout } from "../trial/read/ask/cell-layout";
import { ArrayOverlay } from "./array-overlay";
import { CARDS, CardMark, type CardName, type CardPlaces, CardsCard, type ColourReading } from "./cards-card";
import { PictureRoom, type PictureScreenProps } from "./picture-room";
import { ReaderCard } from "./reader-card";
import { TakeCells } from "./take-cells";
import { useOpenPicture } from "./use-open-picture";

const NOWHERE: CardPlaces = {};
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
  const [cards, setCards] = useSurviving<CardPlaces>(`cards of picture ${picture.id}`, NOWHERE);
  const [leftOut, setLeftOut] = useSurviving<readonly number[]>(`cells of picture ${picture.id}`, NONE);
  const [selected, select] = useState<number | null>(null);
  const [placing, setPlacing] = useState<CardName | null>(null);
  const colourReading = useColours(`/api/trials/${view.id}/rounds/${n}/pictures/${picture.id}/colours`, cards);
  useEffect(() => {
    if (state.loaded && look && !stopped) readArray({ look, brighter });
  }, [state.loaded, look, brighter, stopped, readArray]);
  const { read } = colourReading;
  // A card that cannot be read is selected again.
  const wanted = placing ?? CARDS.find((card) => !cards[card]) ?? (read?.ok === false ? read.card : null);
  const place = (card: CardName, at: PlanePoint) => {
    setCards((before) => ({ ...before, [card]: at }));
    setPlacing(null);
  };
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
          if (wanted) place(wanted, at);
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
            {CARDS.map((card) => {
              const at = cards[card];
              return at && <CardMark key={card} at={at} card={card} zoom={zoom} />;
            })}
          </g>
        )}
      >
        {/* First, so that it does not move when the reader is done. */}
        <CardsCard cards={cards} wanted={wanted} reading={colourReading} onAgain={setPlacing} onPlace={place} />
        <ReaderCard reading={{ ...open, state: { ...state, placement: null } }} />
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
      <TakeCells
        screen={screen}
        what="colour"
        count={colours?.filter((c) => c !== null).length ?? 0}
        readings={colours ? readingsOf(sites, colours, leftOut.length > 0) : []}
      />
    </>
  );
}

/** One reading for each number of the colours. */
function readingsOf(sites: readonly Site[], colours: readonly (Lab | null)[], edited: boolean): PictureReading[] {
  return sites.flatMap(({ id, measurand }) => {
    if (measurand.kind !== "cell colour") return [];
    const part = LAB_KEYS[measurand.of];
    return [{ site: id, scores: colours.map((c) => c?.[part] ?? null), edited }];
  });
}

/** Asks the server as soon as both cards are selected, and again when one of them moves. */
function useColours(address: string, { white, grey }: CardPlaces): ColourReading {
  const [read, setRead] = useState<ColoursRead | null>(null);
  const [fault, setFault] = useState("");
  const asked =
    white && grey
      ? `${address}?white=${white.x.toFixed(1)},${white.y.toFixed(1)}&grey=${grey.x.toFixed(1)},${grey.y.toFixed(1)}`
      : null;
  useEffect(() => {
    if (!asked) return;
    setRead(null);
    setFault("");
    const stop = new AbortController();
    fetch(asked, { signal: stop.signal })
      .then(async (response) => {
        if (response.ok) setRead((await response.json()) as ColoursRead);
        setFault(response.ok ? "" : await response.text());
      })
      .catch(() => {
        if (!stop.signal.aborted) setFault("The server does not answer. Select a card again.");
      });
    return () => stop.abort();
  }, [asked]);
  return { read: asked ? read : null, fault: asked ? fault : "" };
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
