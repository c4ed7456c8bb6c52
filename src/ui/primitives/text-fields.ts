import { type ActionFault, faultAt } from "./use-action";

/** What ties a field to its text and to the fault that is told at it. */
export function textFields<T extends Record<string, string>>(
  texts: T,
  change: (change: (texts: T) => T) => void,
  fault: ActionFault,
): (key: keyof T & string) => { value: string; onChange: (value: string) => void; fault: string } {
  return (key) => ({
    value: texts[key] ?? "",
    onChange: (value) => change((all) => ({ ...all, [key]: value })),
    fault: faultAt(fault, key),
  });
}
