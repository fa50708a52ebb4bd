/** The layers of the house: see docs/decisions/0001-layers.md. */
const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: 'error',
  from: { path: from },
  to: { path: '^(src|demo)/', pathNot: allowed },
});

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    only('core-stands-alone', '^src/core/', '^src/core/', 'core imports only core'),
    {
      name: 'core-libraries',
      comment:
        'core may use maths, colour and codec libraries, nothing that knows a screen, a disk or a database',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        path: 'node_modules|^(node:)?[a-z_]+$',
        pathNot:
          'node_modules/(@types/)?(culori|papaparse|jstat|unhomoglyph|qrcode|d3-contour|d3-array|geojson)/|^src/',
      },
    },
    only('data-knows-core', '^src/data/', '^src/(core|data)/', 'data imports core and itself'),
    only('server-below-pages', '^src/server/', '^src/(core|data|server)/', 'server never imports screens'),
    only(
      'islands-never-touch-data',
      '^src/islands/',
      '^src/(core|islands|ui|workers|server/contract)/',
      'islands speak to the server over HTTP only',
    ),
    only('ui-is-shared', '^src/ui/', '^src/(core|ui|server/contract)/', 'ui knows no station'),
    only('workers-call-core', '^src/workers/', '^src/(core|workers)/', 'a worker is a thin entry to core'),
    only(
      'contract-is-plain',
      '^src/server/contract/',
      '^src/(core|server/contract)/',
      'forms import the same schemas',
    ),
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
