import { format, formatDistance } from "date-fns";

type Props = {
  at: number;
  /** From the server, so that both sides render the same. */
  now: number;
  /** Without “ago”: after “for”. */
  plain?: boolean;
};

/** `3 days ago`, with the full date on hover. */
export function Ago({ at, now, plain = false }: Props) {
  const recent = Math.abs(now - at) < 60_000;
  const text = recent ? (plain ? "a moment" : "just now") : formatDistance(at, now, { addSuffix: !plain });
  return (
    <time dateTime={new Date(at).toISOString()} title={fullDate(at)} suppressHydrationWarning>
      {text.replace("about ", "")}
    </time>
  );
}

/** `25 November 2026, 14:05`. */
export function fullDate(at: number): string {
  return format(at, "d MMMM yyyy, HH:mm");
}

/** `25 Nov 2026`, with the time on hover. */
export function OnDay({ at }: { at: number }) {
  return (
    <time dateTime={new Date(at).toISOString()} title={fullDate(at)} suppressHydrationWarning>
      {format(at, "d MMM yyyy")}
    </time>
  );
}
