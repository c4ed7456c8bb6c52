import { cookies } from "next/headers";
import { type Preferences, preferencesFrom } from "../server/screens/preferences-view";

/** What the browser that asks prefers. */
export async function preferencesOfBrowser(): Promise<Preferences> {
  const kept = await cookies();
  return preferencesFrom((name) => kept.get(name)?.value);
}
