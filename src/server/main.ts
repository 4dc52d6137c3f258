import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { markDataFolder } from './platform/archive/data-folder';
import { FolderInUse, lockDataFolder, type FolderLock } from './platform/archive/data-folder-lock';
import { logLines } from './platform/log-lines';
import { demoBundle, packageRoot, speechFolder, webFolder } from './platform/package-root';
import { isLocalHost } from './routes/caller';
import { httpServer, listeningServer } from './routes/server';
import { tokenProblem } from './platform/secret';
import { newKey } from './platform/listening-key';
import { folderProblem, StartRefused } from './platform/start-refused';
import { openApplication, type Application } from './wiring';

/** Settings from the environment and the command line. */
const isDemo = process.argv.includes('--demo');
const port = Number(process.env['SEDIMENT_PORT'] ?? 4870);
const host = process.env['SEDIMENT_HOST'] ?? '127.0.0.1';
const usualDemo = join(packageRoot, 'data', 'demo');
const folder = resolve(process.env['SEDIMENT_DATA'] ?? (isDemo ? usualDemo : join(packageRoot, 'data', 'own')));

function stop(message: string): never {
  console.error(message);
  process.exit(1);
}

/** Ends with words where the folder cannot be used; anything else is not foreseen. */
function cannotStart(error: unknown): never {
  if (error instanceof FolderInUse) {
    const where = error.holder?.port ? ` It answers at http://127.0.0.1:${error.holder.port}.` : '';
    return stop(`${error.message}${where} Stop that one first, or set SEDIMENT_DATA to another folder.`);
  }
  const refused = error instanceof StartRefused ? error : folderProblem(error, folder);
  return stop(refused?.message ?? `Sediment could not start.\n${logLines(error)}`);
}

if (!Number.isInteger(port) || port < 1 || port > 65_535)
  stop(`SEDIMENT_PORT is "${process.env['SEDIMENT_PORT']}"; it must be a port number from 1 to 65535.`);

/** Other devices need it for everything but the pages of listeners. */
const givenToken = process.env['SEDIMENT_TOKEN'];
const weakness = givenToken === undefined ? null : tokenProblem(givenToken);
if (weakness) stop(`SEDIMENT_TOKEN cannot be used: ${weakness}. Leave it out, and a good one is made at each start.`);

async function open(): Promise<{ lock: FolderLock; application: Application }> {
  const lock = await lockDataFolder(folder);
  process.on('exit', () => lock.release());
  const kind = markDataFolder(folder, isDemo ? 'demo' : 'own', folder === usualDemo);
  console.log(`Opening ${folder} …`);
  const newDatabase = process.argv.includes('--new-database');
  return { lock, application: await openApplication({ folder, demo: kind === 'demo', newDatabase }) };
}

const { lock, application } = await open().catch(cannotStart);
const { setAside } = await application.integrity.state();
if (setAside.length > 0) {
  console.error(`${setAside.length} things in this archive cannot be used as they are; the page "Archive" lists them:`);
  for (const { name, problem } of setAside.slice(0, 5)) console.error(`  ${name}: ${problem}`);
}
const token = isLocalHost(host) ? null : (givenToken ?? newKey());
const app = httpServer(application, {
  host,
  port,
  token,
  webFolder,
  report: (error) => console.error(logLines(error)),
  log: (line) => console.error(line),
});

const server = listeningServer(app);
server.on('error', (error: NodeJS.ErrnoException) =>
  stop(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is in use by another program. Set SEDIMENT_PORT to a free one.`
      : `Cannot listen on ${host}:${port}: ${error.message}`,
  ),
);
server.listen(port, host, () => {
  lock.announce(port);
  console.log(`Sediment is at http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}  (stop with Ctrl+C)`);
  if (token !== null)
    console.log(
      `Other devices: http://${host === '0.0.0.0' ? '<address of this machine>' : host}:${port}/?token=${token}  (listeners need their own link only)`,
    );
  if (isDemo) fillWithDemo(application).catch((cause: unknown) => console.error(logLines(cause)));
});

/** The demo imports the server, never the reverse: it is a bundle of its own beside this one. */
async function fillWithDemo(into: Application): Promise<void> {
  const { buildDemo } = (await import(pathToFileURL(demoBundle).href)) as {
    buildDemo: (application: Application, speechFolder: string) => Promise<void>;
  };
  await buildDemo(into, speechFolder);
}

let isStopping = false;
async function shutDown(): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  server.closeAllConnections();
  server.close();
  await application.close();
  process.exit(0);
}
process.on('SIGINT', () => void shutDown());
process.on('SIGTERM', () => void shutDown());
