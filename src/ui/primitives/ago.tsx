import { format, formatDistance } from "date-fns";

/** `3 days ago`, with the full date on hover. `now` comes from the server, so that both sides render the same. */
export function Ago({ at, now }: { at: number; now: number }) {
  const text = Math.abs(now - at) < 60_000 ? "just now" : formatDistance(at, now, { addSuffix: true });
  return (
    <time dateTime={new Date(at).toISOString()} title={format(at, "d MMMM yyyy, HH:mm")} suppressHydrationWarning>
      {text.replace("about ", "")}
    </time>
  );
}
