/** The keys of each screen, as its help says them. */
export type KeyRow = { keys: string; does: string };
export type ScreenKeys = { title: string; rows: KeyRow[] };

const EVERYWHERE: ScreenKeys = {
  title: "Everywhere",
  rows: [
    { keys: "Ctrl K", does: "go to any machine, trial, setting or place" },
    { keys: "Alt Enter", does: "go on: what the dark button at the foot says, or the only one there is" },
    { keys: "Ctrl Enter", does: "send the form in hand" },
    { keys: "Tab, Shift Tab", does: "next, previous field or button" },
    { keys: "?", does: "these keys (outside of fields)" },
    { keys: "Esc", does: "close this" },
  ],
};

const SCREENS: { at: RegExp; keys: ScreenKeys }[] = [
  { at: /^\/$/, keys: { title: "Bench", rows: [{ keys: "/", does: "find a machine (from six on)" }] } },
  {
    at: /^\/trial\/\d+\/read$/,
    keys: {
      title: "Read",
      rows: [
        { keys: "digits", does: "go to the reading, wherever you are" },
        { keys: "Enter", does: "take it and move on" },
        { keys: "Alt 1, Alt 2", does: "first, second phrase of the sign" },
        { keys: "Alt P, Alt N", does: "previous, next place" },
        { keys: "Alt R", does: "the same place again" },
        { keys: "Alt U", does: "unit: mm, in, thou" },
        { keys: "Alt X", does: "this place cannot be read" },
        { keys: "Alt Z", does: "take back the last reading" },
        { keys: "Alt M", does: "set the jaws (practice machine)" },
      ],
    },
  },
  {
    at: /^\/trial\/\d+\/lay-out$/,
    keys: { title: "Lay out", rows: [{ keys: "units", does: "are typed: 12 mm, 1/2 in, 300 mm/s, 18000 mm/min" }] },
  },
  {
    at: /^\/machine\/|^\/trial\/\d+\/correct$/,
    keys: {
      title: "Settings",
      rows: [{ keys: "paste", does: "a table of two columns, copied elsewhere, into its first row" }],
    },
  },
];

/** Keys of the screen at an address, then those of every screen. */
export function keysAt(pathname: string): ScreenKeys[] {
  return [...SCREENS.filter((s) => s.at.test(pathname)).map((s) => s.keys), EVERYWHERE];
}
