"use client";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

export type MenuItem = { label: string; onSelect: () => void };

type Props = {
  /** The button, which is there before the menu is loaded. */
  button: ReactNode;
  items: readonly MenuItem[];
};

/** Opens at once: it is loaded when its button is pressed. */
export function Menu({ button, items }: Props) {
  return (
    <DropdownMenu.Root defaultOpen modal={false}>
      <DropdownMenu.Trigger asChild>{button}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} collisionPadding={8} className="list-sheet z-20 min-w-48 p-1">
          {items.map((item) => (
            <DropdownMenu.Item key={item.label} onSelect={item.onSelect} className="list-line">
              {item.label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
