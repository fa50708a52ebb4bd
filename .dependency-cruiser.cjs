/** The layers of the house and the order of its rooms: see docs/decisions/0001-layers.md. */
const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: 'error',
  from: { path: from },
  to: { path: '^(src|demo)/', pathNot: allowed },
});

/** Rooms of `core` from the ground up: a room may know those before it, never one behind it. */
const ROOMS = [
  'words',
  'colour',
  'canvas',
  'cells',
  'codes',
  'chance',
  'ledger',
  'print',
  'view',
  'symbols',
  'checkin',
  'corrections',
  'inspection',
  'packing',
  'stash',
  'requests',
  'storage',
  'kitup',
  'labels',
  'chart',
  'reading',
  'stitches',
  'pace',
  'placing',
  'sections',
  'bench',
  'progress',
  'finish',
  'shelf',
  'archive',
  'backups',
  'devices',
];
const upwards = ROOMS.slice(0, -1).map((room, i) => ({
  name: `no-arrow-up-from-${room}`,
  severity: 'error',
  from: { path: `^src/core/${room}/` },
  to: { path: `^src/core/(${ROOMS.slice(i + 1).join('|')})/` },
}));
/** What every station and the shared components may know of `core`. */
const SHARED = 'words|colour|canvas|cells|codes|view|symbols';
const CONTRACT = '^src/server/[a-z]+/contract\\.ts$';

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    only('core-stands-alone', '^src/core/', '^src/core/', 'core imports only core'),
    ...upwards,
    {
      name: 'core-has-these-rooms',
      comment: 'a new room gets its place in the order above',
      severity: 'error',
      from: {},
      to: { path: '^src/core/', pathNot: `^src/core/(${ROOMS.join('|')}|refusal\\.ts)(/|$)` },
    },
    {
      name: 'core-libraries',
      comment:
        'core may use maths, colour and codec libraries, nothing that knows a screen, a disk or a database',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        path: 'node_modules|^(node:)?[a-z_]+$',
        pathNot:
          'node_modules/(@types/)?(culori|papaparse|qrcode|fft.js|ml-matrix|d3-contour|d3-array|geojson)/|^src/',
      },
    },
    only('data-knows-core', '^src/data/', '^src/(core|data)/', 'data imports core and itself'),
    only('server-below-pages', '^src/server/', '^src/(core|data|server)/', 'server never imports screens'),
    only(
      'islands-never-touch-data',
      '^src/islands/',
      `^src/(core|islands|ui|workers)/|^src/service/kept\\.ts$|${CONTRACT}`,
      'islands speak to the server over HTTP only',
    ),
    only('ui-knows-no-station', '^src/ui/', `^src/ui/|^src/core/(${SHARED})/`, 'ui knows no station'),
    only(
      'service-worker-alone',
      '^src/service/',
      '^src/service/',
      'the service worker knows pages by their addresses',
    ),
    only('workers-call-core', '^src/workers/', '^src/(core|workers)/', 'a worker is a thin entry to core'),
    only(
      'contract-is-plain',
      CONTRACT,
      `^src/core/|${CONTRACT}|^src/server/http/schema\\.ts$`,
      'forms import the same schemas',
    ),
    {
      name: 'read-when-needed',
      comment:
        'who keeps to this machine and its directory does not wait for what they do not use at each start',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/data/engine/template\\.ts$' },
      to: {
        path: '^src/(server/devices/authority|data/engine/(postgres|dump))\\.ts$',
        dependencyTypesNot: ['dynamic-import', 'type-only'],
      },
    },
    {
      name: 'product-without-demo',
      severity: 'error',
      from: { path: '^src/' },
      to: { path: '^(demo|tests|bench)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.mjs', '.astro', '.css'] },
  },
};
