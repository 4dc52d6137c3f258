// The rooms and what they may import (docs/architecture.md). Dependencies point one way.
const rooms = 'core|contracts|rig|worker|server|cli|web';
/** A room may import itself and the rooms listed, nothing else of src. */
const mayImport = (room, allowed) => ({
  name: `${room}-imports`,
  comment: `src/${room} may import: ${[room, ...allowed].join(', ')}`,
  severity: 'error',
  from: { path: `^src/${room}/`, pathNot: '\\.test\\.ts$|/testing/' },
  to: { path: `^src/(${rooms})/`, pathNot: `^src/(${[room, ...allowed].join('|')})/` },
});

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    mayImport('core', []),
    mayImport('contracts', ['core']),
    mayImport('rig', ['core', 'contracts']),
    mayImport('worker', ['core', 'contracts', 'rig']),
    mayImport('server', ['core', 'contracts', 'rig', 'worker']),
    mayImport('cli', ['core', 'contracts', 'worker', 'server']),
    mayImport('web', ['core', 'contracts']),
    {
      name: 'core-stands-alone',
      comment: 'The core knows no platform: no node, no browser, no package.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { pathNot: '^src/core/' },
    },
    {
      name: 'units-import-nothing',
      severity: 'error',
      from: { path: '^src/core/units\\.ts$' },
      to: { path: '.' },
    },
    {
      name: 'sql-only-in-queries',
      comment: 'Services reach the database through db/queries; only wiring opens it.',
      severity: 'error',
      from: { path: '^src/server/(routes|archive)/' },
      to: { path: '^src/server/db/' },
    },
    {
      name: 'workers-know-no-database',
      severity: 'error',
      from: { path: '^src/worker/' },
      to: { path: 'pglite|express' },
    },
    {
      name: 'ui-asks-nobody',
      comment: 'Shared parts do not import screens.',
      severity: 'error',
      from: { path: '^src/web/app/(ui|data)/' },
      to: { path: '^src/web/app/features/' },
    },
    {
      name: 'tests-stay-out',
      severity: 'error',
      from: { pathNot: '\\.test\\.ts$|/testing/|^e2e/' },
      to: { path: '\\.test\\.ts$|/testing/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.js', '.mjs', '.d.ts'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
};
