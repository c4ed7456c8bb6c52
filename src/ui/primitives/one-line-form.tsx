"use client";
import { Button } from "./button";
import { TextField } from "./fields";
import { useAction } from "./use-action";
import { useSurviving } from "./use-surviving";

type Props<T> = {
  /** Names the form to a person who hears the page. */
  name: string;
  label: string;
  button: string;
  /** Names what is typed in this tab, over a reload. */
  keptAs: string;
  send: (text: string) => Promise<{ ok: true; value: T } | { ok: false; field: string; message: string }>;
  onSent: () => void;
};

/** One field and the button that sends it. */
export function OneLineForm<T>({ name, label, button, keptAs, send, onSent }: Props<T>) {
  const [text, setText, forget] = useSurviving(keptAs, "");
  const { busy, fault, run } = useAction();
  return (
    <form
      aria-label={name}
      className="flex items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () => send(text),
          () => {
            forget();
            onSent();
          },
        );
      }}
    >
      <div className="min-w-0 flex-1">
        <TextField label={label} words value={text} onChange={setText} fault={fault.message} />
      </div>
      <Button type="submit" disabled={busy}>
        {button}
      </Button>
    </form>
  );
}
