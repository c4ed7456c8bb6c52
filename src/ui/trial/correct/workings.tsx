import { Folded } from "../../primitives/folded";
/** Every number with the sum that made it, folded away until it is asked for. */
export function Workings({ of }: { of: readonly { key: string; label: string; arithmetic: readonly string[] }[] }) {
  return (
    <Folded title="How each number came about" className="mt-2">
      <ul className="num mt-1 grid gap-1 text-[14px]">
        {of.map(({ key, label, arithmetic }) => (
          <li key={key}>
            {label}: {arithmetic.join("; ")}
          </li>
        ))}
      </ul>
    </Folded>
  );
}
