import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { onTestFinished } from 'vitest';
import { packageRoot } from '../platform/package-root';

/** A server as a process of its own. */
export interface ServerProcess {
  readonly child: ChildProcess;
  readonly address: string;
  readonly port: number;
  /** All it has printed. */
  readonly output: () => string;
  kill(signal: NodeJS.Signals): Promise<void>;
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() =>
        typeof address === 'object' && address ? resolve(address.port) : reject(new Error('no port')),
      );
    });
  });
}

/** Runs any command of the project to its end. */
export function runToEnd(
  file: string,
  args: readonly string[],
  env: Readonly<Record<string, string>> = {},
): Promise<{ code: number | null; stdout: string; stderr: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(packageRoot, file), ...args], { env: { ...process.env, ...env } });
    let stdout = '';
    let stderr = '';
    child.stdout.on('data', (part: Buffer) => (stdout += part.toString()));
    child.stderr.on('data', (part: Buffer) => (stderr += part.toString()));
    child.on('close', (code) => resolve({ code, stdout, stderr }));
  });
}

/** Starts the built server on a data folder and waits until it answers. */
export async function startServer(
  folder: string,
  args: readonly string[] = [],
  endsWithTest = true,
): Promise<ServerProcess> {
  const port = await freePort();
  const child = spawn(process.execPath, [join(packageRoot, 'dist/node/main.js'), ...args], {
    env: { ...process.env, SEDIMENT_DATA: folder, SEDIMENT_PORT: String(port), SEDIMENT_HOST: '127.0.0.1' },
  });
  let output = '';
  const ended = new Promise<void>((resolve) => child.on('exit', () => resolve()));
  const kill = async (signal: NodeJS.Signals): Promise<void> => {
    child.kill(signal);
    await ended;
  };
  // Journeys share one server over a whole file and end it themselves.
  if (endsWithTest) {
    onTestFinished(async () => {
      if (child.exitCode === null && child.signalCode === null) await kill('SIGKILL');
    });
  }
  await new Promise<void>((resolve, reject) => {
    const listen = (part: Buffer): void => {
      output += part.toString();
      if (output.includes('Sediment is at')) resolve();
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}: ${output}`)));
  });
  return { child, port, address: `http://127.0.0.1:${port}`, output: () => output, kill };
}
