"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { noteChange, takeBackChange } from "../../server/actions/workshop-actions";
import type { ChangeView, MachineView } from "../../server/screens/machine-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Concern } from "../primitives/concern";
import { PickField, TextField } from "../primitives/fields";
import { MomentField, momentOf } from "../primitives/moment-field";
import { Faults } from "../primitives/notice";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";

const EFFECT_WORDS = { stale: "must be measured again", check: "is due for a check" } as const;
const EMPTY = { kind: "", note: "", at: "" };

/** What happened to the machine: what it makes of each procedure is said before it is noted. */
export function ChangesCard({ view, now }: { view: MachineView; now: number }) {
  const router = useRouter();
  const [texts, setTexts, forget] = useSurviving(`change ${view.slug}`, EMPTY);
  const { busy, fault, run } = useAction();
  const chosen = view.changes.find((c) => c.kind === texts.kind);
  const [newest] = view.events;
  const labelOf = (kind: string) => view.changes.find((c) => c.kind === kind)?.label ?? kind;
  const set = (key: keyof typeof EMPTY) => (value: string) => setTexts((t) => ({ ...t, [key]: value }));
  const save = () =>
    run(
      () => noteChange({ machine: view.slug, kind: texts.kind, note: texts.note, at: momentOf(texts.at) }),
      () => {
        toast(chosen ? `Noted: ${chosen.label}.` : "Noted.");
        forget();
        router.refresh();
      },
    );
  return (
    <Concern
      id="changes"
      name="Changes"
      keptAs={`changes ${view.slug}`}
      fact={
        newest ? (
          <>
            {labelOf(newest.kind)} · <Ago at={newest.at} now={now} />
          </>
        ) : (
          "none noted"
        )
      }
    >
      <form
        aria-label="Note a change"
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        <div className="grid gap-3 sm:grid-cols-[1fr_1fr]">
          <PickField
            label="What"
            value={texts.kind}
            onChange={set("kind")}
            choices={[{ value: "", label: "choose" }, ...view.changes.map((c) => ({ value: c.kind, label: c.label }))]}
          />
          <MomentField label="When" value={texts.at} onChange={set("at")} fault={faultAt(fault, "at")} />
        </div>
        <TextField label="Note" words value={texts.note} onChange={set("note")} fault={faultAt(fault, "note")} />
        {chosen && <Effects change={chosen} />}
        <Faults of={faultsElsewhere(fault, (field) => ["at", "note"].includes(field))} />
        <div>
          <Button type="submit" disabled={busy || texts.kind === ""}>
            Note it
          </Button>
        </div>
      </form>
      {view.events.length > 0 && (
        <ul className="mt-3">
          {view.events.map((e) => (
            <li key={e.id} className="flex items-start justify-between gap-3 border-t border-hair py-1.5">
              <span>
                <b className="font-semibold first-letter:uppercase">{labelOf(e.kind)}</b>
                {e.note && `: ${e.note}`} <span className="text-ink2">· </span>
                <Ago at={e.at} now={now} />
              </span>
              <Button
                weight="quiet"
                disabled={busy}
                onClick={() =>
                  run(
                    () => takeBackChange({ machine: view.slug, id: e.id }),
                    () => router.refresh(),
                  )
                }
              >
                Take back<span className="sr-only"> {e.kind}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Concern>
  );
}

function Effects({ change }: { change: ChangeView }) {
  if (change.effects.length === 0) return <p className="text-ink2">Nothing that is measured here depends on it.</p>;
  return (
    <ul className="text-ember">
      {change.effects.map((e) => (
        <li key={e.title}>
          After that the {e.title.toLowerCase()} {EFFECT_WORDS[e.effect]}.
        </li>
      ))}
    </ul>
  );
}
