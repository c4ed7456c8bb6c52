import { Kbd } from "../primitives/kbd";

const KEYS: [string, string][] = [
  ["Alt 1, Alt 2", "first, second phrase"],
  ["Alt P, Alt N", "previous, next"],
  ["Alt R", "same place again"],
  ["Alt Z", "take back"],
];

/** The keys of the Read stage that stand on no button. */
export function ReadKeys({ practice }: { practice: boolean }) {
  const keys = practice ? [...KEYS, ["Alt M", "set the jaws"] as [string, string]] : KEYS;
  return (
    <p className="flex flex-wrap gap-x-4 gap-y-1 text-[16px] text-ink2 max-lg:hidden">
      {keys.map(([key, what]) => (
        <span key={key}>
          <Kbd>{key}</Kbd> {what}
        </span>
      ))}
    </p>
  );
}
