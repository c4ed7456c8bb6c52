"use client";
import clsx from "clsx";
import type { KeyboardEvent } from "react";
import { CLOSED_PICK, ClosedText, type PickProps } from "./closed-pick";
import { useOnDemand } from "./use-on-demand";

const loadList = async () => (await import("./pick-list")).PickList;
const OPENS: readonly string[] = ["ArrowDown", "ArrowUp"];

/** One of some words, from a list that opens. */
export function PickBox<V extends string>(props: PickProps<V>) {
  const list = useOnDemand(loadList);
  if (list.part) return <list.part {...props} />;
  const { id, value, choices, disabled, label, describedBy, isWrong = false, className } = props;
  const onKeyDown = (e: KeyboardEvent) => {
    if (!OPENS.includes(e.key)) return;
    e.preventDefault();
    list.ask();
  };
  return (
    <button
      type="button"
      id={id}
      role="combobox"
      aria-expanded={false}
      aria-haspopup="listbox"
      aria-label={label}
      aria-describedby={describedBy}
      aria-invalid={isWrong}
      disabled={disabled}
      className={clsx(CLOSED_PICK, className)}
      onPointerEnter={list.prepare}
      onFocus={list.prepare}
      onClick={list.ask}
      onKeyDown={onKeyDown}
    >
      <ClosedText>{choices.find((c) => c.value === value)?.label ?? ""}</ClosedText>
    </button>
  );
}
