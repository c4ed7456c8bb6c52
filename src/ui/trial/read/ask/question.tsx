/** Asks about an unlikely reading. The same reading, entered again, is saved. */
export function Question({ text }: { text: string | null }) {
  if (!text) return null;
  return (
    <p role="alert" className="text-ochre">
      {text} If it is right, take it once more.
    </p>
  );
}
