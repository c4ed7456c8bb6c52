/** Whether keys pressed there are typed there. */
export function takesText(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return target.type !== "radio" && target.type !== "checkbox";
  return target instanceof HTMLElement && target.closest("textarea, select, [contenteditable]") !== null;
}
