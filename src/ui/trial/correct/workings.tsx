/** Every number with the sum that made it, folded away until it is asked for. */
export function Workings({ of }: { of: readonly { key: string; label: string; arithmetic: readonly string[] }[] }) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer text-[14px] text-ink2">How each number came about</summary>
      <ul className="num mt-1 grid gap-1 text-[14px]">
        {of.map(({ key, label, arithmetic }) => (
          <li key={key}>
            {label}: {arithmetic.join("; ")}
          </li>
        ))}
      </ul>
    </details>
  );
}
