// npm start and npm run demo: install what is missing, build what is stale, then become the server.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureNodeBuild, ensurePackages, ensureWebBuild, root } from './prepare.mjs';

ensurePackages();
await ensureNodeBuild();
await ensureWebBuild();

const server = spawn(process.execPath, [join(root, 'dist/node/main.js'), ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 1)));
