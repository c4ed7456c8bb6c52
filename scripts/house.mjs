/** The picture of the house: its floors from the top, and at the right one arrow for every floor that imports from another. */

/** From the top down; what each is for. A folder of src that is not here is a fault. */
const FLOORS = {
  testing: "made-up procedures, sample machines, whole trials for accuracy: for tests and benchmarks alone",
  app: "the routes: thin",
  cli: "the same core from a terminal",
  ui: "screens, by what they show",
  workers: "what browsers do in the background",
  server: "what the pages may ask for",
  burning: "a job burned on a practice machine, and what is read of it",
  data: "tables, migrations, queries, backups",
  practice: "simulated machines: hidden truth and a file in, marks out",
  artwork: "drawings of others, adapted to a kerf",
  formats: "open formats, written and read",
  core: "the methods: pure, without interface, database, files or clock",
};

const [WIDTH, FLOOR, GAP, LEFT, TOP, TEXT_WIDTH, STEP] = [1040, 62, 12, 16, 16, 640, 15];

/**
 * @param modules of dependency-cruiser, tests left out
 * @returns the picture as SVG, and folders that have no floor or import upwards
 */
export function houseOf(modules) {
  const names = Object.keys(FLOORS);
  const inSrc = modules.filter(({ source }) => /^src\/[^/]+\//.test(source) && !/\.test\.tsx?$/.test(source));
  const arrows = new Set();
  const rooms = new Map(names.map((name) => [name, new Set()]));
  const faults = [];
  for (const { source, dependencies } of inSrc) {
    const [, floor, room] = /^src\/([^/]+)\/(?:([^/]+)\/)?/.exec(source);
    if (!rooms.has(floor)) faults.push(`src/${floor} has no floor in scripts/house.mjs`);
    else if (room && !room.includes("[")) rooms.get(floor).add(room);
    for (const { resolved } of dependencies) {
      const to = /^src\/([^/]+)\//.exec(resolved)?.[1];
      if (to && to !== floor && names.includes(floor) && names.includes(to)) arrows.add(`${floor} ${to}`);
    }
  }
  const pairs = [...arrows].map((arrow) => arrow.split(" ").map((name) => names.indexOf(name)));
  for (const [from, to] of pairs)
    if (from > to) faults.push(`${names[from]} imports ${names[to]}, which lies above it`);
  // Long ones at the right, so that short ones stay close to their floors.
  pairs.sort(([a, b], [c, d]) => b - a - (d - c) || a - c);
  return { svg: draw(names, rooms, pairs), faults };
}

function draw(names, rooms, pairs) {
  const y = (i) => TOP + i * (FLOOR + GAP);
  const height = y(names.length) - GAP + TOP;
  const floors = names.map((name, i) => {
    const list = [...rooms.get(name)].sort().join(" · ");
    return `<rect x="${LEFT}" y="${y(i)}" width="${TEXT_WIDTH}" height="${FLOOR}" rx="4" fill="#fffdf7" stroke="#c6bca6"/>
<text x="${LEFT + 14}" y="${y(i) + 24}" font-weight="700" font-size="16">${name}<tspan dx="10" font-weight="400" font-size="14" fill="#5b5445">${FLOORS[name]}</tspan></text>
<text x="${LEFT + 14}" y="${y(i) + 46}" font-size="13" fill="#5b5445">${list}</text>
<path d="M${LEFT + TEXT_WIDTH} ${y(i) + FLOOR / 2}H${WIDTH - LEFT}" stroke="#ddd5c3"/>`;
  });
  const arrows = pairs.map(([from, to], k) => {
    const x = LEFT + TEXT_WIDTH + 22 + k * STEP;
    const [a, b] = [y(from) + FLOOR / 2, y(to) + FLOOR / 2];
    return `<g stroke="#2b5a86" stroke-width="1.6" fill="#2b5a86"><title>${names[from]} imports ${names[to]}</title><circle cx="${x}" cy="${a}" r="3.2"/><path d="M${x} ${a}V${b - 7}"/><path d="M${x - 4} ${b - 8}h8l-4 8z" stroke="none"/></g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" font-family="sans-serif" fill="#25211a" role="img" aria-label="The folders of src from the top down, and which imports which">
<rect width="100%" height="100%" fill="#f4f0e6"/>
${floors.join("\n")}
${arrows.join("\n")}
</svg>
`;
}
