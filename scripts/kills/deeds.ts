/** What is done to a bench while its server is killed: reads, takes back, records and swaps, as fast as it can. */
import type { Random } from "../../src/practice/random";
import type { Scene } from "./scene";

/** One way to do a deed; each is on disk when it returns. */
export type Doer = {
  takeReading: (clientKey: string, text: string) => Promise<number>;
  undoReading: (id: number) => Promise<void>;
  /** @returns ids of the entries */
  recordEntries: (holderId: number) => Promise<number[]>;
  takeBackEntry: (id: number) => Promise<void>;
  /** @returns when it was fitted, ms */
  fit: (partId: number) => Promise<number>;
};

/**
 * Goes on until it is killed, or until a deed is not answered any more.
 *
 * @param life a word that no other life has
 * @param say told each deed once it is on disk
 */
export async function doDeeds(
  doer: Doer,
  scene: Scene,
  chance: Random,
  life: string,
  say: (...words: (string | number)[]) => void,
): Promise<never> {
  const of = <T>(list: readonly T[]): T => list[Math.floor(chance.between(0, list.length))] as T;
  let taken: { id: number; key: string } | null = null;
  let count = 0;
  let fitted = scene.fitted;
  const deeds = [
    async () => {
      const key = `killed-${life}-${count++}`;
      taken = { id: await doer.takeReading(key, chance.between(0.1, 0.9).toFixed(3)), key };
      say("reading", key);
    },
    async () => {
      if (!taken) return;
      const { id, key } = taken;
      taken = null;
      await doer.undoReading(id);
      say("undone", key);
    },
    async () => {
      const ids = await doer.recordEntries(of(scene.holders));
      for (const id of ids) say("entry", id);
      const [id] = ids;
      if (id !== undefined && chance.between(0, 1) < 0.3) {
        await doer.takeBackEntry(id);
        say("takenBack", id);
      }
    },
    async () => {
      const next = of(scene.optics.filter((id) => id !== fitted));
      const at = await doer.fit(next);
      fitted = next;
      say("fitted", next, at);
    },
  ];
  for (;;) await of(deeds)();
}
