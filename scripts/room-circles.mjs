/** Rooms that lead back into themselves: a folder of src that imports another, from which a way leads back. */
import path from "node:path";

/** A procedure is one room, however many folders it has. */
const PROCEDURE = /^src\/core\/procedures\/[^/]+(?=\/)/;

/**
 * @param modules of dependency-cruiser
 * @returns one line for each circle, with an import on each step of it
 */
export function roomCircles(modules) {
  const counts = (file) => file.startsWith("src/") && !file.startsWith("src/testing/") && !/\.test\.tsx?$/.test(file);
  const roomOf = (file) => PROCEDURE.exec(file)?.[0] ?? path.dirname(file);
  const ways = new Map();
  for (const { source, dependencies } of modules.filter((m) => counts(m.source)))
    for (const { resolved } of dependencies.filter((d) => counts(d.resolved))) {
      const [from, to] = [roomOf(source), roomOf(resolved)];
      if (from === to) continue;
      if (!ways.has(from)) ways.set(from, new Map());
      if (!ways.get(from).has(to)) ways.get(from).set(to, `${source} -> ${resolved}`);
    }
  return [...ways.keys()].flatMap((room) => {
    const circle = wayBack(ways, room);
    // Each is told once, from its first room.
    return circle && circle[0] === [...circle].sort()[0] ? [circleText(ways, circle)] : [];
  });
}

/** The shortest way from a room back to it, as rooms; null where there is none. */
function wayBack(ways, room) {
  const from = new Map([...(ways.get(room)?.keys() ?? [])].map((next) => [next, room]));
  const queue = [...from.keys()];
  for (const here of queue) {
    if (here === room) break;
    for (const next of ways.get(here)?.keys() ?? []) {
      if (from.has(next)) continue;
      from.set(next, here);
      queue.push(next);
    }
  }
  if (!from.has(room)) return null;
  const circle = [room];
  for (let here = from.get(room); here !== room; here = from.get(here)) circle.splice(1, 0, here);
  return circle;
}

function circleText(ways, circle) {
  const steps = circle.map((room, i) => ways.get(room).get(circle[(i + 1) % circle.length]));
  return `rooms in a circle: ${steps.join(", ")}`;
}
