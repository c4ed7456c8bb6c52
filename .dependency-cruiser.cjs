/** Who may import whom. Tests may import what they test with. */
const isTest = "\\.test\\.tsx?$";
const only = (from, allowed) => ({
  name: `${from}-imports`,
  comment: `src/${from} may import only: ${["itself", ...allowed].join(", ")}`,
  severity: "error",
  from: { path: `^src/${from}/`, pathNot: isTest },
  to: { path: "^src/", pathNot: [`^src/${from}/`, ...allowed.map((a) => `^src/${a}`)] },
});

module.exports = {
  forbidden: [
    { name: "no-cycles", severity: "error", from: {}, to: { circular: true } },
    only("core", []),
    only("formats", ["core/"]),
    only("artwork", ["core/", "formats/"]),
    only("practice", ["core/(coupon|geometry|metrology)/", "formats/"]),
    only("burning", ["core/", "formats/", "practice/"]),
    only("cli", [
      "core/",
      "formats/",
      "artwork/",
      "practice/",
      "burning/",
      "data/(backup|backup-files|database|server-database|trouble)\\.ts$",
    ]),
    only("data", ["core/"]),
    only("server", ["data/", "core/", "formats/", "practice/", "burning/"]),
    only("workers", ["core/", "artwork/"]),
    only("ui", [
      "core/",
      "workers/",
      "formats/",
      "artwork/",
      "server/actions/.*-actions\\.ts$",
      "server/screens/",
      "server/.*-view\\.ts$",
      "server/procedures/procedure-state\\.ts$",
    ]),
    only("app", ["ui/", "server/", "data/server-database\\.ts$"]),
    {
      name: "testing-is-for-tests",
      comment: "what helps tests and benchmarks is in no part of the product",
      severity: "error",
      from: { path: "^src/", pathNot: [isTest, "^src/testing/"] },
      to: { path: "^src/testing/" },
    },
    {
      name: "core-stands-alone",
      comment: "core is pure: no node modules of the platform, no interface, no database",
      severity: "error",
      from: { path: "^src/core/", pathNot: isTest },
      to: { dependencyTypes: ["core", "npm"], pathNot: "node_modules/zod/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    exclude: { path: "^(\\.next|node_modules)" },
  },
};
