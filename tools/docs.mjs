// npm run docs: writes what is made from the contracts and the registry (docs/schema, docs/measurements.md).
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { licenceTable } from './licences.mjs';
import { ensurePackages, root } from './prepare.mjs';

ensurePackages();
const outfile = join(root, 'dist', 'docs.mjs');
await build({
  stdin: {
    contents:
      "export { JSON_SCHEMAS } from './src/contracts/schemas'; export { measurementsPage } from './src/contracts/measurements-page'; export { doorsPage } from './src/contracts/doors-page';",
    resolveDir: root,
    loader: 'ts',
  },
  absWorkingDir: root,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  outfile,
  logLevel: 'error',
});
const { JSON_SCHEMAS, measurementsPage, doorsPage } = await import(outfile);
mkdirSync(join(root, 'docs/schema'), { recursive: true });
for (const [name, schema] of Object.entries(JSON_SCHEMAS)) {
  writeFileSync(join(root, 'docs/schema', name), `${JSON.stringify(schema, null, 2)}\n`);
}
writeFileSync(join(root, 'docs/measurements.md'), measurementsPage());
writeFileSync(join(root, 'docs/doors.md'), doorsPage());
writeFileSync(join(root, 'docs/licences.md'), licenceTable());
