import type { ResultView } from "../../server/stock/stock-view";
import { PickField } from "../primitives/fields";

type Props = { results: readonly ResultView[]; chosen: ResultView | undefined; onChoose: (id: number) => void };

/** Only the results of cuts. A card has marking settings too. */
export function cutsOf(results: readonly ResultView[]): ResultView[] {
  return results.filter((r) => r.result.kind === "kerf");
}

/** Which of the kept results is meant; nothing where there is no choice. */
export function CutOnPick({ results, chosen, onChoose }: Props) {
  if (results.length < 2) return null;
  return (
    <PickField
      label="Cut on"
      value={String(chosen?.id ?? "")}
      onChange={(id) => onChoose(Number(id))}
      choices={results.map((r) => ({ value: String(r.id), label: cutOnText(r) }))}
    />
  );
}

/** `Bracken, batch spring, 10 mm/s` */
export function cutOnText({ machine, batch, result }: ResultView): string {
  const speed = result.conditions.find((c) => c.label === "Speed")?.text;
  return `${machine ?? "another machine"}, batch ${batch}${speed ? `, ${speed}` : ""}`;
}
