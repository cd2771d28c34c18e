/** The layer rule: imports run downward only, the core knows nothing of the rooms around it, and nothing runs in a circle. */
const rooms = '^src/(app|cli|workers|workbench|server|snmp|contract)/';
const lower = (order, i) => order.slice(0, i).map((name) => `^src/core/${name}/`);
const coreOrder = [
  'testing',
  'exchange',
  'analysis',
  'sim',
  'tree',
  'topology',
  'modes',
  'wire',
  'cabling',
  'edit',
  'model',
  'base',
];

/** What is not of this repository. */
const library = { dependencyTypes: ['npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown', 'core'] };
/** Files of the core that have a library of their own, and no other. */
const withLibraries = [
  ['^src/core/exchange/csv\\.ts$', '(@types/)?papaparse'],
  ['^src/core/exchange/templates/liquid\\.ts$', 'liquidjs'],
  ['^src/core/exchange/tables/spreadsheet\\.ts$', '(read|write)-excel-file'],
  ['^src/core/wire/mstConfiguration\\.ts$', '@noble/hashes'],
];

// Inside the workbench: shell and inspector are made of the lenses' manifests, and no lens knows another.
const roomOrder = ['shell', 'inspector', 'lenses', 'map', 'state', 'ui'];
const above = (i) => roomOrder.slice(0, i).map((name) => `^src/workbench/${name}/`);

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: rooms },
    },
    {
      name: 'core-imports-zod-immer-and-equality-only',
      severity: 'error',
      from: {
        path: '^src/core/',
        pathNot: ['\\.test\\.ts$', '^src/core/testing/', ...withLibraries.map(([file]) => file)],
      },
      to: { ...library, pathNot: '^node_modules/(zod|immer|fast-deep-equal)/' },
    },
    ...withLibraries.map(([file, own]) => ({
      name: `core-${own.replaceAll(/\W+/g, '-')}-alone`,
      severity: 'error',
      from: { path: file },
      to: { ...library, pathNot: `^node_modules/${own}/` },
    })),
    ...coreOrder
      .map((name, i) => ({
        name: `core-downward-${name}`,
        severity: 'error',
        from: { path: `^src/core/${name}/`, pathNot: '\\.test\\.ts$' },
        to: { path: lower(coreOrder, i) },
      }))
      .filter((rule) => rule.to.path.length > 0),
    ...roomOrder
      .map((name, i) => ({
        name: `workbench-downward-${name}`,
        severity: 'error',
        from: { path: `^src/workbench/${name}/`, pathNot: '\\.test\\.tsx?$' },
        to: { path: above(i) },
      }))
      .filter((rule) => rule.to.path.length > 0),
    {
      name: 'no-lens-knows-another',
      severity: 'error',
      from: { path: '^src/workbench/lenses/(?!shared/)([^/]+)/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/workbench/lenses/[^/]+/', pathNot: '^src/workbench/lenses/($1|shared)/' },
    },
    {
      name: 'shell-and-inspector-know-manifests-only',
      severity: 'error',
      from: { path: '^src/workbench/(shell|inspector)/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/workbench/lenses/', pathNot: '^src/workbench/lenses/(lenses|manifest)\\.ts$' },
    },
    {
      name: 'what-lenses-share-knows-none',
      severity: 'error',
      from: { path: '^src/workbench/lenses/shared/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/workbench/lenses/(?!shared/)[^/]+/' },
    },
    {
      name: 'contract-on-core',
      severity: 'error',
      from: { path: '^src/contract/' },
      to: { path: '^src/(app|cli|workers|workbench|server|snmp)/' },
    },
    {
      name: 'network-on-core',
      severity: 'error',
      from: { path: '^src/snmp/' },
      to: { path: '^src/(app|cli|workers|workbench|server|contract)/' },
    },
    {
      name: 'workers-on-core',
      severity: 'error',
      from: { path: '^src/workers/' },
      to: { path: '^src/(app|cli|workbench|server|snmp|contract)/' },
    },
    {
      name: 'server-not-interface',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(app|cli|workers|workbench)/' },
    },
    {
      name: 'interface-not-server',
      severity: 'error',
      from: { path: '^src/workbench/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/(app|cli|server|snmp)/' },
    },
    {
      name: 'command-line-on-core',
      severity: 'error',
      // Pictures are drawn by what draws the map.
      from: { path: '^src/cli/' },
      to: { path: '^src/(app|workers|workbench/(?!map/picture/)|contract|server/(?!db/))' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
  },
};
