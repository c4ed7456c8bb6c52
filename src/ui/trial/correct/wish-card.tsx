"use client";
import { Download } from "lucide-react";
import { useState } from "react";
import { yesOrNo } from "../../../core/trial/decision";
import type { Wish } from "../../../core/trial/outcome";
import { DetailCard } from "../../drawing/detail-view";
import { Button, buttonClass } from "../../primitives/button";
import { CheckBox } from "../../primitives/check-box";
import { PickField, TextField } from "../../primitives/fields";
import { Fault } from "../../primitives/notice";
import { useDecisions } from "../shared/use-decisions";

type Props = { trialId: number; n: number; wish: Wish };

/** Numbers that are typed, and what follows from them. */
export function WishCard({ trialId, n, wish }: Props) {
  const [texts, setTexts] = useState(wish.fields.map((f) => f.text));
  const { busy, fault, keep } = useDecisions(trialId);
  const isAsIs = wish.fields.every((f, i) => f.text === texts[i]);
  return (
    <form
      className="card grid gap-2 p-5"
      aria-label={wish.title}
      onSubmit={(e) => {
        e.preventDefault();
        keep(wish.fields.map((f, i) => ({ key: f.decision, value: texts[i] ?? "" })));
      }}
    >
      <h2 className="text-[17px] font-bold">{wish.title}</h2>
      {wish.choices && <p className="-mt-1 text-[14px] text-ink2">{wish.why}</p>}
      {wish.choices?.map((c) => (
        <PickField
          key={c.decision}
          label={c.label}
          value={c.chosen}
          choices={c.options}
          onChange={(value) => keep([{ key: c.decision, value }])}
        />
      ))}
      {wish.drawing && (
        <div className="w-full max-w-[340px]">
          <DetailCard detail={wish.drawing} height={230} />
        </div>
      )}
      <div className="flex flex-wrap items-end gap-3">
        {wish.fields.map((f, i) => (
          <div key={f.decision} className="max-w-48">
            <TextField
              label={f.label}
              value={texts[i] ?? ""}
              onChange={(text) => setTexts((all) => all.map((old, k) => (k === i ? text : old)))}
            />
          </div>
        ))}
        {wish.fields.length > 0 && (
          <Button type="submit" disabled={busy || isAsIs}>
            Work it out
          </Button>
        )}
      </div>
      {wish.checks.map((c) => (
        <CheckBox
          key={c.decision}
          label={c.label}
          checked={c.on}
          disabled={busy}
          onChange={(on) => keep([yesOrNo(c.decision).as(on)])}
        />
      ))}
      {!wish.choices && wish.lines.length === 0 && !wish.fault && <p className="text-[14px] text-ink2">{wish.why}</p>}
      {wish.fault && <Fault>{wish.fault}</Fault>}
      {fault.message && <Fault>{fault.message}</Fault>}
      <ul className="num text-[14px]" aria-live="polite">
        {wish.lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {wish.files.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {wish.files.map((f) => (
            <a
              key={f.file}
              className={buttonClass("small")}
              href={`/api/trials/${trialId}/rounds/${n}/${f.file}?of=${f.of}`}
              download
            >
              <Download size={16} aria-hidden="true" /> {f.label}
            </a>
          ))}
        </div>
      )}
    </form>
  );
}
