import clsx from "clsx";

type Props = {
  onKey: (key: string) => void;
  unit: string;
  /** Keys for fractions, where inches are typed. */
  fractions: boolean;
  /** A key for minus, where a readout may stand below 0; elsewhere signs come from words. */
  minus: boolean;
  onUnit: () => void;
  onCannot: () => void;
  busy: boolean;
};

/** A fraction after a whole number, and terms. */
const FRACTION_KEYS = [
  { label: "/", name: "divided by", key: "/" },
  { label: "␣", name: "space", key: " " },
  { label: "+", name: "plus", key: "+" },
];

const MINUS_KEY = { label: "−", name: "minus", key: "-" };

/** Large keys for one thumb. */
export function Keypad({ onKey, unit, fractions, minus, onUnit, onCannot, busy }: Props) {
  const extras = [...(minus ? [MINUS_KEY] : []), ...(fractions ? FRACTION_KEYS : [])].slice(0, FRACTION_KEYS.length);
  // The column of extra keys is filled by those beside it where there are fewer.
  const wide = extras.length === 1 ? "col-span-2" : "";
  const key = (label: string, act: () => void, extra = "") => (
    <button
      key={label}
      type="button"
      onClick={act}
      className={clsx("num min-h-13 rounded-lg border border-border bg-sheet text-[21px] active:bg-paper", extra)}
    >
      {label}
    </button>
  );
  const digit = (d: string) => key(d, () => onKey(d));
  const extra = (i: number) => {
    const k = extras[i];
    return (
      k && (
        <button
          type="button"
          aria-label={k.name}
          onClick={() => onKey(k.key)}
          className="num min-h-13 rounded-lg border border-border bg-sheet text-[21px] active:bg-paper"
        >
          {k.label}
        </button>
      )
    );
  };
  return (
    <div className={clsx("mt-1 grid gap-2 lg:hidden", extras.length > 0 ? "grid-cols-5" : "grid-cols-4")}>
      {["1", "2", "3"].map(digit)}
      {extra(0)}
      <button
        type="button"
        aria-label="delete last"
        onClick={() => onKey("back")}
        className="min-h-13 rounded-lg border border-border bg-sheet text-[19px] active:bg-paper"
      >
        ⌫
      </button>
      {["4", "5", "6"].map(digit)}
      {extra(1)}
      {key(unit, onUnit, clsx("!text-[16px]", wide))}
      {["7", "8", "9"].map(digit)}
      {extra(2)}
      <button
        type="submit"
        disabled={busy}
        className={clsx("row-span-2 rounded-lg bg-ink text-[17px] font-semibold text-sheet disabled:opacity-60", wide)}
      >
        Take
      </button>
      {digit(".")}
      {digit("0")}
      <button
        type="button"
        onClick={onCannot}
        disabled={busy}
        className={clsx(
          "min-h-13 rounded-lg border border-border bg-sheet text-[16px] leading-tight active:bg-paper",
          fractions && "col-span-2",
        )}
      >
        cannot read
      </button>
    </div>
  );
}
