"use client";
import { type Draft, differingFields } from "../../../core/trial/draft";
import type { FieldSpec } from "../../../core/trial/plan-form";
import { Button } from "../../primitives/button";
import { Notice } from "../../primitives/notice";
import type { KeptState } from "./use-kept-draft";

type Props = { mine: Draft; theirs: Draft; fields: readonly FieldSpec[]; onSettle: KeptState["settle"] };

/** Two windows laid out the same round: field by field what each has, and which is to stay. */
export function DraftConflict({ mine, theirs, fields, onSettle }: Props) {
  const differing = differingFields(mine, theirs);
  return (
    <section role="alert" aria-label="Changed in another window" className="mb-4 grid gap-2 border-b border-hair pb-4">
      <Notice tone="needs you" headline="This layout was changed in another window meanwhile.">
        Nothing is lost: choose which one stays.
      </Notice>
      <table className="text-[14px]">
        <thead>
          <tr className="text-left text-ink2">
            <th scope="col" className="font-normal">
              Field
            </th>
            <th scope="col" className="font-normal">
              here
            </th>
            <th scope="col" className="font-normal">
              there
            </th>
          </tr>
        </thead>
        <tbody>
          {differing.map((key) => (
            <tr key={key} className="border-t border-hair">
              <th scope="row" className="py-1 pr-3 text-left font-normal">
                {fields.find((f) => f.key === key)?.label ?? key}
              </th>
              <td className="num py-1 pr-3">{mine[key] || "empty"}</td>
              <td className="num py-1">{theirs[key] || "empty"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onSettle("mine")}>Keep what is here</Button>
        <Button onClick={() => onSettle("theirs")}>Take what is there</Button>
      </div>
    </section>
  );
}
