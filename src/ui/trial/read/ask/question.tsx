/** A kind doubt: asked once, and the same once more takes the reading as it is. */
export function Question({ text }: { text: string | null }) {
  if (!text) return null;
  return (
    <p role="alert" className="text-ochre">
      {text} If it is right, take it once more.
    </p>
  );
}
