"use client";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { LENGTH_UNITS } from "../../core/metrology/units";
import type { Place } from "../../server/screens/places-view";
import { PLACES } from "../primitives/places";
import { SheetDialog } from "../primitives/sheet-dialog";
import { findPlaces } from "./find-places";
import { THEME_WORDS } from "./theme-words";
import { useShell } from "./use-shell";

type Entry = { group: string; label: string; detail: string; act: () => void };

const REACHED = [
  ...PLACES,
  { label: "Compare two days of a machine", href: "/ledger/compare" },
  { label: "Add a machine", href: "/machine/new" },
];

/** Names it in the list; small letters, as the list compares. */
function keyOf({ group, label, detail }: Entry): string {
  return `${group} ${label} ${detail}`.toLowerCase().trim();
}

export type PaletteProps = {
  onClose: () => void;
  onKeys: () => void;
  /** What was typed before it was there. */
  early: { text: string; enter: boolean };
};

/** Any place by a few letters of its name. */
export function Palette({ onClose, onKeys, early }: PaletteProps) {
  const router = useRouter();
  const { setTheme, setUnit, theme, unit } = useShell();
  const [typed, setTyped] = useState(early.text);
  const [found, setFound] = useState<Place[] | null>(null);
  const [failed, setFailed] = useState(false);
  const [chosen, setChosen] = useState("");
  const [enterWaits, setEnterWaits] = useState(early.enter);
  const isMoved = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    fetch("/api/places")
      .then((answer) => answer.json())
      .then(setFound)
      .catch(() => setFailed(true));
  }, []);
  const choose = (act: () => void) => () => {
    onClose();
    act();
  };
  const go = (href: string) => choose(() => router.push(href));
  const entries: Entry[] = [
    ...(found ?? []).map(({ href, ...place }) => ({ ...place, act: go(href) })),
    ...REACHED.map(({ label, href }) => ({ group: "Places", label, detail: "", act: go(href) })),
    ...(Object.keys(THEME_WORDS) as (keyof typeof THEME_WORDS)[])
      .filter((t) => t !== theme)
      .map((t) => ({ group: "Show", label: THEME_WORDS[t], detail: "theme", act: choose(() => setTheme(t)) })),
    ...LENGTH_UNITS.filter((u) => u !== unit).map((u) => ({
      group: "Show",
      label: `Lengths in ${u}`,
      detail: "unit",
      act: choose(() => setUnit(u)),
    })),
    { group: "Show", label: "Keys of this screen", detail: "help", act: onKeys },
  ];
  const shown = findPlaces(entries, typed);
  const groups = [...new Set(shown.map((e) => e.group))];
  // Until an arrow or the pointer chooses another one it is the first, at every letter anew.
  const current = shown.find((e) => keyOf(e) === chosen) ?? shown[0];
  const isLoading = found === null && !failed;

  // Enter that came before the list did is answered when it is there.
  useEffect(() => {
    if (isLoading || !enterWaits) return;
    setEnterWaits(false);
    current?.act();
  }, [isLoading, enterWaits, current]);

  function type(text: string) {
    isMoved.current = false;
    setChosen("");
    setEnterWaits(false);
    setTyped(text);
  }

  function onKey(e: KeyboardEvent) {
    isMoved.current = e.key !== "Enter";
    if (e.key !== "Enter" || e.nativeEvent.isComposing) return;
    e.preventDefault();
    e.stopPropagation();
    if (isLoading) setEnterWaits(true);
    else current?.act();
  }

  return (
    <SheetDialog
      title="Go to"
      titleHidden
      onClose={onClose}
      typedInto={input}
      className="w-[min(36rem,calc(100vw-2rem))] overflow-hidden p-0"
    >
      <Command
        label="Go to"
        shouldFilter={false}
        loop
        value={current ? keyOf(current) : ""}
        onValueChange={(key) => isMoved.current && setChosen(key)}
        onPointerMove={() => {
          isMoved.current = true;
        }}
      >
        <Command.Input
          ref={input}
          value={typed}
          onValueChange={type}
          onKeyDown={onKey}
          placeholder="Go to a machine, trial, setting…"
          className="w-full border-b border-hair bg-transparent px-5 py-4 text-[17px] outline-none"
        />
        <Command.List className="max-h-[52vh] overflow-y-auto p-2" tabIndex={-1}>
          {isLoading && <Command.Loading className="px-3 py-2 text-ink2">Looking…</Command.Loading>}
          {failed && <p className="px-3 py-2 text-ember">The server does not answer: only places are shown.</p>}
          {shown.length === 0 && <p className="px-3 py-2 text-ink2">Nothing is called that.</p>}
          {groups.map((group) => (
            <Command.Group
              key={group}
              heading={group}
              className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[13px] [&_[cmdk-group-heading]]:text-ink2"
            >
              {shown
                .filter((e) => e.group === group)
                .map((entry) => (
                  <Command.Item
                    key={keyOf(entry)}
                    value={keyOf(entry)}
                    onSelect={entry.act}
                    className="flex min-h-11 cursor-pointer items-center justify-between gap-x-4 rounded-md px-3 py-1 aria-selected:bg-steel-tint max-sm:flex-wrap"
                  >
                    <span>{entry.label}</span>
                    <span className="min-w-0 truncate text-[14px] text-ink2">{entry.detail}</span>
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </SheetDialog>
  );
}
