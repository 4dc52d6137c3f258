// The rooms and what they may import (docs/architecture.md). Dependencies point one way.
const rooms = 'core|contracts|domain|rig|worker|press|reader|server|cli|web';
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
    mayImport('domain', ['core', 'contracts']),
    mayImport('rig', ['core', 'contracts']),
    mayImport('worker', ['core', 'contracts', 'rig']),
    mayImport('press', ['core', 'contracts', 'domain']),
    mayImport('server', ['core', 'contracts', 'domain', 'rig', 'worker', 'press']),
    mayImport('cli', ['core', 'contracts', 'domain', 'worker', 'server']),
    {
      name: 'reader-imports',
      comment: 'The script of published pages plays by the page’s own player, and knows nothing else of it.',
      severity: 'error',
      from: { path: '^src/reader/', pathNot: '\\.test\\.ts$' },
      to: { path: `^src/(${rooms})/`, pathNot: '^src/(reader|core|contracts)/|^src/web/app/audio/lane-player\\.ts$' },
    },
    mayImport('web', ['core', 'contracts', 'domain']),
    {
      name: 'core-stands-alone',
      comment: 'The core knows no platform: no node, no browser, no package.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { pathNot: '^src/core/' },
    },
    {
      name: 'domain-is-plain',
      comment: 'The domain knows no database, no HTTP and no files: its rules are tested in milliseconds.',
      severity: 'error',
      from: { path: '^src/domain/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^src/(domain|core|contracts)/' },
    },
    {
      name: 'platform-knows-no-subject',
      comment: 'What every subject stands on does not know them.',
      severity: 'error',
      from: { path: '^src/server/platform/', pathNot: '\\.test\\.ts$|/testing/' },
      to: {
        path: '^src/server/(runs|sessions|rigs|listening|scale|compare|catalogue|mending|photos|reviews|publish|routes|wiring)',
      },
    },
    {
      name: 'server-knows-no-demo',
      comment: 'The demo fills an archive through the server, never the reverse.',
      severity: 'error',
      from: { path: '^src/(core|contracts|domain|rig|press|server|cli|web)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^demo/' },
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
      from: { path: '^src/server/(routes|platform/archive)/' },
      to: { path: '^src/server/(platform/db|[a-z]+/queries)/' },
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
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.d.ts'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
};
