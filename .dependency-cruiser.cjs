/** Arrows go down only; see docs/architecture.md. */
const deny = (name, from, to) => ({ name, severity: "error", from: { path: from, pathNot: "\\.test\\.tsx?$|/testing/" }, to: { path: to } });

/** Folders of the core from the ground up: each knows those before it only. */
const FLOORS = [
  "budget",
  "numbers",
  "schema",
  "formulas",
  "pictures",
  "clauses",
  "notation",
  "checklist",
  "kinds",
  "catalogue",
  "cards",
  "editing",
  "process",
  "network",
  "analysis",
  "chains",
  "trials",
  "checks",
  "history",
  "exchange",
  "engine",
];
const inside = (name) => `^src/core/${name}/`;
const floors = FLOORS.map((name, k) => ({
  name: `core-${name}-knows-what-is-below`,
  severity: "error",
  from: { path: inside(name), pathNot: "\\.test\\.tsx?$" },
  to: { path: "^src/core/", pathNot: `^src/core/(${FLOORS.slice(0, k + 1).join("|")})/` },
}));

module.exports = {
  forbidden: [
    ...floors,
    { name: "no-circles", severity: "error", from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } } },
    deny("core-knows-nobody", "^src/core", "^src/(store|server|app|ui|cli|demo)"),
    deny("core-runs-anywhere", "^src/core", "^(node:|fs$|path$|crypto$)|node_modules/(react|next|pg|@mikro-orm)"),
    deny("store-knows-core-only", "^src/store", "^src/(server|app|ui|cli|demo)"),
    {
      name: "engines-speak-to-no-database",
      severity: "error",
      from: { path: "^src/(server/(engine-main|questions|analysis)|store/(texts|tables|prepare|copy))\\.ts$" },
      to: { path: "^src/store/(load|commit|entities|orm|pictures|sql|bound)", dependencyTypesNot: ["type-only"] },
    },
    deny("cli-knows-core-store-and-use-cases", "^src/cli", "^src/(server/(?!use-cases/)|app|ui)"),
    deny("use-cases-know-no-caller", "^src/server/use-cases", "^src/server/(?!use-cases/)"),
    deny("server-knows-store-and-core", "^src/server", "^src/(app|ui|cli|demo)"),
    deny("ui-knows-core-only", "^src/ui", "^src/(store|server|app|cli|demo)"),
    deny("app-knows-server-and-ui", "^src/app", "^src/(core|store|cli|demo)"),
    deny("demo-knows-core-only", "^src/demo", "^src/(store|server|app|ui|cli)"),
    { name: "tests-stay-out", severity: "error", from: { path: "^src", pathNot: "\\.test\\.tsx?$|/testing/" }, to: { path: "/testing/" } },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: "tsconfig.json" }, doNotFollow: { path: "node_modules" }, enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "require", "node", "default", "types"] } },
};
