import { toast } from "sonner";

/** Into the clipboard, with a minus that every program takes; told where this browser does not allow it. @param what is copied, in words */
export async function copyText(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text.replaceAll("−", "-"));
    toast(`${what}: copied`);
  } catch {
    toast(`${what}: this browser does not let pages copy. ${text}`);
  }
}
