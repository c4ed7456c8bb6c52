/** A life of the built server, asked for its deeds as pages ask. */
import { openDatabase } from "../../src/data/database";
import { seeded } from "../../src/practice/random";
import { act, type BenchServer, startServer } from "../bench/server";
import { type Doer, doDeeds } from "./deeds";
import type { Life } from "./rehearsal";
import { KILLED_MACHINE, type Scene, sceneOf, sent } from "./scene";

/** Needs a build. */
export function servedLife(port: number): Life {
  return async ({ file, trials, seed, afterMs }) => {
    const db = openDatabase(file);
    const scene = sceneOf(db, trials);
    db.$client.close();
    const server = await startServer(file, port);
    const said: string[][] = [];
    let isKilled = false;
    const say = (...words: (string | number)[]) => {
      if (said.length === 0)
        setTimeout(() => {
          isKilled = true;
          server.stop("SIGKILL");
        }, afterMs);
      said.push(words.map(String));
    };
    try {
      await doDeeds(doerAt(server, scene), scene, seeded(seed), `${port}-${seed}`, say);
    } catch (fault) {
      // What was under way when it was killed is not answered; anything else is a fault.
      if (!isKilled) throw fault;
    } finally {
      server.stop("SIGKILL");
      await server.ended;
    }
    return said;
  };
}

function doerAt(server: BenchServer, scene: Scene): Doer {
  const page = `/trial/${scene.trials.read}/read`;
  const correct = `/trial/${scene.trials.recorded}/correct`;
  const machine = `/machine/${KILLED_MACHINE}`;
  return {
    takeReading: async (key, text) => {
      const { id } = (await act(server, page, "takeReading", sent.reading(scene, key, text))) as { id: number };
      return id;
    },
    undoReading: async (readingId) => {
      await act(server, page, "undoReading", { trialId: scene.trials.read, n: 1, readingId });
    },
    recordEntries: async (holderId) =>
      (await act(server, correct, "recordEntries", sent.entry(scene, holderId))) as number[],
    takeBackEntry: async (entryId) => {
      await act(server, "/ledger", "takeBackEntry", { machine: KILLED_MACHINE, entryId });
    },
    fit: async (partId) => {
      const now = Date.now();
      await act(server, machine, "swapPart", sent.fitting(partId, now));
      return now;
    },
  };
}
